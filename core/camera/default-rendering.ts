/** How camera data is shown where no profile is chosen: the matrices of the file, and a plain tone curve of our own, said to be so. */
import { copyOf, setNumbers, type Dcp } from './dcp';
import { read } from './tags';

/** A toe, a straight part, a soft shoulder, from black to white. */
export function plainCurve(points = 33): [number, number][] {
  const shoulder = (x: number): number => (x * (1.35 * x + 0.18)) / (x * (1.22 * x + 0.62) + 0.06);
  const end = shoulder(1);
  return Array.from({ length: points }, (_, i) => {
    const x = (i / (points - 1)) ** 2;
    return [x, shoulder(x) / end];
  });
}

export function plainProfile(embedded: Dcp): Dcp {
  const out = copyOf(embedded);
  for (const t of [read.mapDims, ...read.map, read.lookDims, read.look, read.exposure]) out.tags.delete(t);
  setNumbers(out, read.curve, 11, plainCurve().flat());
  return out;
}
