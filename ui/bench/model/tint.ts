/** The color of neutrals in words. */

/** Hues of CIE L*a*b*, every 30° from 0 on: unique yellow lies near 90°, green near 160°, blue near 260°. */
const hueWords = [
  'pink',
  'red',
  'orange',
  'yellow',
  'lime',
  'green',
  'green',
  'cyan',
  'cyan',
  'blue',
  'violet',
  'magenta',
];

/** `chroma` is C*, `hue` in degrees; null where a picture has nothing neutral. */
export function tintWords(tint: { chroma: number; hue: number } | null): string {
  if (!tint) return 'no neutrals';
  if (tint.chroma < 1) return 'neutral';
  const word = hueWords[Math.floor((tint.hue + 15) / 30) % hueWords.length];
  return `${word} ${tint.chroma.toFixed(1)}`;
}
