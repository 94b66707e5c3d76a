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

function sized(frameFacts: FrameFacts): FrameFacts {
  if (!(frameFacts.width > 0 && frameFacts.height > 0))
    throw fault('picture-size', 'The picture says nothing of its size, or that it is empty.', 'header');
  if (frameFacts.width * frameFacts.height > MOST_PIXELS)
    throw new Problem(
      'picture-size',
      `The picture claims ${frameFacts.width} × ${frameFacts.height} pixels; at most ${MOST_PIXELS / 1e6} million are read.`,
      'header',
      'Save a smaller copy for use as a frame.',
    );
  return frameFacts;
}

/** EXIF within a TIFF layout; what cannot be read is left empty, since a picture can be of use without. */
function exif(ifds: Ifds, directory: Directory): Omit<FrameFacts, 'format' | 'width' | 'height' | 'bits'> {
  const out = {
    ...empty,
    maker: ifds.text(directory, 271),
    camera: ifds.text(directory, 272),
    uniqueModel: ifds.text(directory, 50708),
    profile: ifds.text(directory, 50934) || ifds.text(directory, 50936),
    serial: ifds.text(directory, 50735),
    date: ifds.text(directory, 306),
  } as Omit<FrameFacts, 'format' | 'width' | 'height' | 'bits'>;
  const at = ifds.number(directory, 34665);
  if (at === null) return out;
  let e: Directory;
  try {
    e = ifds.read(at);
  } catch {
    return out;
  }
  return {
    ...out,
    serial: ifds.text(e, 42033) || out.serial,
    lens: ifds.text(e, 42036),
    focal: ifds.number(e, 37386),
    aperture: ifds.number(e, 33437),
    iso: ifds.number(e, 34855),
    seconds: ifds.number(e, 33434),
    date: ifds.text(e, 36867) || out.date,
  };
}

const softly = (bytes: Uint8Array, start: number): ReturnType<typeof exif> => {
  try {
    const ifds = new Ifds(bytes, start);
    return exif(ifds, ifds.read(ifds.first));
  } catch (error) {
    if (error instanceof Problem) return empty;
    throw error;
  }
};

function jpeg(bytes: Uint8Array): FrameFacts {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let meta: ReturnType<typeof exif> = empty;
  for (let at = 2; at + 4 <= bytes.length;) {
    if (bytes[at] !== 0xff) throw fault('jpeg-broken', 'A marker is missing where one must stand.', `byte ${at}`);
    const marker = bytes[at + 1]!;
    if (marker === 0xff) {
      at++;
      continue;
    }
    const length = view.getUint16(at + 2);
    if (length < 2 || at + 2 + length > bytes.length)
      throw fault('jpeg-broken', 'The file ends within a segment.', `byte ${at}`);
    if (marker === 0xe1 && length > 16 && String.fromCharCode(...bytes.subarray(at + 4, at + 8)) === 'Exif')
      meta = softly(bytes.subarray(0, at + 2 + length), at + 10);
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker)) {
      if (length < 8) throw fault('jpeg-broken', 'The frame header is too short.', `byte ${at}`);
      return sized({
        format: 'jpeg',
        height: view.getUint16(at + 5),
        width: view.getUint16(at + 7),
        bits: bytes[at + 4]!,
        ...meta,
      });
    }
    if (marker === 0xda) break;
    at += 2 + length;
  }
  throw fault('jpeg-broken', 'The file ends before it says how large the picture is.', `byte ${bytes.length}`);
}

function png(bytes: Uint8Array): FrameFacts {
  if (bytes.length < 33) throw fault('png-broken', 'The file ends within its header.', `byte ${bytes.length}`);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let meta: ReturnType<typeof exif> = empty;
  for (let at = 8; at + 8 <= bytes.length;) {
    const length = view.getUint32(at);
    const name = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (name === 'eXIf' && at + 8 + length <= bytes.length) meta = softly(bytes.subarray(0, at + 8 + length), at + 8);
    if (name === 'IDAT' || name === 'IEND') break;
    at += 12 + length;
  }
  return sized({ format: 'png', width: view.getUint32(16), height: view.getUint32(20), bits: bytes[24]!, ...meta });
}

function tiff(bytes: Uint8Array): FrameFacts {
  const ifds = new Ifds(bytes);
  const chain = ifds.chain();
  const directory = chain[0];
  if (!directory) throw fault('tiff-broken', 'The file has no directory.', 'byte 4');
  const dng = directory.tags.has(50706);
  const under = (): Directory[] => ifds.numbers(directory, 330, 16).map((at) => ifds.read(at));
  const raw = !dng && [...chain, ...under()].some((x) => ifds.number(x, 262) === 32803); // a mosaic of a color filter array, as TIFF/EP has it
  let size = { width: ifds.number(directory, 256) ?? 0, height: ifds.number(directory, 257) ?? 0 };
  // in a DNG the first directory is a thumbnail; the picture proper is the largest of those below it
  if (dng || raw)
    for (const directory of [...chain, ...under()]) {
      const width = ifds.number(directory, 256) ?? 0;
      const h = ifds.number(directory, 257) ?? 0;
      if (width * h > size.width * size.height) size = { width, height: h };
    }
  const other = raw ? 'raw' : 'tiff';
  return sized({
    format: dng ? 'dng' : other,
    ...size,
    bits: ifds.number(directory, 258),
    ...exif(ifds, directory),
  });
}

/** Facts of a picture, by its signature; null where it is no picture that we know. */
export function frameFacts(bytes: Uint8Array): FrameFacts | null {
  if (bytes.length < 12) return null;
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return jpeg(bytes);
  if (bytes[0] === 0x89 && bytes[1] === 0x50 && bytes[2] === 0x4e && bytes[3] === 0x47) return png(bytes);
  const four = (bytes[0]! << 24) | (bytes[1]! << 16) | (bytes[2]! << 8) | bytes[3]!;
  if (four === 0x49492a00 || four === 0x4d4d002a) return tiff(bytes);
  // cameras' own kinds of TIFF bear another number where TIFF has 42 (DNG camera profiles have "CR", BigTIFF 43)
  const order = four >>> 16;
  let own = 0;
  if (order === 0x4949) own = bytes[2]! | (bytes[3]! << 8);
  else if (order === 0x4d4d) own = four & 0xffff;
  if (own === 0x4f52 || own === 0x5352 || own === 0x55)
    return { format: 'raw', width: 1, height: 1, bits: null, ...softly(bytes, 0) };
  return null;
}
