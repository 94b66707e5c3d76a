/**
 * Writes another description into an ICC profile. Every other tag keeps its bytes: elements only move by what the description
 * grows or shrinks (ICC.1:2022, 7.3: tags may share one element, and shared ones stay shared). Version 2 takes
 * textDescriptionType (ICC.1:2001-04, 6.5.17), version 4 multiLocalizedUnicodeType. A profile ID is left out (all zero, 7.2.18).
 */
import { Problem } from '../problem';
import { iccHeader } from './header';
import { Block, mluc } from './write';

const units = (s: string): number[] => Array.from({ length: s.length }, (_, i) => s.charCodeAt(i));

function oldDescription(text: string): Uint8Array {
  const plain = text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^\x20-\x7e]/g, '?');
  const whole = plain !== text;
  return new Block()
    .text('desc')
    .u32(0, plain.length + 1)
    .text(plain)
    .u8(0)
    .u32(0, whole ? text.length + 1 : 0)
    .u16(...(whole ? [...units(text), 0] : []))
    .u16(0)
    .u8(0, ...new Array<number>(67).fill(0))
    .bytes();
}

const MOST_CHARACTERS = 400;
const line = (text: string): string => text.replace(/[\r\n\0]+/g, ' ').slice(0, MOST_CHARACTERS);
const isNew = (version: string): boolean => version.startsWith('4') || version.startsWith('5');

/** textType (ICC.1:2001-04, 6.5.18): seven-bit signs. */
const oldText = (text: string): Uint8Array =>
  new Block()
    .text('text')
    .u32(0)
    .text(
      text
        .replaceAll('©', '(c)')
        .normalize('NFKD')
        .replace(/[\u0300-\u036f]/g, '')
        .replace(/[^\x20-\x7e]/g, '?'),
    )
    .u8(0)
    .bytes();

/** @param rights goes into the copyright tag; '' leaves it as it is */
export function describeIcc(bytes: Uint8Array, description: string, rights = ''): Uint8Array {
  const header = iccHeader(bytes);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = view.getUint32(128);
  const title = line(description);
  const tags = Array.from({ length: count }, (_, i) => {
    const at = 132 + i * 12;
    return {
      name: String.fromCharCode(...bytes.subarray(at, at + 4)),
      key: `${view.getUint32(at + 4)} ${view.getUint32(at + 8)}`,
      data: bytes.subarray(view.getUint32(at + 4), view.getUint32(at + 4) + view.getUint32(at + 8)),
    };
  });
  const own = tags.find((t) => t.name === 'desc');
  if (!own)
    throw new Problem(
      'icc-broken',
      'The profile has no description tag.',
      'desc',
      'Ask the supplier for the profile again.',
    );
  Object.assign(own, {
    key: 'new',
    data: isNew(header.version) ? mluc(title) : oldDescription(title),
  });
  const copyright = rights ? tags.find((tag) => tag.name === 'cprt') : undefined;
  if (copyright)
    Object.assign(copyright, {
      key: 'new rights',
      data: isNew(header.version) ? mluc(line(rights)) : oldText(line(rights)),
    });
  const changed = (tag: (typeof tags)[number]): number => [own, copyright].indexOf(tag) + 1;
  // in the order in which they lay; each shared element once, and what is new behind them
  const order = [...tags].sort((a, b) => changed(a) - changed(b) || a.data.byteOffset - b.data.byteOffset);
  const places = new Map<string, number>();
  const parts: [number, Uint8Array][] = [];
  let end = 132 + count * 12;
  for (const tag of order)
    if (!places.has(tag.key)) {
      end = (end + 3) & ~3;
      places.set(tag.key, end);
      parts.push([end, tag.data]);
      end += tag.data.length;
    }
  end = (end + 3) & ~3;
  const out = new Uint8Array(end);
  const writer = new DataView(out.buffer);
  out.set(bytes.subarray(0, 132));
  writer.setUint32(0, end);
  out.fill(0, 84, 100);
  tags.forEach((tag, i) => {
    const at = 132 + i * 12;
    out.set(bytes.subarray(at, at + 4), at);
    writer.setUint32(at + 4, places.get(tag.key)!);
    writer.setUint32(at + 8, tag.data.length);
  });
  for (const [at, data] of parts) out.set(data, at);
  return out;
}
