/** Points of a picture, in pixels with their centers at whole numbers, through what a calibration says of a photo. */
import type { Correction } from './correction';
import { radiusOf, type Radial } from './radial';
import type { Point, Size } from './opcodes';

export const channels = ['red', 'green', 'blue'] as const;
export type Channel = (typeof channels)[number];
export const directions = ['to-ideal', 'to-distorted'] as const;
export type Direction = (typeof directions)[number];

/** The middle of a picture, and half of its diagonal: the unit of radii. */
const middleOf = ({ width, height }: Size) => ({
  x: (width - 1) / 2,
  y: (height - 1) / 2,
  half: Math.hypot(width, height) / 2,
});

const FARTHEST = 1.5;

/**
 * @param lies for a radius of the ideal picture, where in the photo it lies
 * @returns null where no point of the other picture belongs to it
 */
export function throughLens(lies: Radial, size: Size, direction: Direction, [x, y]: Point): Point | null {
  const { x: middleX, y: middleY, half } = middleOf(size);
  const radius = Math.hypot(x - middleX, y - middleY) / half;
  if (radius === 0) return [x, y];
  const other = direction === 'to-distorted' ? lies(radius) : radiusOf(lies, radius, FARTHEST);
  if (other === null) return null;
  const factor = other / radius;
  return [middleX + (x - middleX) * factor, middleY + (y - middleY) * factor];
}

/** What the light at a point of the photo is multiplied by. */
export function gainAt({ light }: Correction, size: Size, [x, y]: Point): number {
  const { x: middleX, y: middleY, half } = middleOf(size);
  return 1 / light(Math.hypot(x - middleX, y - middleY) / half);
}
