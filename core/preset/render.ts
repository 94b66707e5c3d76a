/** The renderer of point settings: sRGB code values in and out, unbounded, in the order of core/preset/settings.ts. */
import { fromOklab, toOklab } from '../color/oklab';
import { decodeSrgbQuickly as decodeSrgb, encodeSrgbQuickly as encodeSrgb } from '../color/transfer-table';
import type { Evaluate } from '../look/sample';
import type { Operation, Settings, Stage } from './kinds';
import { allSettings } from './settings';

const decode: Operation = (values, n) => {
  for (let i = 0; i < n; i++) values[i] = decodeSrgb(values[i]!);
};
const encode: Operation = (values, n) => {
  for (let i = 0; i < n; i++) values[i] = encodeSrgb(values[i]!);
};
const intoOklab: Operation = (values, n) => {
  for (let i = 0; i < n; i += 3) toOklab(values, i);
};
const outOfOklab: Operation = (values, n) => {
  for (let i = 0; i < n; i += 3) fromOklab(values, i);
};

/** The settings' operations in their order, with the changes of encoding between them; acts in place on many triples at once. */
export function compileMany(settings: Settings): Operation {
  const stages: Record<Stage, Operation[]> = { linear: [], encoded: [], oklab: [] };
  for (const setting of allSettings) {
    if (!setting.compile || !setting.stage || settings[setting.id] === undefined) continue;
    const op = setting.compile(settings[setting.id], settings);
    if (op) stages[setting.stage].push(op);
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
  return (values, n) => {
    for (const step of steps) step(values, n);
  };
}

/** The same for one color at a time. */
export function compile(settings: Settings): Evaluate {
  const many = compileMany(settings);
  const values = new Float64Array(3);
  return (r, g, b, out, at) => {
    values[0] = r;
    values[1] = g;
    values[2] = b;
    many(values, 3);
    out[at] = values[0]!;
    out[at + 1] = values[1]!;
    out[at + 2] = values[2]!;
  };
}
