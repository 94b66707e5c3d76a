/** What a camera body is called where looks and profiles are chosen for it: a converted one is another camera than its model. */
export const bodyOf = (f: { camera: string; conversion: string }): string =>
  [f.camera, f.conversion].filter(Boolean).join(', ');
