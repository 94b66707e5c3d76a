/** The renderer of point settings: sRGB code values in and out, unbounded, in the order of core/preset/settings.ts. */
import { fromOklab, toOklab } from '../color/oklab';
import { decodeSrgbQuickly as decodeSrgb, encodeSrgbQuickly as encodeSrgb } from '../color/transfer-table';
import type { Evaluate } from '../look/sample';
import type { Operation, Settings, Stage } from './kinds';
import { allSettings } from './settings';

const decode: Operation = (v, n) => {
  for (let i = 0; i < n; i++) v[i] = decodeSrgb(v[i]!);
};
const encode: Operation = (v, n) => {
  for (let i = 0; i < n; i++) v[i] = encodeSrgb(v[i]!);
};
const intoOklab: Operation = (v, n) => {
  for (let i = 0; i < n; i += 3) toOklab(v, i);
};
const outOfOklab: Operation = (v, n) => {
  for (let i = 0; i < n; i += 3) fromOklab(v, i);
};

/** The settings' operations in their order, with the changes of encoding between them; acts in place on many triples at once. */
export function compileMany(settings: Settings): Operation {
  const stages: Record<Stage, Operation[]> = { linear: [], encoded: [], oklab: [] };
  for (const d of allSettings) {
    if (!d.compile || !d.stage || settings[d.id] === undefined) continue;
    const op = d.compile(settings[d.id], settings);
    if (op) stages[d.stage].push(op);
  }
  const { linear, encoded, oklab } = stages;
  const steps: Operation[] = [];
  if (linear.length) steps.push(decode, ...linear);
  if (encoded.length) {
    if (linear.length) steps.push(encode);
    steps.push(...encoded);
  }
  if (oklab.length) {
    if (encoded.length || !linear.length) steps.push(decode);
    steps.push(intoOklab, ...oklab, outOfOklab);
  }
  if (oklab.length || (linear.length && !encoded.length)) steps.push(encode);
  return (v, n) => {
    for (const step of steps) step(v, n);
  };
}

/** The same for one color at a time. */
export function compile(settings: Settings): Evaluate {
  const many = compileMany(settings);
  const v = new Float64Array(3);
  return (r, g, b, out, at) => {
    v[0] = r;
    v[1] = g;
    v[2] = b;
    many(v, 3);
    out[at] = v[0]!;
    out[at + 1] = v[1]!;
    out[at + 2] = v[2]!;
  };
}
