/** The house choice that holds for a frame. */
export interface ChoiceOnBench {
  client: string;
  camera: string;
  light: string;
  kind: string;
  strength: number;
  profile: string | null;
  profileVersion: string | null;
  look: string | null;
  lookVersion: string | null;
}

/** Of those that fit, the one that says most: for no client before a client's own, then camera, light and kind of file. Empty stands for any. */
export function choiceFor(
  choices: readonly ChoiceOnBench[],
  frame: { camera: string; light: string; kind: string },
): ChoiceOnBench | null {
  const same = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();
  const fits = choices.filter(
    (c) =>
      (!c.camera || same(c.camera, frame.camera)) &&
      (!c.light || same(c.light, frame.light)) &&
      (!c.kind || c.kind === frame.kind),
  );
  const said = (c: ChoiceOnBench): number =>
    (c.client ? 0 : 8) + (c.camera ? 4 : 0) + (c.light ? 2 : 0) + (c.kind ? 1 : 0);
  return fits.reduce<ChoiceOnBench | null>((best, c) => (!best || said(c) > said(best) ? c : best), null);
}
