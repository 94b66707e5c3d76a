/**
 * Whether an ICC profile can be used (ICC.1:2022, sections 7 to 10): the header, what its class asks for, and each tag that
 * is computed with, held against the bytes that are there.
 */
import { Problem } from '../problem';
import { iccHeader, type IccClass, type IccHeader } from './header';

const again = 'Ask the supplier for the profile again.';
const broken = (message: string, where: string): Problem => new Problem('icc-broken', message, where, again);

/** Channels of the color spaces of section 7.2.6, by their signature. */
const CHANNELS: Record<string, number> = {
  XYZ: 3,
  Lab: 3,
  Luv: 3,
  YCbr: 3,
  Yxy: 3,
  LMS: 3,
  RGB: 3,
  GRAY: 1,
  HSV: 3,
  HLS: 3,
  CMYK: 4,
  CMY: 3,
  '2CLR': 2,
  '3CLR': 3,
  '4CLR': 4,
  '5CLR': 5,
  '6CLR': 6,
  '7CLR': 7,
  '8CLR': 8,
  '9CLR': 9,
  ACLR: 10,
  BCLR: 11,
  CCLR: 12,
  DCLR: 13,
  ECLR: 14,
  FCLR: 15,
};

interface Tag {
  name: string;
  type: string;
  at: number;
  size: number;
}
interface Bytes {
  view: DataView;
  tags: Map<string, Tag>;
}

const ascii = (view: DataView, at: number): string =>
  String.fromCharCode(view.getUint8(at), view.getUint8(at + 1), view.getUint8(at + 2), view.getUint8(at + 3));

function tagsIn(bytes: Uint8Array): Bytes {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const tags = new Map<string, Tag>();
  const count = view.getUint32(128);
  for (let i = 0; i < count; i++) {
    const entry = 132 + i * 12;
    const name = ascii(view, entry);
    const [at, size] = [view.getUint32(entry + 4), view.getUint32(entry + 8)];
    if (size < 8) throw broken(`The tag "${name}" has ${size} bytes, too few to be anything.`, name);
    tags.set(name, { name, type: ascii(view, at), at, size });
  }
  return { view, tags };
}

const fixed = (view: DataView, at: number): number => view.getInt32(at) / 65536;

/** A `curv` or `para` element that lies at `at` within `room` bytes; answers how many bytes it takes. */
function checkCurve(view: DataView, at: number, room: number, where: string): number {
  const type = room >= 12 ? ascii(view, at) : '';
  if (type === 'curv') {
    const count = view.getUint32(at + 8);
    if (count > (room - 12) / 2) throw broken(`A curve claims ${count} points, more than there is room for.`, where);
    if (count > 1) {
      const first = view.getUint16(at + 12);
      let same = true;
      for (let i = 1; i < count && same; i++) same = view.getUint16(at + 12 + 2 * i) === first;
      if (same) throw broken('A curve is flat: every value becomes the same.', where);
    }
    if (count === 1 && view.getUint16(at + 12) === 0) throw broken('A curve has a gamma of zero.', where);
    return 12 + 2 * count;
  }
  if (type !== 'para') throw broken(`Where a curve should be is "${type.replace(/[^\x20-\x7e]/g, '?')}".`, where);
  const kind = view.getUint16(at + 8);
  const numbers = [1, 3, 4, 5, 7][kind];
  if (numbers === undefined || 12 + 4 * numbers > room)
    throw broken(`A curve is of the parametric form ${kind}, which is none.`, where);
  if (!(fixed(view, at + 12) > 0)) throw broken('A curve has a gamma of zero or less.', where);
  return 12 + 4 * numbers;
}

function needs({ tags }: Bytes, names: readonly string[], why: string): void {
  const missing = names.filter((name) => !tags.has(name));
  if (missing.length)
    throw broken(`${why} needs ${missing.map((name) => `"${name}"`).join(', ')}, and has none.`, 'tags');
}

