/**
 * The WebAssembly kernel for tables: holds its memory, the tables that were used last, and pixels a strip at a time.
 * It is our own because applying a table is the heart of the job (docs/decisions/0008-kernel.md has the figures).
 */
import type { Prepared } from '../apply';
import { bytes } from './bytes.gen';

interface Exports {
  apply(source: number, target: number, pixels: number, table: number, places: number, ways: number, all: number): void;
  develop(
    source: number,
    target: number,
    pixels: number,
    table: number,
    size: number,
    kr: number,
    kg: number,
    kb: number,
    ways: number,
    all: number,
  ): void;
  ends(source: number, pixels: number, counts: number): void;
}
type Pixels = Uint8Array | Uint8ClampedArray;
/** `apply` and `develop` say false where the table is too large for them. */
export interface Kernel {
  apply(prepared: Prepared, source: Pixels, target: Uint8ClampedArray): boolean;
  /** 16-bit camera values; `k`: one by white level times neutral, by channel */ develop(
    prepared: Prepared,
    k: readonly number[],
    source: Uint16Array,
    target: Uint8ClampedArray,
  ): boolean;
  /** pixels with a channel at full scale, with one at nothing, and the luminances that there are */ ends(
    source: Pixels,
  ): { high: number; low: number; seen: Uint8Array };
}

const STRIP = 16384;
const COUNTS = 256;
const START = 1024;
const MOST_POINTS = 129;
/** Tables of up to so many points stay in memory side by side, those used last; a larger one stands alone behind them. */
const SMALL = 33;
const SLOTS = 16;
const PLACES_BYTES = 3 * 256 * 8;
const WAYS_BYTES = 64;
const SLOT_BYTES = PLACES_BYTES + WAYS_BYTES + SMALL ** 3 * 16;
let made: Kernel | null | undefined;

/** The kernel, or null where WebAssembly with SIMD is missing. */
export function kernel(): Kernel | null {
  if (made === undefined) {
    try {
      made = make();
    } catch {
      made = null;
    }
  }
  return made;
}

