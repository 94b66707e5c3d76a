/** Any look's file to a table, by its content; what is not one table says so. */
import { strFromU8, unzipSync } from 'fflate';
import { decode as decodePng } from 'fast-png';
import { frameFacts } from '../frame/metadata';
import { Problem } from '../problem';
import { CDL_ROOTS, readCdl, type Correction } from './cdl';
import { readClf } from './clf';
import { readCube } from './cube';
import { haldLevel, lookOfHald } from './hald';
import { fromFunction, type Look } from './look';

const MOST_MEMBER = 64 * 2 ** 20;

/** Names of an archive's files, without unpacking any; null where it is no readable ZIP. */
export function memberNames(bytes: Uint8Array): string[] | null {
  const names: string[] = [];
  try { unzipSync(bytes, { filter: (f) => { names.push(f.name); return false; } }); return names; } catch { return null; }
}

/** One file of an archive, at most 64 MB. */
export function member(bytes: Uint8Array, name: string): Uint8Array | null {
  let large = false;
  try {
    const out = unzipSync(bytes, { filter: (f) => { if (f.name !== name) return false; large = f.originalSize > MOST_MEMBER || f.originalSize > Math.max(2 ** 20, f.size * 200); return !large; } })[name];
    if (large) throw new Problem('limit-size', 'A file inside would grow beyond all measure.', name, 'Ask the supplier for the file again.');
    return out ?? null;
  } catch (e) {
    if (e instanceof Problem) throw e;
    throw new Problem('zip-truncated', 'The archive is cut off or damaged.', name, 'Ask the supplier for the file again.');
  }
}

/** ASC CDL 1.2 with saturation by Rec. 709 luma, clamped between its two steps as the standard asks. */
export function cdlFunction(c: Correction): (v: Float64Array) => void {
  const hold = (x: number): number => (x < 0 ? 0 : x > 1 ? 1 : x);
  return (v) => {
    for (let i = 0; i < 3; i++) v[i] = hold(v[i]! * c.slope[i]! + c.offset[i]!) ** c.power[i]!;
    const luma = 0.2126 * v[0]! + 0.7152 * v[1]! + 0.0722 * v[2]!;
    for (let i = 0; i < 3; i++) v[i] = hold(luma + c.saturation * (v[i]! - luma));
  };
}

/** The look in a file. CDL becomes a table of 33 points (its first correction); a chain that is more than one table is refused. */
export function readLook(bytes: Uint8Array): Look {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) {
    const names = memberNames(bytes), inner = names?.find((n) => /\.(clf|cube)$/i.test(n)), about = names?.find((n) => /\.json$/i.test(n));
    const data = inner ? member(bytes, inner) : null;
    if (!data) throw new Problem('look-none', 'There is no table inside this archive.', 'the archive', 'Ask the supplier for the look again.');
    const look = readLook(data);
    if (about) try { look.title = String((JSON.parse(strFromU8(member(bytes, about)!)) as { title?: string }).title ?? look.title); } catch { /* the title is then the table's own */ }
    return look;
  }
  if (bytes[0] === 0x89 && bytes[1] === 0x50) {
    const facts = frameFacts(bytes);
    if (!facts) throw new Problem('png-broken', 'The picture ends within its header.', 'the header', 'Save it anew from the program that made it.');
    const { width, height } = facts;
    if (!haldLevel(width, height)) throw new Problem('hald-size', 'The picture is no Hald image.', `${width} × ${height}`, 'Give a square picture whose side is the cube of a whole number.');
    let png: ReturnType<typeof decodePng>;
    try { png = decodePng(bytes); } catch (e) { throw new Problem('png-broken', `The picture cannot be read: ${(e as Error).message.slice(0, 80)}`, 'the picture', 'Save it anew from the program that made it.'); }
    return lookOfHald(png.data as Uint8Array | Uint16Array, png.width, png.height, png.channels, png.depth === 16 ? 65535 : 255, '');
  }
  const start = new TextDecoder('latin1').decode(bytes.subarray(0, 4096));
  if (/<(\w+:)?ProcessList[\s>]/.test(start)) {
    const clf = readClf(bytes);
    if (!clf.look) throw new Problem('clf-chain', 'This file is a chain of several operations, not one table.', clf.nodes.map((n) => n.kind).join(' → '), 'It is kept as it came; to see it, bake the chain into one table first.');
    return clf.look;
  }
  if (CDL_ROOTS.some((r) => new RegExp(`<(\\w+:)?${r}[\\s>]`).test(start))) { const c = readCdl(bytes)[0]!; return { ...fromFunction(33, c.id, cdlFunction(c)), format: 'cdl' }; }
  return readCube(bytes);
}
