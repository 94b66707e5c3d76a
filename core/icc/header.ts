/** Header and description of an ICC profile (ICC.1:2022, section 7; version 2 alike), without evaluating it. */
import { Problem } from '../problem';

/** The classes of profiles (ICC.1, 7.2.5), by our words for them. */
export const iccClasses = ['input', 'display', 'output', 'link', 'space', 'abstract', 'named'] as const;
export type IccClass = (typeof iccClasses)[number];
const classes: Record<string, IccClass> = {
  scnr: 'input',
  mntr: 'display',
  prtr: 'output',
  link: 'link',
  spac: 'space',
  abst: 'abstract',
  nmcl: 'named',
};

export interface IccHeader {
  version: string;
  class: IccClass;
  space: string;
  pcs: string;
  description: string;
  copyright: string;
  tags: string[];
}

export const isIcc = (bytes: Uint8Array): boolean => bytes.length >= 132 && ascii(bytes, 36, 4) === 'acsp';

const ascii = (b: Uint8Array, at: number, n: number): string => String.fromCharCode(...b.subarray(at, at + n));

export function iccHeader(bytes: Uint8Array): IccHeader {
  const fault = (message: string, at: number): Problem =>
    new Problem('icc-broken', message, `byte ${at}`, 'Ask the supplier for the profile again.');
  if (!isIcc(bytes)) throw fault('This is no ICC profile: its signature is missing.', 36);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const size = view.getUint32(0);
  if (size > bytes.length) throw fault(`The profile says it has ${size} bytes, but only ${bytes.length} are there.`, 0);
  const kind = classes[ascii(bytes, 12, 4)];
  if (!kind) throw fault(`"${ascii(bytes, 12, 4).replace(/[^\x20-\x7e]/g, '?')}" is no class of profiles.`, 12);
  const count = view.getUint32(128);
  if (count > 200 || 132 + count * 12 > bytes.length)
    throw fault(`The profile claims ${count} tags, more than there is room for.`, 128);
  const at = new Map<string, [number, number]>();
  for (let i = 0; i < count; i++) {
    const entry = 132 + i * 12;
    const from = view.getUint32(entry + 4);
    const length = view.getUint32(entry + 8);
    if (from + length > bytes.length || from < 128)
      throw fault(`The tag "${ascii(bytes, entry, 4).replace(/[^\x20-\x7e]/g, '?')}" points outside the file.`, entry);
    at.set(ascii(bytes, entry, 4), [from, length]);
  }
  const text = (tag: string): string => {
    const place = at.get(tag);
    return place ? textOf(bytes, view, place[0], place[1]) : '';
  };
  return {
    version: `${bytes[8]}.${bytes[9]! >> 4}`,
    class: kind,
    space: ascii(bytes, 16, 4).trim(),
    pcs: ascii(bytes, 20, 4).trim(),
    description: text('desc'),
    copyright: text('cprt'),
    tags: [...at.keys()],
  };
}

/** A text tag: desc (version 2), text, or mluc, of which English or else the first is taken. */
function textOf(bytes: Uint8Array, view: DataView, at: number, n: number): string {
  if (n < 12) return '';
  const type = ascii(bytes, at, 4);
  const clean = (text: string): string =>
    text
      .replace(/\0[\s\S]*$/, '')
      .trim()
      .slice(0, 400);
  if (type === 'desc') {
    // ASCII, and behind it the same in Unicode where a program wrote that too
    const c = view.getUint32(at + 8);
    const room = n - 12 - c;
    if (room < 0) return '';
    const wide = room >= 8 ? view.getUint32(at + 16 + c) : 0;
    const whole =
      wide > 1 && wide * 2 <= room - 8
        ? clean(new TextDecoder('utf-16be').decode(bytes.subarray(at + 20 + c, at + 20 + c + wide * 2)))
        : '';
    return whole || clean(new TextDecoder('latin1').decode(bytes.subarray(at + 12, at + 12 + c)));
  }
  if (type === 'text') return clean(new TextDecoder('latin1').decode(bytes.subarray(at + 8, at + n)));
  if (type !== 'mluc' || n < 28) return '';
  const records = Math.min(view.getUint32(at + 8), 100);
  let best = '';
  for (let i = 0; i < records && 16 + i * 12 + 12 <= n; i++) {
    const entry = at + 16 + i * 12;
    const length = view.getUint32(entry + 4);
    const from = view.getUint32(entry + 8);
    if (from + length > n) continue;
    const text = clean(new TextDecoder('utf-16be').decode(bytes.subarray(at + from, at + from + length)));
    if (!best || ascii(bytes, entry, 2) === 'en') best = text;
  }
  return best;
}
