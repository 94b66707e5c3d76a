/** Whether what was seen on a display is provisional: its gamut is not known, or nobody calibrated it within 90 days. `now` in milliseconds. */
export function isProvisional(
  display: { gamut: string; /** a date, YYYY-MM-DD, or empty */ calibrated: string },
  now: number,
): boolean {
  const age = display.calibrated ? (now - Date.parse(display.calibrated)) / 86_400_000 : NaN;
  return !display.gamut || !(age >= 0 && age <= 90);
}
