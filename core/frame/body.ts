/** What a camera body is called where looks and profiles are chosen for it: a converted one is another camera than its model. */
export const bodyOf = (frame: { camera: string; conversion: string }): string =>
  [frame.camera, frame.conversion].filter(Boolean).join(', ');
