/** Hue in the hexcone of RGB (A. R. Smith, Color Gamut Transform Pairs, SIGGRAPH 1978), as HSV has it. */

/**
 * In sixths of a turn, 0 to 6: red 0, green 2, blue 4.
 * @param top the largest of the three
 * @param gap from the smallest to the largest, above 0
 */
export function hexconeHue(r: number, g: number, b: number, top: number, gap: number): number {
  let hue = 4 + (r - g) / gap;
  if (r === top) hue = (g - b) / gap;
  else if (g === top) hue = 2 + (b - r) / gap;
  return hue < 0 ? hue + 6 : hue;
}
