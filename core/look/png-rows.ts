/** A PNG of 16-bit RGB written row by row (PNG 3rd edition, 2025), for pictures that would be too large beside their samples: only its compressed bytes are held. */
import { crc32 } from '../crc32';
import { Zlib } from 'fflate';

function chunk(type: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(12 + data.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  for (let i = 0; i < 4; i++) out[4 + i] = type.charCodeAt(i);
  out.set(data, 8);
  view.setUint32(8 + data.length, crc32(out.subarray(4, 8 + data.length)));
  return out;
}

/** `row(y, out)` writes the samples of a row, interleaved. Each row is filtered by difference from the pixel before it (filter 1). */
export function pngOfRows(width: number, height: number, row: (y: number, out: Uint16Array) => void): Uint8Array {
  const head = new Uint8Array(13);
  const view = new DataView(head.buffer);
  const parts: Uint8Array[] = [Uint8Array.of(137, 80, 78, 71, 13, 10, 26, 10)];
  view.setUint32(0, width);
  view.setUint32(4, height);
  head[8] = 16;
  head[9] = 2;
  parts.push(chunk('IHDR', head));
  const deflate = new Zlib({ level: 6 }, (data) => {
    if (data.length) parts.push(chunk('IDAT', data));
  });
  const samples = new Uint16Array(width * 3);
  for (let y = 0; y < height; y++) {
    const line = new Uint8Array(1 + width * 6);
    row(y, samples);
    line[0] = 1;
    for (let i = 0, o = 1; i < samples.length; i++, o += 2) {
      const s = samples[i]!;
      const before = i < 3 ? 0 : samples[i - 3]!;
      line[o] = (s >> 8) - (before >> 8);
      line[o + 1] = (s & 255) - (before & 255);
    }
    deflate.push(line, y === height - 1);
  }
  parts.push(chunk('IEND', new Uint8Array(0)));
  const out = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const pixels of parts) {
    out.set(pixels, at);
    at += pixels.length;
  }
  return out;
}
