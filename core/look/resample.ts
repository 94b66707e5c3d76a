/** A look at another size, with the error against its source, and a look re-expressed in another encoding. */
import { transformTo } from '../color/matrix';
import { between, spaces, type SpaceName } from '../color/spaces';
import { linear, logShaper, srgb, type Transfer } from '../color/transfer';
import { decodeSrgbQuickly as decodeSrgb, encodeSrgbQuickly as encodeSrgb } from '../color/transfer-table';
import { fromFunction, type Look } from './look';
import { pointsIn, residual, type Residual } from './residual';
import { sampler, type Evaluate } from './sample';

/** 3D (or 1D, where `keep1d`) table of `size` points an axis that samples the source at its nodes; without the error, where nobody asks for it. */
export function resized(look: Look, size: number, keep1d = false): Look {
  if (size === look.size && (look.kind === '3d' || keep1d)) return { ...look, comments: [], warnings: [] };
  const evaluate = sampler(look);
  if (look.kind !== '1d' || !keep1d)
    return {
      ...fromFunction(size, look.title, (v) => evaluate(v[0]!, v[1]!, v[2]!, v, 0), look.domain),
      title: look.title,
    };
  const table = new Float32Array(size * 3);
  const values = new Float64Array(3);
  for (let i = 0; i < size; i++) {
    const x = [0, 1, 2].map(
      (c) => look.domain.min[c]! + ((look.domain.max[c]! - look.domain.min[c]!) * i) / (size - 1),
    );
    evaluate(x[0]!, x[1]!, x[2]!, values, 0);
    table.set(values, i * 3);
  }
  return { ...look, size, table, comments: [], warnings: [] };
}

/** The same with the error against its source. */
export function resample(look: Look, size: number, keep1d = false): { look: Look; residual: Residual } {
  const out = resized(look, size, keep1d);
  return { look: out, residual: residual(sampler(look), sampler(out), pointsIn(look.domain)) };
}

/** Where and in what encoding an editor applies a table: its primaries and its transfer or shaper. */
export interface TableEncoding {
  primaries: SpaceName;
  transfer: 'srgb' | 'linear' | { log: { below: number; above: number } };
}

export const transferOf = (spacing: TableEncoding['transfer']): Transfer => {
  if (spacing === 'srgb') return srgb;
  if (spacing === 'linear') return linear;
  return logShaper(spacing.log.below, spacing.log.above);
};

/** A look whose table reaches beyond display white, cut off there: what takes display values has no more to ask. */
function withinDisplay(look: Look): Look {
  const { min, max } = look.domain;
  if (min.every((value) => value >= 0) && max.every((value) => value <= 1)) return look;
  const evaluate = sampler(look);
  return fromFunction(look.kind === '3d' ? look.size : 33, look.title, (v) => evaluate(v[0]!, v[1]!, v[2]!, v, 0));
}

/**
 * A look made for sRGB display values as a table for values in another encoding. Light outside the look's own
 * range (above what its table reaches, outside the primaries) passes beside it: what is clamped before it is added after it.
 * The residual compares both through sRGB, over sRGB inputs.
 */
export function reexpress(look: Look, target: TableEncoding, size: number): { look: Look; residual: Residual } {
  const evaluate = sampler(look);
  const space = spaces[target.primaries];
  const curve = transferOf(target.transfer);
  const isSrgb = target.primaries === 'srgb' && target.transfer === 'srgb';
  if (isSrgb) return resample(withinDisplay(look), size);
  const toSrgb = between(space, spaces.srgb);
  const fromSrgb = between(spaces.srgb, space);
  // a look that reaches beyond white says what becomes of light up to there
  const top = look.domain.max.map((value) => Math.max(1, decodeSrgb(value)));
  const inner = (values: Float64Array): void => {
    // linear sRGB through the look, in place
    const r = values[0]!;
    const g = values[1]!;
    const b = values[2]!;
    const cr = Math.min(top[0]!, Math.max(0, r));
    const cg = Math.min(top[1]!, Math.max(0, g));
    const cb = Math.min(top[2]!, Math.max(0, b));
    evaluate(encodeSrgb(cr), encodeSrgb(cg), encodeSrgb(cb), values, 0);
    values[0] = decodeSrgb(values[0]!) + (r - cr);
    values[1] = decodeSrgb(values[1]!) + (g - cg);
    values[2] = decodeSrgb(values[2]!) + (b - cb);
  };
  const by = (matrix: number[], values: Float64Array): void =>
    transformTo(matrix, values[0]!, values[1]!, values[2]!, values, 0);
  const out = fromFunction(size, look.title, (values) => {
    for (let c = 0; c < 3; c++) values[c] = curve.decode(values[c]!);
    by(toSrgb, values);
    inner(values);
    by(fromSrgb, values);
    for (let c = 0; c < 3; c++) values[c] = curve.encode(values[c]!);
  });
  const resampled = sampler(out);
  const values = new Float64Array(3);
  const through: Evaluate = (r, gr, b, out, at) => {
    values[0] = decodeSrgb(r);
    values[1] = decodeSrgb(gr);
    values[2] = decodeSrgb(b);
    by(fromSrgb, values);
    resampled(curve.encode(values[0]), curve.encode(values[1]), curve.encode(values[2]), values, 0);
    for (let c = 0; c < 3; c++) values[c] = curve.decode(values[c]!);
    by(toSrgb, values);
    for (let c = 0; c < 3; c++) out[at + c] = encodeSrgb(values[c]!);
  };
  return { look: out, residual: residual(evaluate, through) };
}
