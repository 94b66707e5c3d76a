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

/**
 * The color of a hue, into out[at…at+2].
 * @param hue in sixths of a turn, 0 to 6
 * @param saturation 0 to 1
 * @param value the largest of the three, above 0
 */
export function hexconeColor(hue: number, saturation: number, value: number, out: Float64Array, at: number): void {
  const sector = Math.min(5, Math.floor(hue));
  const part = hue - sector;
  const low = value * (1 - saturation);
  const falling = value * (1 - saturation * part);
  const rising = value * (1 - saturation * (1 - part));
  if (sector === 0) {
    out[at] = value;
    out[at + 1] = rising;
    out[at + 2] = low;
  } else if (sector === 1) {
    out[at] = falling;
    out[at + 1] = value;
    out[at + 2] = low;
  } else if (sector === 2) {
    out[at] = low;
    out[at + 1] = value;
    out[at + 2] = rising;
  } else if (sector === 3) {
    out[at] = low;
    out[at + 1] = falling;
    out[at + 2] = value;
  } else if (sector === 4) {
    out[at] = rising;
    out[at + 1] = low;
    out[at + 2] = value;
  } else {
    out[at] = value;
    out[at + 1] = low;
    out[at + 2] = falling;
  }
}
