/** A look at another size, with the error against its source, and a look re-expressed in another encoding. */
import { between, spaces, type SpaceName } from '../color/spaces';
import { linear, logShaper, srgb, type Transfer } from '../color/transfer';
import { decodeSrgbQuickly as decodeSrgb, encodeSrgbQuickly as encodeSrgb } from '../color/transfer-table';
import { fromFunction, type Look } from './look';
import { pointsIn, residual, type Residual } from './residual';
import { sampler, type Evaluate } from './sample';

/** 3D (or 1D, where `keep1d`) table of `size` points an axis that samples the source at its nodes; without the error, where nobody asks for it. */
export function resized(look: Look, size: number, keep1d = false): Look {
  if (size === look.size && (look.kind === '3d' || keep1d)) return { ...look, comments: [], warnings: [] };
  const f = sampler(look);
  if (look.kind !== '1d' || !keep1d)
    return { ...fromFunction(size, look.title, (v) => f(v[0]!, v[1]!, v[2]!, v, 0), look.domain), title: look.title };
  const table = new Float32Array(size * 3);
  const v = new Float64Array(3);
  for (let i = 0; i < size; i++) {
    const x = [0, 1, 2].map(
      (c) => look.domain.min[c]! + ((look.domain.max[c]! - look.domain.min[c]!) * i) / (size - 1),
    );
    f(x[0]!, x[1]!, x[2]!, v, 0);
    table.set(v, i * 3);
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

export const transferOf = (t: TableEncoding['transfer']): Transfer =>
  t === 'srgb' ? srgb : t === 'linear' ? linear : logShaper(t.log.below, t.log.above);

/**
 * A look made for sRGB display values as a table for values in another encoding. Light outside the look's own
 * range (above display white, outside the primaries) passes beside it: what is clamped before it is added after it.
 * The residual compares both through sRGB, over sRGB inputs.
 */
export function reexpress(look: Look, target: TableEncoding, size: number): { look: Look; residual: Residual } {
  const f = sampler(look);
  const space = spaces[target.primaries];
  const curve = transferOf(target.transfer);
  const isSrgb = target.primaries === 'srgb' && target.transfer === 'srgb';
  if (isSrgb) return resample(look, size);
  const toSrgb = between(space, spaces.srgb);
  const fromSrgb = between(spaces.srgb, space);
  const inner = (v: Float64Array): void => {
    // linear sRGB through the look, in place
    const r = v[0]!;
    const g = v[1]!;
    const b = v[2]!;
    const cr = Math.min(1, Math.max(0, r));
    const cg = Math.min(1, Math.max(0, g));
    const cb = Math.min(1, Math.max(0, b));
    f(encodeSrgb(cr), encodeSrgb(cg), encodeSrgb(cb), v, 0);
    v[0] = decodeSrgb(v[0]!) + (r - cr);
    v[1] = decodeSrgb(v[1]!) + (g - cg);
    v[2] = decodeSrgb(v[2]!) + (b - cb);
  };
  const by = (m: number[], v: Float64Array): void => {
    const r = v[0]!;
    const g = v[1]!;
    const b = v[2]!;
    v[0] = m[0]! * r + m[1]! * g + m[2]! * b;
    v[1] = m[3]! * r + m[4]! * g + m[5]! * b;
    v[2] = m[6]! * r + m[7]! * g + m[8]! * b;
  };
  const out = fromFunction(size, look.title, (v) => {
    for (let c = 0; c < 3; c++) v[c] = curve.decode(v[c]!);
    by(toSrgb, v);
    inner(v);
    by(fromSrgb, v);
    for (let c = 0; c < 3; c++) v[c] = curve.encode(v[c]!);
  });
  const g = sampler(out);
  const w = new Float64Array(3);
  const through: Evaluate = (r, gr, b, o, at) => {
    w[0] = decodeSrgb(r);
    w[1] = decodeSrgb(gr);
    w[2] = decodeSrgb(b);
    by(fromSrgb, w);
    g(curve.encode(w[0]), curve.encode(w[1]), curve.encode(w[2]), w, 0);
    for (let c = 0; c < 3; c++) w[c] = curve.decode(w[c]!);
    by(toSrgb, w);
    for (let c = 0; c < 3; c++) o[at + c] = encodeSrgb(w[c]!);
  };
  return { look: out, residual: residual(f, through) };
}
