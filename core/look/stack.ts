/** A column of the bench as one look: what lies in it, lowest first, each at its strength, and the trim over all of it. */
import { trimmed, type Trim } from '../bench/measure';
import { compose } from './algebra';
import { fromRows, type Look } from './look';
import { residual, type Residual } from './residual';
import { sampler, type Evaluate } from './sample';

/** Nothing is laid over: each color is what it is. */
const asItIs: Evaluate = (r, g, b, out, at) => {
  out[at] = r;
  out[at + 1] = g;
  out[at + 2] = b;
};

/** A trim on code values 0…1. */
const trimOver =
  (trim: Trim): Evaluate =>
  (r, g, b, out, at) => {
    out[at] = trimmed(r, trim, 0);
    out[at + 1] = trimmed(g, trim, 1);
    out[at + 2] = trimmed(b, trim, 2);
  };

/** @param layers each with its strength in it, lowest first */
export function stackOf(layers: readonly Evaluate[], trim: Trim | null): Evaluate {
  const all = trim ? [...layers, trimOver(trim)] : layers;
  return all.reduce<Evaluate>((under, over) => (under === asItIs ? over : compose(under, over)), asItIs);
}

/** It as a table of `size` points an axis, sRGB code values in and out, and how far the table is from it. */
export function tableOfStack(stack: Evaluate, size: number, title: string): { look: Look; residual: Residual } {
  const look = fromRows(size, title, (values, n) => {
    for (let i = 0; i < n; i += 3) stack(values[i] ?? 0, values[i + 1] ?? 0, values[i + 2] ?? 0, values, i);
  });
  return { look, residual: residual(stack, sampler(look)) };
}
