/**
 * Writes ICC profiles whose transform is a table (ICC.1:2022; lut16Type, 10.10): device links and abstract profiles from
 * looks, input profiles from camera profiles. Byte-stable: the date is given by the caller.
 */
export interface TableProfile {
  class: 'link' | 'abst' | 'scnr';
  space: 'RGB ' | 'Lab ';
  pcs: 'RGB ' | 'Lab ' | 'XYZ ';
  description: string;
  copyright: string;
  created: Date;
  /** points an axis */ grid: number;
  /** From encoded input 0…1 to encoded output 0…1 (Lab and XYZ as lut16Type encodes them), interleaved, in place. */ f: (
    row: Float64Array,
  ) => void;
}

/** Lab as lut16Type has it (the legacy encoding that this type keeps in version 4): 100 is FF00. */
export const encodeLab16 = (l: number, a: number, b: number): [number, number, number] => [
  (l / 100) * (65280 / 65535),
  ((a + 128) / 255) * (65280 / 65535),
  ((b + 128) / 255) * (65280 / 65535),
];
export const decodeLab16 = (l: number, a: number, b: number): [number, number, number] => [
  l * 100 * (65535 / 65280),
  a * 255 * (65535 / 65280) - 128,
  b * 255 * (65535 / 65280) - 128,
];
/** XYZ as u1Fixed15 over 0…1 of 16 bits: 1.0 is 8000. */
export const encodeXyz16 = (v: number): number => (v * 32768) / 65535;

export class Block {
  private readonly parts: number[] = [];
  u8(...values: number[]): this {
    this.parts.push(...values.map((x) => x & 255));
    return this;
  }
  u16(...values: number[]): this {
    for (const x of values) this.u8(x >> 8, x);
    return this;
  }
  u32(...values: number[]): this {
    for (const x of values) this.u8(x >>> 24, x >>> 16, x >>> 8, x);
    return this;
  }
  s15(...values: number[]): this {
    return this.u32(...values.map((x) => Math.round(x * 65536)));
  }
  text(text: string): this {
    return this.u8(...[...text].map((c) => c.charCodeAt(0)));
  }
  bytes(): Uint8Array {
    return Uint8Array.from(this.parts);
  }
}
/** A text in English as multiLocalizedUnicodeType (10.15). */
export const mluc = (text: string): Uint8Array =>
  new Block()
    .text('mluc')
    .u32(0, 1, 12)
    .text('enUS')
    .u32(text.length * 2, 28)
    .u16(...Array.from({ length: text.length }, (_, i) => text.charCodeAt(i)))
    .bytes();

function lut16(tableProfile: TableProfile): Uint8Array {
  const grid = tableProfile.grid;
  const head = new Block()
    .text('mft2')
    .u32(0)
    .u8(3, 3, grid, 0)
    .s15(1, 0, 0, 0, 1, 0, 0, 0, 1)
    .u16(2, 2)
    .u16(0, 65535, 0, 65535, 0, 65535)
    .bytes();
  const tail = new Block().u16(0, 65535, 0, 65535, 0, 65535).bytes();
  const out = new Uint8Array(head.length + grid ** 3 * 6 + tail.length);
  const view = new DataView(out.buffer);
  const row = new Float64Array(grid * 3);
  out.set(head);
  let at = head.length;
  for (let r = 0; r < grid; r++)
    for (let g = 0; g < grid; g++) {
      for (let b = 0; b < grid; b++) {
        row[b * 3] = r / (grid - 1);
        row[b * 3 + 1] = g / (grid - 1);
        row[b * 3 + 2] = b / (grid - 1);
      }
      tableProfile.f(row);
      for (let i = 0; i < row.length; i++, at += 2)
        view.setUint16(at, Math.floor(Math.min(1, Math.max(0, row[i]!)) * 65535 + 0.5));
    }
  out.set(tail, at);
  return out;
}

export function writeTableProfile(tableProfile: TableProfile): Uint8Array {
  const tags: [string, Uint8Array][] = [
    ['desc', mluc(tableProfile.description.slice(0, 400))],
    ['cprt', mluc(tableProfile.copyright.slice(0, 400))],
    ...(tableProfile.class === 'link'
      ? []
      : [['wtpt', new Block().text('XYZ ').u32(0).s15(0.9642, 1, 0.8249).bytes()] as [string, Uint8Array]]),
    ['A2B0', lut16(tableProfile)],
    ...(tableProfile.class === 'link'
      ? [['pseq', new Block().text('pseq').u32(0, 0).bytes()] as [string, Uint8Array]]
      : []),
  ];
  const table = 132 + tags.length * 12;
  const pad = (n: number): number => (n + 3) & ~3;
  let end = table;
  const places = tags.map(([, data]) => {
    const at = end;
    end += pad(data.length);
    return at;
  });
  const date = tableProfile.created;
  const head = new Block()
    .u32(end)
    .u32(0)
    .u32(0x04300000)
    .text(tableProfile.class)
    .text(tableProfile.space)
    .text(tableProfile.pcs)
    .u16(
      date.getUTCFullYear(),
      date.getUTCMonth() + 1,
      date.getUTCDate(),
      date.getUTCHours(),
      date.getUTCMinutes(),
      date.getUTCSeconds(),
    )
    .text('acsp')
    .u32(0, 0, 0, 0, 0, 0, tableProfile.class === 'link' ? 0 : 1)
    .s15(0.9642, 1, 0.8249)
    .u32(0)
    .u32(0, 0, 0, 0)
    .bytes();
  const out = new Uint8Array(end);
  const view = new DataView(out.buffer);
  out.set(head);
  view.setUint32(128, tags.length);
  tags.forEach(([name, data], i) => {
    const entry = 132 + i * 12;
    out.set(new TextEncoder().encode(name), entry);
    view.setUint32(entry + 4, places[i]!);
    view.setUint32(entry + 8, data.length);
    out.set(data, places[i]!);
  });
  return out;
}