// eslint-disable-next-line max-lines-per-function -- one closure over one memory, whose places all its parts share
function make(): Kernel {
  const memory = new WebAssembly.Memory({ initial: 16 });
  const compiled = new WebAssembly.Module(Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0)));
  const { apply, develop, ends } = new WebAssembly.Instance(compiled, {
    env: {
      memory,
      abort: () => {
        throw new Error('the kernel gave up');
      },
    },
  }).exports as unknown as Exports;
  // a strip of pixels in and out, then the tables, each behind the places of code values and the ways through a cell
  const sourceAt = START;
  const targetAt = sourceAt + STRIP * 4;
  const slotsAt = targetAt + STRIP * 4;
  const largeAt = slotsAt + SLOTS * SLOT_BYTES;
  const held = new Map<Prepared, number>();
  let large: Prepared | null = null;
  const fill = (prepared: Prepared, at: number): void => {
    const entries = prepared.size ** 3;
    const short = at + PLACES_BYTES + WAYS_BYTES + entries * 16 - memory.buffer.byteLength;
    if (short > 0) memory.grow(Math.ceil(short / 65536));
    const table = new Float32Array(memory.buffer, at + PLACES_BYTES + WAYS_BYTES, entries * 4);
    const whole = new Uint32Array(memory.buffer, at, 3 * 512);
    const part = new Float32Array(memory.buffer, at, 3 * 512);
    for (let i = 0, o = 0, t = 0; i < entries; i++, o += 4, t += 3) {
      table[o] = prepared.table[t]!;
      table[o + 1] = prepared.table[t + 1]!;
      table[o + 2] = prepared.table[t + 2]!;
      table[o + 3] = 0;
    }
    for (let c = 0; c < 3; c++)
      for (let v = 0; v < 256; v++) {
        const k = c * 512 + v * 2;
        whole[k] = (prepared.offset[c]![v]! / 3) * 16;
        part[k + 1] = prepared.fraction[c]![v]!;
      }
    const r = 16;
    const g = 16 * prepared.size;
    const b = g * prepared.size;
    /** Along which edges of a cell its diagonal is reached and left, by which of two channels is the larger. */
    const edgesOf = (xy: boolean, yz: boolean, xz: boolean): [number, number] => {
      if (xy) return [xz ? r : b, yz ? b : g];
      return [yz ? g : b, xz ? b : r];
    };
    const ways = new Uint32Array(memory.buffer, at + PLACES_BYTES, 16);
    for (let k = 0; k < 8; k++) {
      const xy = k & 4;
      const yz = k & 2;
      const xz = k & 1;
      const [first, last] = edgesOf(xy > 0, yz > 0, xz > 0);
      ways[k * 2] = first;
      ways[k * 2 + 1] = r + g + b - last;
    }
  };
  /** Where the table stands, brought there if it does not yet. */
  const hold = (prepared: Prepared): number => {
    if (prepared.size > SMALL) {
      if (large !== prepared) {
        fill(prepared, largeAt);
        large = prepared;
      }
      return largeAt;
    }
    let slot = held.get(prepared);
    if (slot === undefined) {
      if (held.size < SLOTS) slot = held.size;
      else {
        const oldest = held.entries().next().value!;
        slot = oldest[1];
        held.delete(oldest[0]);
      }
      fill(prepared, slotsAt + slot * SLOT_BYTES);
    } else held.delete(prepared);
    held.set(prepared, slot);
    return slotsAt + slot * SLOT_BYTES;
  };
  return {
    apply(prepared, source, target) {
      if (prepared.size > MOST_POINTS) return false;
      const at = hold(prepared);
      const all = 16 * (1 + prepared.size + prepared.size * prepared.size);
      const ins = new Uint8Array(memory.buffer, sourceAt, STRIP * 4);
      const outs = new Uint8Array(memory.buffer, targetAt, STRIP * 4);
      for (let i = 0; i < source.length; i += STRIP * 4) {
        const n = Math.min(STRIP * 4, source.length - i);
        ins.set(source.subarray(i, i + n));
        apply(sourceAt, targetAt, n >> 2, at + PLACES_BYTES + WAYS_BYTES, at, at + PLACES_BYTES, all);
        target.set(n === STRIP * 4 ? outs : outs.subarray(0, n), i);
      }
      return true;
    },
    develop(prepared, weights, source, target) {
      if (prepared.size > MOST_POINTS) return false;
      const at = hold(prepared);
      const all = 16 * (1 + prepared.size + prepared.size * prepared.size);
      const part = 8192;
      const ins = new Uint16Array(memory.buffer, sourceAt, part * 3);
      const outs = new Uint8Array(memory.buffer, targetAt, part * 4);
      for (let i = 0, n = target.length >> 2; i < n; i += part) {
        const m = Math.min(part, n - i);
        ins.set(source.subarray(i * 3, (i + m) * 3));
        develop(
          sourceAt,
          targetAt,
          m,
          at + PLACES_BYTES + WAYS_BYTES,
          prepared.size,
          weights[0]!,
          weights[1]!,
          weights[2]!,
          at + PLACES_BYTES,
          all,
        );
        target.set(m === part ? outs : outs.subarray(0, m * 4), i * 4);
      }
      return true;
    },
    ends(source) {
      const counts = new Uint8Array(memory.buffer, COUNTS, 264);
      const ins = new Uint8Array(memory.buffer, sourceAt, STRIP * 4);
      const values = new Int32Array(memory.buffer, COUNTS, 2);
      counts.fill(0);
      for (let i = 0; i < source.length; i += STRIP * 4) {
        const m = Math.min(STRIP * 4, source.length - i);
        ins.set(source.subarray(i, i + m));
        ends(sourceAt, m >> 2, COUNTS);
      }
      return { high: values[0]!, low: values[1]!, seen: counts.slice(8) };
    },
  };
}
