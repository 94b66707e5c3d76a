/** Looks combined: one after another, mixed, and undone where that can be, each with what is left over. */
import { fromFunction, type Look } from './look';
import { pointsIn, residual, type Residual } from './residual';
import type { Evaluate } from './sample';

/** First `a`, then `b`. */
export const compose =
  (first: Evaluate, second: Evaluate): Evaluate =>
  (r, g, bl, out, at) => {
    first(r, g, bl, out, at);
    second(out[at]!, out[at + 1]!, out[at + 2]!, out, at);
  };

/** From `a` to `b`: share 0 is `a`, 1 is `b`, mixed in the looks' own values. */
export function blend(from: Evaluate, to: Evaluate, share: number): Evaluate {
  const inputs = new Float64Array(3);
  return (r, g, bl, out, at) => {
    from(r, g, bl, inputs, 0);
    const p = inputs[0]!;
    const q = inputs[1]!;
    const s = inputs[2]!;
    to(r, g, bl, out, at);
    out[at] = p + share * (out[at]! - p);
    out[at + 1] = q + share * (out[at + 1]! - q);
    out[at + 2] = s + share * (out[at + 2]! - s);
  };
}

export interface Inverse {
  look: Look;
  /** the look and then its inverse, against nothing: what cannot be undone */ residual: Residual;
  /** percent of its nodes that no input reaches */ unreached: number;
}

/** Solves J·s = e by Cramer's rule, J row by row; the error itself where J is singular, which is the fixed point's step. */
function newtonStep(jacobian: number[], error: number[]): number[] {
  const det =
    jacobian[0]! * (jacobian[4]! * jacobian[8]! - jacobian[5]! * jacobian[7]!) -
    jacobian[1]! * (jacobian[3]! * jacobian[8]! - jacobian[5]! * jacobian[6]!) +
    jacobian[2]! * (jacobian[3]! * jacobian[7]! - jacobian[4]! * jacobian[6]!);
  if (Math.abs(det) < 1e-8) return error;
  return [
    (error[0]! * (jacobian[4]! * jacobian[8]! - jacobian[5]! * jacobian[7]!) -
      jacobian[1]! * (error[1]! * jacobian[8]! - jacobian[5]! * error[2]!) +
      jacobian[2]! * (error[1]! * jacobian[7]! - jacobian[4]! * error[2]!)) /
      det,
    (jacobian[0]! * (error[1]! * jacobian[8]! - jacobian[5]! * error[2]!) -
      error[0]! * (jacobian[3]! * jacobian[8]! - jacobian[5]! * jacobian[6]!) +
      jacobian[2]! * (jacobian[3]! * error[2]! - error[1]! * jacobian[6]!)) /
      det,
    (jacobian[0]! * (jacobian[4]! * error[2]! - error[1]! * jacobian[7]!) -
      jacobian[1]! * (jacobian[3]! * error[2]! - error[1]! * jacobian[6]!) +
      error[0]! * (jacobian[3]! * jacobian[7]! - jacobian[4]! * jacobian[6]!)) /
      det,
  ];
}

/**
 * The inverse as a table, by a damped fixed point with Newton's steps (the Jacobian by differences): x ← x + J⁻¹(y − f(x)),
 * held to 0…1. Where a look folds or clips there is none, which the residual shows.
 */
export function invertLook(evaluate: Evaluate, title: string, size = 33): Inverse {
  const o = new Float64Array(3);
  const values = new Float64Array(3);
  const h = 1e-4;
  let unreached = 0;
  let nodes = 0;
  const back = (v: Float64Array): void => {
    const y = [v[0]!, v[1]!, v[2]!];
    const x = y.map((n) => Math.min(1, Math.max(0, n)));
    let best = x.slice();
    let error = Infinity;
    for (let pass = 0; pass < 40; pass++) {
      evaluate(x[0]!, x[1]!, x[2]!, o, 0);
      const e = [y[0]! - o[0]!, y[1]! - o[1]!, y[2]! - o[2]!];
      const n = Math.hypot(e[0]!, e[1]!, e[2]!);
      if (n < error) {
        error = n;
        best = x.slice();
      }
      if (n < 1e-7) break;
      const j = new Array<number>(9);
      const base = [o[0]!, o[1]!, o[2]!];
      for (let c = 0; c < 3; c++) {
        const d = x[c]! > 0.5 ? -h : h;
        const point = x.slice();
        point[c]! += d;
        evaluate(point[0]!, point[1]!, point[2]!, values, 0);
        for (let r = 0; r < 3; r++) j[r * 3 + c] = (values[r]! - base[r]!) / d;
      }
      const step = newtonStep(j, e);
      const k = Math.min(1, 0.35 / Math.max(1e-9, Math.hypot(...step)));
      for (let c = 0; c < 3; c++) x[c] = Math.min(1, Math.max(0, x[c]! + k * step[c]!));
    }
    nodes++;
    if (error > 0.01) unreached++;
    v[0] = best[0]!;
    v[1] = best[1]!;
    v[2] = best[2]!;
  };
  const look = fromFunction(size, title, back);
  const exact = (r: number, g: number, b: number, out: Float64Array | Float32Array, at: number): void => {
    evaluate(r, g, b, out, at);
    const values = Float64Array.of(out[at]!, out[at + 1]!, out[at + 2]!);
    back(values);
    out[at] = values[0]!;
    out[at + 1] = values[1]!;
    out[at + 2] = values[2]!;
  };
  const share = (100 * unreached) / nodes;
  return {
    look,
    residual: residual(
      (r, g, b, out, at) => {
        out[at] = r;
        out[at + 1] = g;
        out[at + 2] = b;
      },
      exact,
      pointsIn({ min: [0, 0, 0], max: [1, 1, 1] }, 1500),
    ),
    unreached: share,
  };
}
