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
    (choice) =>
      (!choice.camera || same(choice.camera, frame.camera)) &&
      (!choice.light || same(choice.light, frame.light)) &&
      (!choice.kind || choice.kind === frame.kind),
  );
  const said = (choice: ChoiceOnBench): number =>
    (choice.client ? 0 : 8) + (choice.camera ? 4 : 0) + (choice.light ? 2 : 0) + (choice.kind ? 1 : 0);
  return fits.reduce<ChoiceOnBench | null>((best, c) => (!best || said(c) > said(best) ? c : best), null);
}
