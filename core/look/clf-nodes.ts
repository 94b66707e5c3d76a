/**
 * The process nodes of the Common LUT Format (SMPTE ST 2136-1 and its public forerunner, version 3), each a function on
 * one color. Values between nodes are normalised: 1.0 is full scale whatever the bit depths say.
 */
import type { Correction } from './cdl';
import type { Look } from './look';
import { sampler, type Interpolation } from './sample';

/** Acts in place on the three values. */
export type Step = (v: Float64Array) => void;

const hold = (x: number): number => {
  if (x < 0) return 0;
  if (x > 1) return 1;
  return x;
};

/** Output values scaled to 0…1 of ascending input values; the domain is 0…1. */
export function lut1d(table: Float64Array, size: number): Step {
  const last = size - 1;
  return (values) => {
    for (let c = 0; c < 3; c++) {
      const x = hold(values[c]!) * last;
      const i = Math.min(last - 1, Math.floor(x));
      const a = table[i * 3 + c]!;
      values[c] = a + (x - i) * (table[(i + 1) * 3 + c]! - a);
    }
  };
}

const f32 = new Float32Array(1);
const u32 = new Uint32Array(f32.buffer);
/** A half-float's bits as a number (IEEE 754-2008 binary16). */
export function halfValue(bits: number): number {
  const sign = bits & 0x8000 ? -1 : 1;
  const e = (bits >> 10) & 31;
  const m = bits & 1023;
  if (e === 0) return sign * m * 2 ** -24;
  if (e === 31) {
    if (m) return NaN;
    return sign * Infinity;
  }
  return sign * (1 + m / 1024) * 2 ** (e - 15);
}
/** The bits of the half-float next below in magnitude. */
function halfBelow(x: number): number {
  const sign = x < 0 || Object.is(x, -0) ? 0x8000 : 0;
  const a = Math.abs(x);
  if (a >= 65504) return sign | 0x7bff;
  if (a < 2 ** -14) return sign | Math.floor(a * 2 ** 24);
  f32[0] = a;
  if (f32[0] > a) u32[0]!--;
  const e = (u32[0]! >>> 23) - 127;
  return sign | ((e + 15) << 10) | ((u32[0]! >>> 13) & 1023);
}
/** A table indexed by the bits of half-floats (halfDomain): linear between neighbours. */
export function lutHalf(table: Float64Array): Step {
  return (values) => {
    for (let c = 0; c < 3; c++) {
      const x = Number.isNaN(values[c]!) ? 0 : values[c]!;
      const i = halfBelow(x);
      const at = halfValue(i);
      const next = (i & 0x7fff) === 0x7bff ? i : i + 1;
      const step = halfValue(next) - at;
      const a = table[i * 3 + c]!;
      values[c] = step === 0 ? a : a + Math.min(1, (x - at) / step) * (table[next * 3 + c]! - a);
    }
  };
}

export function lut3d(look: Look, interpolation: Interpolation): Step {
  const evaluate = sampler(look, interpolation);
  return (v) => evaluate(v[0]!, v[1]!, v[2]!, v, 0);
}

/** Nine factors row-major and three offsets. */
export function matrix(rows: readonly number[], offset: readonly number[]): Step {
  return (values) => {
    const r = values[0]!;
    const g = values[1]!;
    const b = values[2]!;
    for (let i = 0; i < 3; i++) values[i] = rows[i * 3]! * r + rows[i * 3 + 1]! * g + rows[i * 3 + 2]! * b + offset[i]!;
  };
}

/** Where a pair is missing, the step only shifts to the other pair's place, and clamps on that side alone. */
export function range(
  minIn: number | undefined,
  maxIn: number | undefined,
  minOut: number | undefined,
  maxOut: number | undefined,
  clamp: boolean,
): Step {
  const both = minIn !== undefined && maxIn !== undefined;
  const scale = both ? (maxOut! - minOut!) / (maxIn - minIn) : 1;
  const offset = minIn !== undefined ? minOut! - minIn * scale : maxOut! - maxIn! * scale;
  return (values) => {
    for (let i = 0; i < 3; i++) {
      let x = values[i]! * scale + offset;
      if (clamp) {
        if (minOut !== undefined && x < minOut) x = minOut;
        if (maxOut !== undefined && x > maxOut) x = maxOut;
      }
      values[i] = x;
    }
  };
}

const power = (x: number, g: number): number => (x <= 0 ? 0 : x ** g);
const mirror =
  (curve: (x: number) => number) =>
  (x: number): number =>
    x < 0 ? -curve(-x) : curve(x);
