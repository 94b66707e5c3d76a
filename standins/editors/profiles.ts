/**
 * Camera profiles on a stand-in editor's shelf: each lies in the folder of the body that it is for. Bodies of one model are
 * told apart by their serials, in a list that the people of the studio keep in the editor: `serial = body`, a line each.
 */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Photo } from './photos';
import { options, read, type Listed } from './program';
import { directory } from './tiff';

const UNIQUE_CAMERA_MODEL = 50708;
const PROFILE_NAME = 50936;
const COLOR_MATRIX_1 = 50721;

/** A profile as its own file names it: "IIRC" or "MMCR" in the place of a TIFF's sign (DNG 1.7, chapter 6). */
export function dngProfile(bytes: Buffer): { title: string; camera: string } {
  if (!['IIRC', 'MMCR'].includes(bytes.toString('latin1', 0, 4))) throw new Error('no DNG camera profile');
  const fields = directory(bytes);
  const camera = fields.get(UNIQUE_CAMERA_MODEL)?.text ?? '';
  if (!camera) throw new Error('the profile names no camera');
  if (!fields.has(COLOR_MATRIX_1)) throw new Error('the profile has no color matrix');
  return { title: fields.get(PROFILE_NAME)?.text ?? '', camera };
}

/** An ICC profile of the class "scnr", by its header and the text of its description (ICC.1:2022, 7.2 and 9.2.41). */
export function iccInput(bytes: Buffer): { title: string } {
  if (bytes.toString('latin1', 36, 40) !== 'acsp') throw new Error('no ICC profile');
  const kind = bytes.toString('latin1', 12, 16);
  if (kind !== 'scnr') throw new Error(`an ICC profile of the class ${kind.trim()}; only input profiles are read`);
  for (let n = 0; n < bytes.readUInt32BE(128); n++) {
    const at = 132 + 12 * n;
    if (bytes.toString('latin1', at, at + 4) === 'desc')
      return { title: description(bytes, bytes.readUInt32BE(at + 4)) };
  }
  return { title: '' };
}

function description(bytes: Buffer, at: number): string {
  if (bytes.toString('latin1', at, at + 4) === 'desc')
    return bytes.toString('latin1', at + 12, at + 12 + bytes.readUInt32BE(at + 8) - 1);
  const [length, offset] = [bytes.readUInt32BE(at + 20), bytes.readUInt32BE(at + 24)];
  return Buffer.from(bytes.subarray(at + offset, at + offset + length))
    .swap16()
    .toString('utf16le');
}

/** The body whose folder a profile lies in; '' for one that lies in none. */
export const folderOf = (path: string, under: string): string => {
  const parts = path.slice(under.length + 1).split('/');
  return parts.length > 1 ? parts[0]! : '';
};

export const titled = (path: string, title: string, under: string): Omit<Listed, 'path'> => ({
  title: title || path.slice(path.lastIndexOf('/') + 1).replace(/\.[^.]+$/, ''),
  kind: 'camera-profile',
  headings: [folderOf(path, under)].filter(Boolean),
});

/** By serial, the bodies that are told apart; none where nobody has said so. */
export function bodies(file: string): ReadonlyMap<string, string> {
  if (!existsSync(join(options.root, file))) return new Map();
  const lines = read(file).toString('utf8').split('\n');
  return new Map(
    lines.flatMap((line) => {
      const [, serial, body] = /^\s*([^=#]+?)\s*=\s*(.+?)\s*$/.exec(line) ?? [];
      return serial && body ? [[serial, body] as const] : [];
    }),
  );
}

/** What a photo was taken with: the body of its serial where that is listed, else by the model's name. */
export const bodyOf = ({ camera, serial }: Photo, known: ReadonlyMap<string, string>): string =>
  known.get(serial) ?? camera;
