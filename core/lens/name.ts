/** Names of lenses as they are spoken of. */

/** The maker once, also where the model begins with it. */
export const lensName = ({ maker, model }: { maker: string; model: string }): string =>
  model.toLowerCase().startsWith(maker.toLowerCase()) ? model : `${maker} ${model}`;
