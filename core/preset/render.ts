/** The renderer of point settings: sRGB code values in and out, unbounded, in the order of core/preset/settings.ts. */
import { fromOklab, toOklab } from '../color/oklab';
import { decodeSrgbQuickly as decodeSrgb, encodeSrgbQuickly as encodeSrgb } from '../color/transfer-table';
import type { Evaluate } from '../look/sample';
import type { Operation, Settings, Stage } from './kinds';
import { allSettings } from './settings';

/** Which settings a renderer runs: those of class point, unless the classes of a mapping say otherwise. */
export function compile(settings: Settings): Evaluate {
  const stages: Record<Stage, Operation[]> = { linear: [], encoded: [], oklab: [] };
  for (const d of allSettings) {
    if (!d.compile || !d.stage || settings[d.id] === undefined) continue;
    const op = d.compile(settings[d.id], settings);
    if (op) stages[d.stage].push(op);
  }
  const { linear, encoded, oklab } = stages, v = new Float64Array(3);
  const decode = (): void => { v[0] = decodeSrgb(v[0]!); v[1] = decodeSrgb(v[1]!); v[2] = decodeSrgb(v[2]!); };
  const encode = (): void => { v[0] = encodeSrgb(v[0]!); v[1] = encodeSrgb(v[1]!); v[2] = encodeSrgb(v[2]!); };
  return (r, g, b, out, at) => {
    v[0] = r; v[1] = g; v[2] = b;
    let isLinear = false;
    if (linear.length) { decode(); isLinear = true; for (const op of linear) op(v); }
    if (encoded.length) { if (isLinear) encode(); isLinear = false; for (const op of encoded) op(v); }
    if (oklab.length) { if (!isLinear) decode(); toOklab(v); for (const op of oklab) op(v); fromOklab(v); isLinear = true; }
    if (isLinear) encode();
    out[at] = v[0]; out[at + 1] = v[1]!; out[at + 2] = v[2]!;
  };
}