function monitorCurve(g: number, o: number): { forward: (x: number) => number; back: (x: number) => number } {
  if (o === 0 || g === 1) return { forward: (x) => power(x, g), back: (x) => power(x, 1 / g) };
  const at = o / (g - 1);
  const slope = ((g - 1) / o) * ((o * g) / ((g - 1) * (1 + o))) ** g;
  const turned = ((o * g) / ((g - 1) * (1 + o))) ** g;
  return {
    forward: (x) => (x >= at ? ((x + o) / (1 + o)) ** g : x * slope),
    back: (y) => (y >= turned ? (1 + o) * y ** (1 / g) - o : y / slope),
  };
}
/** Styles of the Exponent node. */
export const exponentStyles: Record<string, (g: number, o: number) => (x: number) => number> = {
  basicFwd: (g) => (x) => power(x, g),
  basicRev: (g) => (x) => power(x, 1 / g),
  basicMirrorFwd: (g) => mirror((x) => power(x, g)),
  basicMirrorRev: (g) => mirror((x) => power(x, 1 / g)),
  basicPassThruFwd: (g) => (x) => (x < 0 ? x : power(x, g)),
  basicPassThruRev: (g) => (x) => (x < 0 ? x : power(x, 1 / g)),
  monCurveFwd: (g, o) => monitorCurve(g, o).forward,
  monCurveRev: (g, o) => monitorCurve(g, o).back,
  monCurveMirrorFwd: (g, o) => mirror(monitorCurve(g, o).forward),
  monCurveMirrorRev: (g, o) => mirror(monitorCurve(g, o).back),
};
export function channels(curves: readonly ((x: number) => number)[]): Step {
  return (values) => {
    for (let i = 0; i < 3; i++) values[i] = curves[i]!(values[i]!);
  };
}

const luma = (v: Float64Array): number => 0.2126 * v[0]! + 0.7152 * v[1]! + 0.0722 * v[2]!;
/** ASC CDL 1.2; saturation by Rec. 709 luma. The styles without clamping leave what is below zero to the slope and offset alone. */
export const cdlStyles: Record<string, (c: Correction) => Step> = {
  Fwd: (correction) => (values) => {
    for (let i = 0; i < 3; i++)
      values[i] = hold(values[i]! * correction.slope[i]! + correction.offset[i]!) ** correction.power[i]!;
    const y = luma(values);
    for (let i = 0; i < 3; i++) values[i] = hold(y + correction.saturation * (values[i]! - y));
  },
  Rev: (correction) => (values) => {
    for (let i = 0; i < 3; i++) values[i] = hold(values[i]!);
    const y = luma(values);
    for (let i = 0; i < 3; i++)
      values[i] = hold(
        (hold(y + (values[i]! - y) / correction.saturation) ** (1 / correction.power[i]!) - correction.offset[i]!) /
          correction.slope[i]!,
      );
  },
  FwdNoClamp: (correction) => (values) => {
    for (let i = 0; i < 3; i++) {
      const x = values[i]! * correction.slope[i]! + correction.offset[i]!;
      values[i] = x < 0 ? x : x ** correction.power[i]!;
    }
    const y = luma(values);
    for (let i = 0; i < 3; i++) values[i] = y + correction.saturation * (values[i]! - y);
  },
  RevNoClamp: (correction) => (values) => {
    const y = luma(values);
    for (let i = 0; i < 3; i++) {
      const x = y + (values[i]! - y) / correction.saturation;
      values[i] = ((x < 0 ? x : x ** (1 / correction.power[i]!)) - correction.offset[i]!) / correction.slope[i]!;
    }
  },
};

export interface LogParams {
  base: number;
  logSlope: number;
  logOffset: number;
  linSlope: number;
  linOffset: number;
  linBreak: number | null;
  linearSlope: number | null;
}
const least = 2 ** -126;
function logBoth(logParams: LogParams): { to: (x: number) => number; from: (y: number) => number } {
  const l = Math.log(logParams.base);
  const curve = (x: number): number =>
    (logParams.logSlope * Math.log(Math.max(least, logParams.linSlope * x + logParams.linOffset))) / l +
    logParams.logOffset;
  const back = (y: number): number =>
    (logParams.base ** ((y - logParams.logOffset) / logParams.logSlope) - logParams.linOffset) / logParams.linSlope;
  if (logParams.linBreak === null) return { to: curve, from: back };
  const at = logParams.linBreak;
  const slope =
    logParams.linearSlope ??
    (logParams.logSlope * logParams.linSlope) / ((logParams.linSlope * at + logParams.linOffset) * l);
  const shift = curve(at) - slope * at;
  const turned = curve(at);
  return {
    to: (x) => (x <= at ? slope * x + shift : curve(x)),
    from: (y) => (y <= turned ? (y - shift) / slope : back(y)),
  };
}
/** Styles of the Log node. */
export const logStyles: Record<string, (p: LogParams) => (x: number) => number> = {
  log10: () => (x) => Math.log10(Math.max(x, least)),
  antiLog10: () => (x) => 10 ** x,
  log2: () => (x) => Math.log2(Math.max(x, least)),
  antiLog2: () => (x) => 2 ** x,
  linToLog: (p) => logBoth(p).to,
  logToLin: (p) => logBoth(p).from,
  cameraLinToLog: (p) => logBoth(p).to,
  cameraLogToLin: (p) => logBoth(p).from,
};