/** Three colorants that can be told apart (section 9.2, colorant tags). */
function checkColorants({ view, tags }: Bytes): void {
  const columns = ['rXYZ', 'gXYZ', 'bXYZ'].map((name) => {
    const tag = tags.get(name)!;
    if (tag.type !== 'XYZ ' || tag.size < 20) throw broken(`"${name}" holds no XYZ.`, name);
    return [0, 4, 8].map((step) => fixed(view, tag.at + 8 + step));
  });
  const [[a, d, g], [b, e, h], [c, f, i]] = columns as [number[], number[], number[]];
  const volume = a! * (e! * i! - f! * h!) - b! * (d! * i! - f! * g!) + c! * (d! * h! - e! * g!);
  const size = Math.max(...columns.flat().map(Math.abs));
  if (size > 10) throw broken(`A primary has a value of ${size.toFixed(1)}, which is no color.`, 'rXYZ, gXYZ, bXYZ');
  if (Math.abs(volume) < 1e-5) throw broken('The primaries are no three different colors.', 'rXYZ, gXYZ, bXYZ');
}

/** A table of type mft1 or mft2 (sections 10.10 and 10.11) or mAB/mBA (10.12 and 10.13): channels, sizes, and what it does. */
function checkTable({ view }: Bytes, tag: Tag, from: number, to: number): void {
  const { name, type, at, size } = tag;
  if (!['mft1', 'mft2', 'mAB ', 'mBA ', 'mpet'].includes(type)) throw broken(`"${name}" holds no table.`, name);
  if (type === 'mpet') return;
  if (size < 32) throw broken(`"${name}" ends within its header.`, name);
  const [inputs, outputs] = [view.getUint8(at + 8), view.getUint8(at + 9)];
  if (inputs !== from || outputs !== to)
    throw broken(`"${name}" takes ${inputs} channels to ${outputs}; the profile says ${from} to ${to}.`, name);
  if (type === 'mft1' || type === 'mft2') checkOlderTable(view, tag, inputs, outputs);
  else checkParts(view, tag, inputs, outputs);
}

function checkOlderTable(view: DataView, { name, type, at, size }: Tag, inputs: number, outputs: number): void {
  const grid = view.getUint8(at + 10);
  const wide = type === 'mft2';
  const [inputEntries, outputEntries] = wide ? [view.getUint16(at + 48), view.getUint16(at + 50)] : [256, 256];
  const each = wide ? 2 : 1;
  const head = wide ? 52 : 48;
  const points = grid ** inputs * outputs;
  if (grid < 2 || inputEntries < 2 || outputEntries < 2) throw broken(`The table of "${name}" has no points.`, name);
  const needed = head + each * (inputEntries * inputs + points + outputEntries * outputs);
  if (needed > size) throw broken(`"${name}" asks for ${needed} bytes, and has ${size}.`, name);
  const read = (n: number): number => (wide ? view.getUint16(at + head + 2 * n) : view.getUint8(at + head + n));
  const begin = inputEntries * inputs;
  let same = true;
  for (let n = 1; n < points && same; n++) same = read(begin + n) === read(begin);
  if (same) throw broken(`The table of "${name}" makes one color of all.`, name);
}

