/** What the pointer reads from large cells. */
import { labOfSrgb } from '@/core/color/lab';

/** The color at a place (0…1) of what is shown, in code values; null before there is something. */
export type ReadColor = (x: number, y: number) => [number, number, number] | null;

function labWords([r = 0, g = 0, b = 0]: readonly number[]): string {
  const lab = new Float64Array(3);
  labOfSrgb(r / 255, g / 255, b / 255, lab);
  const [line, aStar, bStar] = Array.from(lab, (value) => value.toFixed(0));
  return `L* ${line} a* ${aStar} b* ${bStar}`;
}

const isClipped = (rgb: readonly number[]): boolean => rgb.some((value) => value === 255 || value === 0);

/** What is read in each of the cells side by side, in a line. */
export const readoutWords = (cells: readonly { name: string; rgb: readonly number[] }[]): string =>
  cells
    .filter(({ rgb }) => rgb.length > 0)
    .map(({ name, rgb }) => `${name}: ${rgb.join(' ')}, ${labWords(rgb)}${isClipped(rgb) ? ', clipped' : ''}`)
    .join('   ');
