/** PNG with an embedded profile: encoding by fast-png, the iCCP chunk put in behind the header (ISO/IEC 15948, 11.3.2.3). */
import { deflateSync } from 'node:zlib';
import { encode } from 'fast-png';
import { crc32 } from '@/core/crc32';

export function encodePng(
  width: number,
  height: number,
  channels: 3 | 4,
  data: Uint8Array | Uint16Array,
  icc: Buffer | null,
): Buffer {
  const png = Buffer.from(
    encode({ width, height, channels, depth: data instanceof Uint16Array ? 16 : 8, data }, { zlib: { level: 6 } }),
  );
  if (!icc) return png;
  const body = Buffer.concat([Buffer.from('iCCPprofile\0\0', 'latin1'), deflateSync(icc)]);
  const chunk = Buffer.alloc(body.length + 8);
  chunk.writeUInt32BE(body.length - 4, 0);
  body.copy(chunk, 4);
  chunk.writeUInt32BE(crc32(body), body.length + 4);
  return Buffer.concat([png.subarray(0, 33), chunk, png.subarray(33)]);
}
