/** Baseline TIFF 6.0, uncompressed, one strip, little-endian, 8 or 16 bits, with profile and orientation. */
export function encodeTiff(width: number, height: number, channels: number, data: Uint8Array | Uint16Array, icc: Buffer | null, orientation: number): Buffer {
  const bits = data instanceof Uint16Array ? 16 : 8, pixels = Buffer.from(data.buffer, data.byteOffset, data.byteLength);
  const extra: Buffer[] = [], entries: [number, number, number, number | Buffer][] = [
    [256, 4, 1, width], [257, 4, 1, height], [258, 3, channels, shorts(new Array<number>(channels).fill(bits))], [259, 3, 1, 1], [262, 3, 1, 2], [273, 4, 1, 0], [274, 3, 1, orientation],
    [277, 3, 1, channels], [278, 4, 1, height], [279, 4, 1, pixels.length], [284, 3, 1, 1], ...(channels === 4 ? [[338, 3, 1, 2] as [number, number, number, number]] : []), ...(icc ? [[34675, 7, icc.length, icc] as [number, number, number, Buffer]] : []),
  ];
  const start = 8 + 2 + entries.length * 12 + 4, head = Buffer.alloc(start);
  let at = start;
  head.write('II*\0', 0, 'latin1');
  head.writeUInt32LE(8, 4);
  head.writeUInt16LE(entries.length, 8);
  const stripEntry = entries.findIndex((e) => e[0] === 273);
  entries.forEach(([tag, type, count, value], i) => {
    const p = 10 + i * 12;
    head.writeUInt16LE(tag, p); head.writeUInt16LE(type, p + 2); head.writeUInt32LE(count, p + 4);
    if (typeof value === 'number') { if (type === 3) head.writeUInt16LE(value, p + 8); else head.writeUInt32LE(value, p + 8); } else { head.writeUInt32LE(at, p + 8); const padded = value.length % 2 ? Buffer.concat([value, Buffer.alloc(1)]) : value; extra.push(padded); at += padded.length; }
  });
  head.writeUInt32LE(at, 10 + stripEntry * 12 + 8);
  return Buffer.concat([head, ...extra, pixels]);
}

const shorts = (v: number[]): Buffer => { const b = Buffer.alloc(v.length * 2); v.forEach((x, i) => b.writeUInt16LE(x, i * 2)); return b; };
