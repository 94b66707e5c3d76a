/** Hue, saturation and value tables of a camera profile, applied to linear ProPhoto values 0…1 (Digital Negative specification, chapter 6). Hue wraps around; the ends of saturation and value hold. */
import { hexconeColor, hexconeHue } from '../color/hexcone';
import { decodeSrgb, encodeSrgb } from '../color/transfer';
import type { HsvTable } from './dcp';

const hold = (v: number): number => {
  if (v < 0) return 0;
  if (v > 1) return 1;
  return v;
};

/** Both maps of a profile of two illuminants as one, by the share of the first. */
export function mixTables(one: HsvTable, other: HsvTable | undefined, share: number): HsvTable {
  if (!other || share >= 1) return one;
  if (share <= 0) return other;
  return { ...one, data: one.data.map((v, i) => share * v + (1 - share) * other.data[i]!) };
}

/** Acts on v[at…at+2] in place. */
export function hsvStage(table: HsvTable): (v: Float64Array, at: number) => void {
  const { hues, saturations, values, data, srgb } = table;
  const rows = saturations * 3;
  const planes = hues * rows;
  const last = saturations - 2;
  const mixed = [0, 0, 0];
  return (v, at) => {
    const r = v[at]!;
    const g = v[at + 1]!;
    const b = v[at + 2]!;
    const top = Math.max(r, g, b);
    const low = Math.min(r, g, b);
    const gap = top - low;
    let h = 0;
    let s = 0;
    if (gap > 0) {
      h = hexconeHue(r, g, b, top, gap);
      s = gap / top;
    }
    const coded = srgb ? encodeSrgb(hold(top)) : top;
    const x = hues < 2 ? 0 : (h * hues) / 6;
    const y = s * (saturations - 1);
    const z = values < 2 ? 0 : coded * (values - 1);
    let i = Math.floor(x);
    const j = Math.max(0, Math.min(last, Math.floor(y)));
    const k = values < 2 ? 0 : Math.max(0, Math.min(values - 2, Math.floor(z)));
    if (i >= hues - 1) i = hues - 1;
    const next = i + 1 >= hues ? 0 : i + 1;
    const fx = x - i;
    const fy = y - j;
    const fz = z - k;
    for (let c = 0; c < 3; c++) {
      const at00 = k * planes + i * rows + j * 3 + c;
      const at10 = k * planes + next * rows + j * 3 + c;
      let value =
        (1 - fy) * ((1 - fx) * data[at00]! + fx * data[at10]!) +
        fy * ((1 - fx) * data[at00 + 3]! + fx * data[at10 + 3]!);
      if (values > 1) {
        const p = at00 + planes;
        const q = at10 + planes;
        value =
          (1 - fz) * value +
          fz * ((1 - fy) * ((1 - fx) * data[p]! + fx * data[q]!) + fy * ((1 - fx) * data[p + 3]! + fx * data[q + 3]!));
      }
      mixed[c] = value;
    }
    h += mixed[0]! / 60;
    h -= 6 * Math.floor(h / 6);
    s = Math.min(1, Math.max(0, s * mixed[1]!));
    let out = hold(coded * mixed[2]!);
    if (srgb) out = decodeSrgb(out);
    hexconeColor(h, s, out, v, at);
  };
}
