/** What a picture's file says without being decoded: size, and camera, lens and exposure from EXIF 2.32 (JPEG, PNG, TIFF, DNG). */
import { Ifds, type Directory } from '../tiff/ifd';
import { Problem } from '../problem';

export interface FrameFacts {
  /** `raw`: a camera's own file, which the decoder has to bring to DNG */ format:
    'jpeg' | 'png' | 'tiff' | 'dng' | 'raw';
  width: number;
  height: number;
  bits: number | null;
  maker: string;
  camera: string;
  serial: string;
  lens: string;
  focal: number | null;
  aperture: number | null;
  iso: number | null;
  seconds: number | null;
  date: string;
  uniqueModel: string;
  /** the camera profile that it was taken with: AsShotProfileName (50934), else the embedded one's ProfileName (50936) */ profile: string;
}

export const MOST_PIXELS = 250e6;
const empty = {
  maker: '',
  camera: '',
  serial: '',
  lens: '',
  focal: null,
  aperture: null,
  iso: null,
  seconds: null,
  date: '',
  uniqueModel: '',
  profile: '',
};
const fault = (code: string, message: string, where: string): Problem =>
  new Problem(code, message, where, 'Save the picture anew from the program that made it.');

function sized(f: FrameFacts): FrameFacts {
  if (!(f.width > 0 && f.height > 0))
    throw fault('picture-size', 'The picture says nothing of its size, or that it is empty.', 'header');
  if (f.width * f.height > MOST_PIXELS)
    throw new Problem(
      'picture-size',
      `The picture claims ${f.width} × ${f.height} pixels; at most ${MOST_PIXELS / 1e6} million are read.`,
      'header',
      'Save a smaller copy for use as a frame.',
    );
  return f;
}

/** EXIF within a TIFF layout; what cannot be read is left empty, since a picture can be of use without. */
function exif(f: Ifds, d: Directory): Omit<FrameFacts, 'format' | 'width' | 'height' | 'bits'> {
  const out = {
    ...empty,
    maker: f.text(d, 271),
    camera: f.text(d, 272),
    uniqueModel: f.text(d, 50708),
    profile: f.text(d, 50934) || f.text(d, 50936),
    serial: f.text(d, 50735),
    date: f.text(d, 306),
  } as Omit<FrameFacts, 'format' | 'width' | 'height' | 'bits'>;
  const at = f.number(d, 34665);
  if (at === null) return out;
  let e: Directory;
  try {
    e = f.read(at);
  } catch {
    return out;
  }
  return {
    ...out,
    serial: f.text(e, 42033) || out.serial,
    lens: f.text(e, 42036),
    focal: f.number(e, 37386),
    aperture: f.number(e, 33437),
    iso: f.number(e, 34855),
    seconds: f.number(e, 33434),
    date: f.text(e, 36867) || out.date,
  };
}

const softly = (bytes: Uint8Array, start: number): ReturnType<typeof exif> => {
  try {
    const f = new Ifds(bytes, start);
    return exif(f, f.read(f.first));
  } catch (e) {
    if (e instanceof Problem) return empty;
    throw e;
  }
};

function jpeg(b: Uint8Array): FrameFacts {
  const v = new DataView(b.buffer, b.byteOffset, b.byteLength);
  let meta: ReturnType<typeof exif> = empty;
  for (let p = 2; p + 4 <= b.length;) {
    if (b[p] !== 0xff) throw fault('jpeg-broken', 'A marker is missing where one must stand.', `byte ${p}`);
    const marker = b[p + 1]!;
    if (marker === 0xff) {
      p++;
      continue;
    }
    const n = v.getUint16(p + 2);
    if (n < 2 || p + 2 + n > b.length) throw fault('jpeg-broken', 'The file ends within a segment.', `byte ${p}`);
    if (marker === 0xe1 && n > 16 && String.fromCharCode(...b.subarray(p + 4, p + 8)) === 'Exif')
      meta = softly(b.subarray(0, p + 2 + n), p + 10);
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker)) {
      if (n < 8) throw fault('jpeg-broken', 'The frame header is too short.', `byte ${p}`);
      return sized({ format: 'jpeg', height: v.getUint16(p + 5), width: v.getUint16(p + 7), bits: b[p + 4]!, ...meta });
    }
    if (marker === 0xda) break;
    p += 2 + n;
  }
  throw fault('jpeg-broken', 'The file ends before it says how large the picture is.', `byte ${b.length}`);
}

function png(b: Uint8Array): FrameFacts {
  if (b.length < 33) throw fault('png-broken', 'The file ends within its header.', `byte ${b.length}`);
  const v = new DataView(b.buffer, b.byteOffset, b.byteLength);
  let meta: ReturnType<typeof exif> = empty;
  for (let p = 8; p + 8 <= b.length;) {
    const n = v.getUint32(p);
    const name = String.fromCharCode(...b.subarray(p + 4, p + 8));
    if (name === 'eXIf' && p + 8 + n <= b.length) meta = softly(b.subarray(0, p + 8 + n), p + 8);
    if (name === 'IDAT' || name === 'IEND') break;
    p += 12 + n;
  }
  return sized({ format: 'png', width: v.getUint32(16), height: v.getUint32(20), bits: b[24]!, ...meta });
}

function tiff(b: Uint8Array): FrameFacts {
  const f = new Ifds(b);
  const chain = f.chain();
  const d = chain[0];
  if (!d) throw fault('tiff-broken', 'The file has no directory.', 'byte 4');
  const dng = d.tags.has(50706);
  const under = (): Directory[] => f.numbers(d, 330, 16).map((at) => f.read(at));
  const raw = !dng && [...chain, ...under()].some((x) => f.number(x, 262) === 32803); // a mosaic of a color filter array, as TIFF/EP has it
  let size = { width: f.number(d, 256) ?? 0, height: f.number(d, 257) ?? 0 };
  // in a DNG the first directory is a thumbnail; the picture proper is the largest of those below it
  if (dng || raw)
    for (const s of [...chain, ...under()]) {
      const w = f.number(s, 256) ?? 0;
      const h = f.number(s, 257) ?? 0;
      if (w * h > size.width * size.height) size = { width: w, height: h };
    }
  return sized({ format: dng ? 'dng' : raw ? 'raw' : 'tiff', ...size, bits: f.number(d, 258), ...exif(f, d) });
}

/** Facts of a picture, by its signature; null where it is no picture that we know. */
export function frameFacts(b: Uint8Array): FrameFacts | null {
  if (b.length < 12) return null;
  if (b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff) return jpeg(b);
  if (b[0] === 0x89 && b[1] === 0x50 && b[2] === 0x4e && b[3] === 0x47) return png(b);
  const four = (b[0]! << 24) | (b[1]! << 16) | (b[2]! << 8) | b[3]!;
  if (four === 0x49492a00 || four === 0x4d4d002a) return tiff(b);
  // cameras' own kinds of TIFF bear another number where TIFF has 42 (DNG camera profiles have "CR", BigTIFF 43)
  const own =
    b[0] === 0x49 && b[1] === 0x49 ? b[2]! | (b[3]! << 8) : b[0] === 0x4d && b[1] === 0x4d ? (b[2]! << 8) | b[3]! : 0;
  if (own === 0x4f52 || own === 0x5352 || own === 0x55)
    return { format: 'raw', width: 1, height: 1, bits: null, ...softly(b, 0) };
  return null;
}
