/** By what a row of the bench is balanced, and how that is written in addresses and requests. */
import type { Neutral } from './neutral';

export type WhiteBalance =
  | { by: 'file' }
  | { by: 'gray world' }
  | { by: 'neutral'; neutral: Neutral }
  /** kelvin, and tint as 3000 times the distance in CIE 1960 uv */
  | { by: 'temperature'; kelvin: number; tint: number };

/** As the file itself says. */
export const asInFile: WhiteBalance = { by: 'file' };

function numbersOf(text: string, count: number): number[] | null {
  const parts = text.split(',');
  const values = parts.map(Number);
  return parts.length === count && !parts.includes('') && values.every(Number.isFinite) ? values : null;
}

/** "as", "auto", "n:r,g,b" or "k:kelvin,tint"; null for what is none of them. Ranges are for whoever uses it to check. */
export function whiteBalanceOf(text: string): WhiteBalance | null {
  if (text === 'as') return asInFile;
  if (text === 'auto') return { by: 'gray world' };
  const rest = text.slice(2);
  if (text.startsWith('n:')) {
    const neutral = numbersOf(rest, 3);
    return neutral && { by: 'neutral', neutral: neutral as Neutral };
  }
  if (text.startsWith('k:')) {
    const [kelvin, tint] = numbersOf(rest, 2) ?? [];
    return kelvin === undefined || tint === undefined ? null : { by: 'temperature', kelvin, tint };
  }
  return null;
}

/** The other way round; five digits of a neutral are more than a picture of 16 bits tells apart. */
export function whiteBalanceText(white: WhiteBalance): string {
  switch (white.by) {
    case 'file':
      return 'as';
    case 'gray world':
      return 'auto';
    case 'neutral':
      return `n:${white.neutral.map((value) => Number(value.toFixed(5))).join(',')}`;
    case 'temperature':
      return `k:${white.kelvin},${white.tint}`;
  }
}
