/** Hald images as files: PNG and TIFF, 8 and 16 bits. Sizes are judged from the header before a pixel is unpacked. */
import { sample16 } from '../samples';
import { decode as decodePng } from 'fast-png';
import { frameFacts } from '../frame/metadata';
import { Problem } from '../problem';
import { Ifds } from '../tiff/ifd';
import { readTiffPicture } from '../tiff/picture';
import { writeTiffPicture } from '../tiff/write-picture';
import { haldLevel, lookOfHald } from './hald';
import type { Look } from './look';
import { pngOfRows } from './png-rows';

const noHald = (w: number, h: number): Problem =>
  new Problem(
    'hald-size',
    'The picture is no Hald image.',
    `${w} × ${h}`,
    'Give a square picture whose side is the cube of a whole number.',
  );

export function readHald(bytes: Uint8Array): Look {
  if (bytes[0] === 0x89) {
    const facts = frameFacts(bytes);
    if (!facts)
      throw new Problem(
        'png-broken',
        'The picture ends within its header.',
        'the header',
        'Save it anew from the program that made it.',
      );
    if (!haldLevel(facts.width, facts.height)) throw noHald(facts.width, facts.height);
    let png: ReturnType<typeof decodePng>;
    try {
      png = decodePng(bytes);
    } catch (error) {
      throw new Problem(
        'png-broken',
        `The picture cannot be read: ${(error as Error).message.slice(0, 80)}`,
        'the picture',
        'Save it anew from the program that made it.',
      );
    }
    return lookOfHald(
      png.data as Uint8Array | Uint16Array,
      png.width,
      png.height,
      png.channels,
      png.depth === 16 ? 65535 : 255,
      '',
    );
  }
  const ifds = new Ifds(bytes);
  const directory = ifds.read(ifds.first);
  const width = ifds.number(directory, 256) ?? 0;
  const h = ifds.number(directory, 257) ?? 0;
  if (ifds.magic !== 42)
    throw new Problem(
      'look-none',
      'This is no picture that could hold a look.',
      'byte 2',
      'Give a .cube, CLF, CDL or Hald file.',
    );
  if (!haldLevel(width, h)) throw noHald(width, h);
  const picture = readTiffPicture(ifds, directory, 4096 * 4096 * 4);
  const top = picture.data instanceof Float32Array ? 1 : 2 ** picture.bits - 1;
  return lookOfHald(picture.data, picture.width, picture.height, picture.channels, top, '');
}

/** The side of the image that a 3D table makes. The size has to be a square. */
function sideOf(look: Look): number {
  const level = Math.round(Math.sqrt(look.size));
  if (look.kind !== '3d' || level * level !== look.size || level < 2 || level > 16)
    throw new Problem(
      'hald-size',
      `A table of ${look.size} points makes no Hald image.`,
      '--size',
      'Choose the square of a whole number: 4, 9, 16, 25, 36, 49, 64, … 256.',
    );
  return level ** 3;
}
/** Values from an index of the table on, as samples of 16 bits, clamped to 0…1, rounded half up. */
function samples(look: Look, from: number, out: Uint16Array): void {
  for (let i = 0; i < out.length; i++) {
    out[i] = sample16(look.table[from + i]!);
  }
}
export function haldSamples(look: Look): { side: number; data: Uint16Array } {
  const side = sideOf(look);
  const data = new Uint16Array(look.table.length);
  samples(look, 0, data);
  return { side, data };
}

/** Row by row: level 16 has 100 MB of samples, which are never there at once. */
export function writeHaldPng(look: Look): Uint8Array {
  const side = sideOf(look);
  return pngOfRows(side, side, (y, out) => samples(look, y * side * 3, out));
}

export function writeHaldTiff(look: Look): Uint8Array {
  const { side, data } = haldSamples(look);
  return writeTiffPicture({ width: side, height: side, channels: 3, data, title: look.title });
}
