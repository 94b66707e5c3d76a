/** Photos on a stand-in editor's desk: what its own reader finds in them. Reads TIFF (so DNG too), JPEG and PNG. */
import { files, read } from './program';

export interface Photo {
  path: string;
  camera: string;
  developed: boolean;
}
/** How the editor shows a photo, and which of its files it offers for it. */
export interface Card {
  path: string;
  card: 'shown' | 'empty';
  reason: string;
  offers: string[];
}

/** The camera's name and whether it is the camera's own data, by the first directory of a TIFF. */
function tiff(bytes: Buffer): { camera: string; developed: boolean } {
  const little = bytes[0] === 0x49;
  const u16 = (at: number): number => (little ? bytes.readUInt16LE(at) : bytes.readUInt16BE(at));
  const u32 = (at: number): number => (little ? bytes.readUInt32LE(at) : bytes.readUInt32BE(at));
  let camera = '';
  let developed = true;
  const ifd = u32(4);
  for (let i = 0; i < u16(ifd); i++) {
    const at = ifd + 2 + i * 12;
    const tag = u16(at);
    const count = u32(at + 4);
    if (tag === 272) {
      const from = count > 4 ? u32(at + 8) : at + 8;
      camera = bytes
        .toString('latin1', from, from + count)
        .replace(/\0.*$/s, '')
        .trim();
    }
    if (tag === 50706) developed = false;
  }
  return { camera, developed };
}

export function photos(folder: string): Photo[] {
  return files(folder).flatMap((path): Photo[] => {
    const bytes = read(path);
    const sign = bytes.toString('latin1', 0, 4);
    try {
      if (sign === 'II*\0' || sign === 'MM\0*') return [{ path, ...tiff(bytes) }];
    } catch {
      return [];
    }
    return (bytes[0] === 0xff && bytes[1] === 0xd8) || sign === '\x89PNG'
      ? [{ path, camera: '', developed: true }]
      : [];
  });
}
