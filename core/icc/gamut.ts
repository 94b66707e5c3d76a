/** Outline of an RGB profile's gamut in a*, b*: the convex hull of the colors on the surface of its device cube. */
import { once } from './transform';

export async function gamutOutline(bytes: Uint8Array): Promise<[number, number][]> {
  const n = 9;
  const device: number[] = [];
  for (let face = 0; face < 6; face++)
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) {
        const point = [i / (n - 1), j / (n - 1)];
        point.splice(face >> 1, 0, face & 1);
        device.push(...point);
      }
  const lab = await once(bytes, 'lab', device);
  const points: [number, number][] = [];
  for (let i = 0; i < lab.length; i += 3)
    if (Number.isFinite(lab[i + 1]!) && Number.isFinite(lab[i + 2]!)) points.push([lab[i + 1]!, lab[i + 2]!]);
  return hull(points);
}

/** Convex hull, counter-clockwise (A. M. Andrew, Information Processing Letters 9, 1979). */
export function hull(points: [number, number][]): [number, number][] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const turn = (o: [number, number], a: [number, number], b: [number, number]): number =>
    (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
  const half = (list: [number, number][]): [number, number][] => {
    const chain: [number, number][] = [];
    for (const point of list) {
      while (chain.length > 1 && turn(chain[chain.length - 2]!, chain[chain.length - 1]!, point) <= 0) chain.pop();
      chain.push(point);
    }
    chain.pop();
    return chain;
  };
  return [...half(sorted), ...half(sorted.reverse())];
}
