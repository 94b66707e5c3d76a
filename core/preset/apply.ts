/**
 * A preset over 8-bit pixels, evaluated directly: its point settings on each color that the picture has, and the look that
 * it refers to behind them. No table stands between, so that nothing is interpolated; each color is computed once.
 */
import { sampler, type Evaluate } from '../look/sample';
import type { Look } from '../look/look';
import type { Operation, Settings } from './kinds';
import { compileMany } from './render';

/** A look that a preset calls. */
export interface CalledLook {
  look: Look;
  /** a factor; 1 is as made */ strength: number;
}

/** What a preset does to colors. */
export interface PresetEffect {
  /** point settings alone */ settings: Settings;
  look: CalledLook | null;
}

/** Settings, then the look, in place on interleaved triples of sRGB code values. */
export function operationOf({ settings, look }: PresetEffect): Operation {
  const point = compileMany(settings);
  if (!look) return point;
  const behind = sampler(look.look, 'tetrahedral', look.strength);
  return (values, n) => {
    point(values, n);
    for (let i = 0; i < n; i += 3) behind(values[i]!, values[i + 1]!, values[i + 2]!, values, i);
  };
}

/** The same for one color, at a strength as a factor, which acts once over all of it. */
export function evaluateOf(effect: PresetEffect, strength = 1): Evaluate {
  const run = operationOf(effect);
  const values = new Float64Array(3);
  return (r, g, b, out, at) => {
    values[0] = r;
    values[1] = g;
    values[2] = b;
    run(values, 3);
    out[at] = r + strength * (values[0]! - r);
    out[at + 1] = g + strength * (values[1]! - g);
    out[at + 2] = b + strength * (values[2]! - b);
  };
}

/** The colors of a picture, each once. */
interface Colors {
  colors: Uint32Array;
  /** the number of its color, by pixel */ of: Uint32Array;
}

// each loop over many has a function of its own: then the engine need not go back to slow code behind it

function colorsOf(source: Uint8Array | Uint8ClampedArray): Colors {
  const pixels = source.length / 4;
  const of = new Uint32Array(pixels);
  const colors = new Uint32Array(pixels);
  // open addressing over a power of two at least twice as large as the number of colors can be
  const size = 2 ** Math.ceil(Math.log2(Math.max(16, pixels * 2)));
  const count = numbered(source, of, colors, new Uint32Array(size), size - 1);
  return { colors: colors.subarray(0, count), of };
}

/** Writes each pixel's number into `of` and each new color into `colors`; returns how many there are. */
function numbered(
  source: Uint8Array | Uint8ClampedArray,
  of: Uint32Array,
  colors: Uint32Array,
  slots: Uint32Array,
  mask: number,
): number {
  let count = 0;
  for (let p = 0, i = 0; p < of.length; p++, i += 4) {
    const color = source[i]! | (source[i + 1]! << 8) | (source[i + 2]! << 16);
    let slot = (Math.imul(color, 0x9e3779b1) >>> 8) & mask;
    let held = slots[slot]!;
    while (held !== 0 && colors[held - 1] !== color) {
      slot = (slot + 1) & mask;
      held = slots[slot]!;
    }
    if (held === 0) {
      colors[count] = color;
      count += 1;
      held = count;
      slots[slot] = held;
    }
    of[p] = held - 1;
  }
  return count;
}

/** Triples of code values, 0…1. */
function valuesOf(colors: Uint32Array): Float64Array {
  const values = new Float64Array(colors.length * 3);
  for (let k = 0, i = 0; k < colors.length; k++, i += 3) {
    const color = colors[k]!;
    values[i] = (color & 255) / 255;
    values[i + 1] = ((color >> 8) & 255) / 255;
    values[i + 2] = (color >> 16) / 255;
  }
  return values;
}

/** 0…255, rounded half up. */
function bytesOf(values: Float64Array): Uint8ClampedArray {
  const bytes = new Uint8ClampedArray(values.length);
  for (let i = 0; i < values.length; i++) bytes[i] = Math.floor(values[i]! * 255 + 0.5);
  return bytes;
}

/** At a strength other than 1: over what was before. */
function blend(before: Float64Array, values: Float64Array, strength: number): void {
  for (let i = 0; i < values.length; i++) values[i] = before[i]! + strength * (values[i]! - before[i]!);
}

function paint(
  of: Uint32Array,
  bytes: Uint8ClampedArray,
  source: Uint8Array | Uint8ClampedArray,
  target: Uint8ClampedArray,
): void {
  for (let p = 0, i = 0; p < of.length; p++, i += 4) {
    const k = of[p]! * 3;
    target[i] = bytes[k]!;
    target[i + 1] = bytes[k + 1]!;
    target[i + 2] = bytes[k + 2]!;
    target[i + 3] = source[i + 3]!;
  }
}

/**
 * Pixels from `source` through a preset to `target`, both RGBA, 8 bits; they may be the same array. Alpha is kept, values
 * are held to 0…255 and rounded half up.
 * @param strength a factor; 1 is as made
 */
export function applyPreset(
  effect: PresetEffect,
  strength: number,
  source: Uint8Array | Uint8ClampedArray,
  target: Uint8ClampedArray,
): void {
  const { colors, of } = colorsOf(source);
  const values = valuesOf(colors);
  const before = strength === 1 ? null : values.slice();
  operationOf(effect)(values, values.length);
  if (before) blend(before, values, strength);
  paint(of, bytesOf(values), source, target);
}
