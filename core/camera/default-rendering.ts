/** How camera data is shown where no profile is chosen: the matrices of the file, and a plain tone curve of our own, said to be so. */
import { copyOf, setNumbers, type Dcp } from './dcp';
import { T } from './tags';

/** A toe, a straight part, a soft shoulder, from black to white. */
export function plainCurve(points = 33): [number, number][] {
  const f = (x: number): number => (x * (1.35 * x + 0.18)) / (x * (1.22 * x + 0.62) + 0.06);
  const end = f(1);
  return Array.from({ length: points }, (_, i) => {
    const x = (i / (points - 1)) ** 2;
    return [x, f(x) / end];
  });
}

export function plainProfile(embedded: Dcp): Dcp {
  const out = copyOf(embedded);
  for (const t of [T.mapDims, ...T.map, T.lookDims, T.look, T.exposure]) out.tags.delete(t);
  setNumbers(out, T.curve, 11, plainCurve().flat());
  return out;
}
