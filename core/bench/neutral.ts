/** White balance by what ought to be neutral: the mean of a whole picture, or of a place in it; and its effect on a rendered file. */
import { decodeSrgb, encodeSrgb } from '../color/transfer';
import { Problem } from '../problem';

export type Neutral = [number, number, number];
/** Camera values (three of 16 bits a pixel), or a rendered picture (RGBA of 8 bits). */
export type Seen =
  | { kind: 'camera'; width: number; height: number; data: Uint16Array }
  | { kind: 'rendered'; width: number; height: number; data: Uint8ClampedArray };

const light = new Float64Array(256).map((_, i) => decodeSrgb(i / 255));
const valueOf = (s: Seen, at: number): number => (s.kind === 'camera' ? s.data[at]! : light[s.data[at]!]!);
const stepOf = (s: Seen): number => (s.kind === 'camera' ? 3 : 4);
const topOf = (s: Seen): number => (s.kind === 'camera' ? 65535 : 255);

/** The mean light of what is neither dark nor clipped, the largest 1. */
export function grayWorld(seen: Seen): Neutral {
  const sum: Neutral = [0, 0, 0];
  const step = stepOf(seen);
  const top = topOf(seen);
  for (let i = 0; i + 2 < seen.data.length; i += step) {
    const hi = Math.max(seen.data[i]!, seen.data[i + 1]!, seen.data[i + 2]!);
    if (hi < top * 0.97 && hi > top * 0.02) for (let c = 0; c < 3; c++) sum[c]! += valueOf(seen, i + c);
  }
  const most = Math.max(...sum);
  return most > 0 ? (sum.map((v) => Math.max(1e-3, v / most)) as Neutral) : [1, 1, 1];
}

/** What stands at a place (0…1): the mean light of five by five pixels, the largest 1. */
export function neutralAt(seen: Seen, x: number, y: number): Neutral {
  const sum: Neutral = [0, 0, 0];
  const step = stepOf(seen);
  const high = seen.kind === 'camera' ? 64000 : 254;
  let clipped = false;
  for (let dy = -2; dy <= 2; dy++)
    for (let dx = -2; dx <= 2; dx++) {
      const px = Math.max(0, Math.min(seen.width - 1, Math.round(x * seen.width) + dx));
      const py = Math.max(0, Math.min(seen.height - 1, Math.round(y * seen.height) + dy));
      const at = (py * seen.width + px) * step;
      for (let c = 0; c < 3; c++) {
        if (seen.data[at + c]! >= high) clipped = true;
        sum[c]! += valueOf(seen, at + c);
      }
    }
  if (clipped || Math.min(...sum) <= 0)
    throw new Problem(
      'neutral',
      'That place is clipped or black.',
      `${(100 * x).toFixed(0)} % across, ${(100 * y).toFixed(0)} % down`,
      'Pick a gray that is neither.',
    );
  const most = Math.max(...sum);
  return [sum[0] / most, sum[1] / most, sum[2] / most];
}

/** A rendered picture in which this neutral is gray, green kept; a new array. */
export function balancedBy(pixels: Uint8ClampedArray, neutral: Neutral): Uint8ClampedArray {
  const out = pixels.slice();
  const codes = neutral.map((v) =>
    Uint8ClampedArray.from({ length: 256 }, (_, i) =>
      Math.round(255 * encodeSrgb(Math.min(1, (light[i]! * neutral[1]) / v))),
    ),
  );
  for (let i = 0; i < out.length; i += 4) for (let c = 0; c < 3; c++) out[i + c] = codes[c]![out[i + c]!]!;
  return out;
}
