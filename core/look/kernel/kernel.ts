/** The WebAssembly kernel for tables: holds its memory, the table that was used last, and pixels a strip at a time. */
import type { Prepared } from '../apply';
import { bytes } from './bytes.gen';

interface Exports { apply(source: number, target: number, pixels: number, table: number, places: number, ways: number, all: number): void }
export interface Kernel { /** false where the table is too large for it */ apply(prepared: Prepared, source: Uint8Array | Uint8ClampedArray, target: Uint8ClampedArray): boolean }

const STRIP = 16384, PLACES = 1024, MOST_POINTS = 129;
let made: Kernel | null | undefined;

/** The kernel, or null where WebAssembly with SIMD is missing. */
export function kernel(): Kernel | null {
  if (made === undefined) { try { made = make(); } catch { made = null; } }
  return made;
}

function make(): Kernel {
  const memory = new WebAssembly.Memory({ initial: 16 }), compiled = new WebAssembly.Module(Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0)));
  const { apply } = new WebAssembly.Instance(compiled, { env: { memory, abort: () => { throw new Error('the kernel gave up'); } } }).exports as unknown as Exports;
  // places of code values, then a strip of pixels in and out, then the table
  const placesAt = PLACES, waysAt = placesAt + 3 * 256 * 8, sourceAt = waysAt + 64, targetAt = sourceAt + STRIP * 4, tableAt = targetAt + STRIP * 4;
  let held: Prepared | null = null;
  const hold = (p: Prepared): void => {
    const entries = p.size ** 3, need = tableAt + entries * 16, short = need - memory.buffer.byteLength;
    if (short > 0) memory.grow(Math.ceil(short / 65536));
    const table = new Float32Array(memory.buffer, tableAt, entries * 4), whole = new Uint32Array(memory.buffer, placesAt, 3 * 512), part = new Float32Array(memory.buffer, placesAt, 3 * 512);
    for (let i = 0, o = 0, t = 0; i < entries; i++, o += 4, t += 3) { table[o] = p.table[t]!; table[o + 1] = p.table[t + 1]!; table[o + 2] = p.table[t + 2]!; table[o + 3] = 0; }
    for (let c = 0; c < 3; c++) for (let v = 0; v < 256; v++) { const at = c * 512 + v * 2; whole[at] = (p.offset[c]![v]! / 3) * 16; part[at + 1] = p.fraction[c]![v]!; }
    const r = 16, g = 16 * p.size, b = g * p.size, ways = new Uint32Array(memory.buffer, waysAt, 16);
    for (let k = 0; k < 8; k++) {
      const xy = k & 4, yz = k & 2, xz = k & 1, first = xy ? (xz ? r : b) : yz ? g : b, last = xy ? (yz ? b : g) : xz ? b : r;
      ways[k * 2] = first; ways[k * 2 + 1] = r + g + b - last;
    }
    held = p;
  };
  return {
    apply(p, source, target) {
      if (p.size > MOST_POINTS) return false;
      if (held !== p) hold(p);
      const all = 16 * (1 + p.size + p.size * p.size), ins = new Uint8Array(memory.buffer, sourceAt, STRIP * 4), outs = new Uint8Array(memory.buffer, targetAt, STRIP * 4);
      for (let i = 0; i < source.length; i += STRIP * 4) {
        const n = Math.min(STRIP * 4, source.length - i);
        ins.set(source.subarray(i, i + n));
        apply(sourceAt, targetAt, n >> 2, tableAt, placesAt, waysAt, all);
        target.set(n === STRIP * 4 ? outs : outs.subarray(0, n), i);
      }
      return true;
    },
  };
}
