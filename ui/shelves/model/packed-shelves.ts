/**
 * What comes with the page of the shelves, as one text. Sixty spines are most of it, and each name and each quotation mark
 * costs twice over: once in the text, and again where the text is written into the page. Of a spine its values alone are
 * sent, in the order of the names, and its threads as letters without marks between them.
 */
import { pack, unpack, type Packed } from '../../kit/packed';
import type { ShelvesProps } from '../shelves-context';
import type { Spine } from './spine';

type Threads = NonNullable<Spine['selvedge']>;

interface Sent extends Omit<ShelvesProps, 'given'> {
  given: Omit<ShelvesProps['given'], 'spines'>;
  names: (keyof Spine)[];
  /** the fixed colors of threads; nearly always one text for all spines */ fixed: string[];
  /** by name; of threads the number of their fixed colors, and the rendered ones */ rows: unknown[][];
}

export type PackedShelves = Packed<Sent>;

const COLOR = /^#[0-9a-f]{6}$/;
const ofColor = (color: string): string => color.slice(1);
const ofLetters = (letters: string): string[] => (letters.match(/.{6}/g) ?? []).map((color) => `#${color}`);

/** The number of `text` in a list, where it is put if it is not there. */
function numberIn(list: string[], text: string): number {
  const at = list.indexOf(text);
  return at < 0 ? list.push(text) - 1 : at;
}

/** Threads without marks; whatever is not made of pairs of colors stays as it is. */
function sentThreads(threads: Threads, fixed: string[]): unknown {
  if (!threads.every((pair) => pair.length === 2 && pair.every((color) => COLOR.test(color)))) return threads;
  const number = numberIn(fixed, threads.map(([color]) => ofColor(color)).join(''));
  return `${number} ${threads.map(([, color]) => ofColor(color)).join('')}`;
}

function readThreads(sent: unknown, fixed: readonly string[]): Spine['selvedge'] {
  if (typeof sent !== 'string') return sent as Spine['selvedge'];
  const [number = '0', rendered = ''] = sent.split(' ');
  const after = ofLetters(rendered);
  return ofLetters(fixed[Number(number)] ?? '').map((color, at) => [color, after[at] ?? color]);
}

export function packShelves({ given: { spines, ...given }, ...props }: ShelvesProps): PackedShelves {
  const names = (spines[0] ? Object.keys(spines[0]) : []) as (keyof Spine)[];
  const fixed: string[] = [];
  const rows = spines.map((spine) =>
    names.map((name) => (name === 'selvedge' && spine.selvedge ? sentThreads(spine.selvedge, fixed) : spine[name])),
  );
  return pack({ ...props, given, names, fixed, rows });
}

export function unpackShelves(packed: PackedShelves): ShelvesProps {
  const { given, names, fixed, rows, ...props } = unpack(packed);
  const spines = rows.map(
    (row) =>
      Object.fromEntries(
        names.map((name, at) => [name, name === 'selvedge' ? readThreads(row[at], fixed) : row[at]]),
      ) as unknown as Spine,
  );
  return { ...props, given: { ...given, spines } };
}