/** Offsets of B curves, matrix, M curves, table and A curves, each within the tag. */
function checkParts(view: DataView, { name, at, size }: Tag, inputs: number, outputs: number): void {
  const [b, matrix, m, table, a] = [12, 16, 20, 24, 28].map((step) => view.getUint32(at + step)) as number[];
  for (const part of [b, matrix, m, table, a])
    if (part! !== 0 && (part! < 32 || part! >= size)) throw broken(`A part of "${name}" lies outside of it.`, name);
  const isToPcs = ascii(view, at) === 'mAB ';
  const curves = (offset: number, count: number): void => {
    let place = offset;
    for (let n = 0; n < count; n++) {
      if (place + 12 > size) throw broken(`A curve of "${name}" lies outside of it.`, name);
      place += checkCurve(view, at + place, size - place, name);
      place = Math.ceil(place / 4) * 4;
    }
  };
  if (b) curves(b, isToPcs ? outputs : inputs);
  if (a) curves(a, isToPcs ? inputs : outputs);
  if (m) curves(m, isToPcs ? outputs : inputs);
  if (!table) return;
  if (table + 20 > size) throw broken(`The table of "${name}" lies outside of it.`, name);
  let points = outputs;
  for (let c = 0; c < inputs; c++) points *= view.getUint8(at + table + c);
  const each = view.getUint8(at + table + 16);
  if ((each !== 1 && each !== 2) || points < 2 * outputs || table + 20 + points * each > size)
    throw broken(`The table of "${name}" asks for more than is there, or has no points.`, name);
}

/** To the connection space and back, by intent (section 9.2). */
const TO_PCS = ['A2B0', 'A2B1', 'A2B2'];
const FROM_PCS = ['B2A0', 'B2A1', 'B2A2'];

function checkShaper(bytes: Bytes, header: IccHeader): void {
  const { view, tags } = bytes;
  if (header.space === 'GRAY') {
    needs(bytes, ['kTRC'], 'A gray profile');
    const tag = tags.get('kTRC')!;
    checkCurve(view, tag.at, tag.size, 'kTRC');
    return;
  }
  needs(bytes, ['rXYZ', 'gXYZ', 'bXYZ', 'rTRC', 'gTRC', 'bTRC'], `A profile of the class ${header.class}`);
  checkColorants(bytes);
  for (const name of ['rTRC', 'gTRC', 'bTRC']) {
    const tag = tags.get(name)!;
    checkCurve(view, tag.at, tag.size, name);
  }
}

function checkRest(bytes: Bytes, header: IccHeader, from: number, to: number): void {
  const { tags } = bytes;
  const shaped: IccClass[] = ['input', 'display', 'space'];
  if (header.class === 'named') {
    needs(bytes, ['ncl2'], 'A profile of named colors');
    return;
  }
  if (shaped.includes(header.class) && !tags.has('A2B0')) checkShaper(bytes, header);
  else if (header.class === 'output') needs(bytes, ['A2B0', 'B2A0'], 'A profile of the class output');
  else needs(bytes, ['A2B0'], `A profile of the class ${header.class}`);
  for (const name of TO_PCS) {
    const tag = tags.get(name);
    if (tag) checkTable(bytes, tag, from, to);
  }
  for (const name of FROM_PCS) {
    const tag = tags.get(name);
    if (tag) checkTable(bytes, tag, to, from);
  }
}

/** Throws a Problem for a profile that cannot be used; answers with its header, and with what should be known of it. */
export function checkedIcc(bytes: Uint8Array): { header: IccHeader; caution: string } {
  const header = iccHeader(bytes);
  const from = CHANNELS[header.space];
  const to = CHANNELS[header.pcs];
  if (from === undefined) throw broken(`"${header.space}" is no color space.`, 'byte 16');
  if (to === undefined || (header.class !== 'link' && header.pcs !== 'XYZ' && header.pcs !== 'Lab'))
    throw broken(`"${header.pcs}" is no space to connect by; that is XYZ or Lab.`, 'byte 20');
  if (!header.tags.length) throw broken('The profile has no tags: nothing can be computed with it.', 'byte 128');
  checkRest(tagsIn(bytes), header, from, to);
  const own = new DataView(bytes.buffer, bytes.byteOffset).getUint32(0);
  const junk = bytes.length - own;
  const cautions = [
    junk > 0 ? `${junk} bytes follow the end of the profile; programs pass them over.` : '',
    header.description ? '' : 'It has no description; programs list it by the name of its file.',
  ];
  return { header, caution: cautions.filter(Boolean).join(' ') };
}
