/** What the browser says of the display. */
import type { Gamut } from '@/core/bench/display-gamut';

const gamuts: readonly Gamut[] = ['rec2020', 'p3', 'srgb'];

/** The widest gamut that the display covers; null where the browser does not know, or there is none. */
export function displayGamut(): Gamut | null {
  if (typeof matchMedia === 'undefined') return null;
  return gamuts.find((gamut) => matchMedia(`(color-gamut: ${gamut})`).matches) ?? null;
}

export const gamutWords: Record<Gamut, string> = { srgb: 'sRGB', p3: 'P3', rec2020: 'Rec. 2020' };
