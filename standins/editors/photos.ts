/** Photos on a stand-in editor's desk: what its own reader finds in them. Reads TIFF (so DNG too), JPEG and PNG. */
import { files, read } from './program';
import { directory } from './tiff';

export interface Photo {
  path: string;
  camera: string;
  serial: string;
  lens: string;
  /** 0 where the photo does not say */ iso: number;
  developed: boolean;
  /** it has one channel, so that it is worked in black and white */ gray: boolean;
}
/** How the editor shows a photo, and which of its files it offers for it. */
export interface Card {
  path: string;
  card: 'shown' | 'empty';
  reason: string;
  offers: string[];
  /** which lens of which file corrects it; '' where none does */ calibration?: string;
  /** what its rules have it begun with, in the editor's own words */ opens?: Record<string, string | number | boolean>;
}

const MODEL = 272;
const EXIF = 34665;
const LENS = 42036;
const ISO = 34855;
const DNG_VERSION = 50706;
const SERIAL = 50735;
const SAMPLES = 277;
const PHOTOMETRIC = 262;
/** TIFF 6.0: white or black is zero. */
const GRAY = [0, 1];

/** Camera, serial and lens, and whether it is the camera's own data, by the first directory of a TIFF and its Exif one. */
function tiff(bytes: Buffer): Omit<Photo, 'path'> {
  const first = directory(bytes);
  const exif = first.has(EXIF) ? directory(bytes, first.get(EXIF)?.value) : null;
  return {
    camera: first.get(MODEL)?.text ?? '',
    serial: first.get(SERIAL)?.text ?? '',
    lens: exif?.get(LENS)?.text ?? '',
    iso: exif?.get(ISO)?.value ?? 0,
    developed: !first.has(DNG_VERSION),
    gray: GRAY.includes(first.get(PHOTOMETRIC)?.value ?? -1) && (first.get(SAMPLES)?.value ?? 1) <= 2,
  };
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
    const plain = { path, camera: '', serial: '', lens: '', iso: 0, developed: true };
    // ISO/IEC 15948, 11.2.2: gray, or gray with alpha
    if (sign === '\x89PNG') return [{ ...plain, gray: [0, 4].includes(bytes[25] ?? -1) }];
    return bytes[0] === 0xff && bytes[1] === 0xd8 ? [{ ...plain, gray: jpegChannels(bytes) === 1 }] : [];
  });
}

/** Channels of a JPEG, by the first marker of a frame (ITU-T T.81, B.2.2); 0 where there is none. */
function jpegChannels(bytes: Buffer): number {
  for (let at = 2; at + 10 < bytes.length && bytes[at] === 0xff; at += 2 + bytes.readUInt16BE(at + 2)) {
    const marker = bytes[at + 1] ?? 0;
    const isFrame = marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker);
    if (isFrame) return bytes[at + 9] ?? 0;
  }
  return 0;
}
