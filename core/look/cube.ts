/**
 * `.cube` text tables: 1D (2…65536 entries) and 3D (2…256 points an axis), TITLE, DOMAIN_MIN and DOMAIN_MAX, comments.
 * A missing or surplus row, a number that is none, and a size that is not legal are refused with their line.
 */
import { Problem } from '../problem';
import { decodeText } from '../text';
import { putDecimal, rowsOf, Scanner } from './decimal';
import type { Look, Warning } from './look';

const LIMIT = { '1d': 65536, '3d': 256 };

const fault = (code: string, message: string, line: number, remedy: string): Problem =>
  new Problem(code, message, `line ${line}`, remedy);
const again = 'Ask the supplier for the file again, or export it anew from the program that made it.';

/** One byte a UTF-16 unit, so that places in the text are places here; what is no ASCII becomes 255. */
function byUnit(text: string): Uint8Array {
  const out = new Uint8Array(text.length);
  for (let i = 0; i < out.length; i++) out[i] = Math.min(255, text.charCodeAt(i));
  return out;
}

/** What of a file has been read so far; `line` is the one that is being read, from 1. */
interface Reading {
  title: string;
  kind: Look['kind'] | null;
  size: number;
  table: Float32Array<ArrayBuffer>;
  filled: number;
  line: number;
  domain: { min: number[]; max: number[] };
  comments: string[];
  warnings: Warning[];
}

/** A decimal number as the format has it; NaN for anything else, hexadecimal and empty words too. */
const decimalOf = (word: string | undefined): number =>
  word !== undefined && /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(word) ? Number(word) : NaN;

function triple(words: string[], line: number): number[] {
  const values = words.slice(1).map(decimalOf);
  if (values.length !== 3 || values.some((n) => !Number.isFinite(n)))
    throw fault('cube-domain', `${words[0]!.toUpperCase()} needs three numbers.`, line, again);
  return values;
}

/** The size, which makes room for the table. */
function begin(reading: Reading, kind: Look['kind'], word: string | undefined): void {
  if (reading.kind)
    throw fault(
      'cube-size-twice',
      'A size is given twice.',
      reading.line,
      'A file that carries both a 1D and a 3D table has to be split into two.',
    );
  const number = decimalOf(word);
  const limit = LIMIT[kind];
  if (!Number.isInteger(number) || number < 2 || number > limit)
    throw fault(
      'cube-size',
      `A size of ${word ?? 'nothing'} is not legal: a ${kind.toUpperCase()} table has 2 to ${limit} points.`,
      reading.line,
      again,
    );
  reading.kind = kind;
  reading.size = number;
  reading.table = new Float32Array((kind === '3d' ? number ** 3 : number) * 3);
}

/** A common older way to say the domain, the same for all channels. */
function inputRange(reading: Reading, words: string[]): void {
  const [least, most] = [decimalOf(words[1]), decimalOf(words[2])];
  if (!Number.isFinite(least) || !Number.isFinite(most))
    throw fault('cube-domain', `${words[0]!.toUpperCase()} needs two numbers.`, reading.line, again);
  reading.domain = { min: [least, least, least], max: [most, most, most] };
}

const keywords: Record<string, (reading: Reading, words: string[], row: string) => void> = {
  TITLE: (reading, _words, row) => {
    reading.title = row
      .slice(5)
      .trim()
      .replace(/^"(.*)"$/, '$1');
  },
  LUT_3D_SIZE: (reading, words) => begin(reading, '3d', words[1]),
  LUT_1D_SIZE: (reading, words) => begin(reading, '1d', words[1]),
  DOMAIN_MIN: (reading, words) => {
    reading.domain.min = triple(words, reading.line);
  },
  DOMAIN_MAX: (reading, words) => {
    reading.domain.max = triple(words, reading.line);
  },
  LUT_3D_INPUT_RANGE: inputRange,
  LUT_1D_INPUT_RANGE: inputRange,
};

/** A line that begins with a word. What looks like a keyword and is none is passed over with a warning. */
function takeWords(reading: Reading, row: string): void {
  const words = row.split(/\s+/);
  const first = words[0]!;
  const key = first.toUpperCase();
  if (Object.hasOwn(keywords, key)) keywords[key]!(reading, words, row);
  else if (/^(NAN|INF|INFINITY)$/.test(key))
    throw fault('cube-number', `"${first}" is not a number that a table can hold.`, reading.line, again);
  else if (/^[A-Z_0-9]+$/.test(first))
    reading.warnings.push({
      code: 'cube-keyword',
      message: `The keyword ${first} is not part of the format and was passed over.`,
      where: `line ${reading.line}`,
    });
  else
    throw fault(
      'cube-row',
      `"${row.slice(0, 40)}" is neither a keyword nor a row of three numbers.`,
      reading.line,
      again,
    );
}

/** A line of numbers that is no plain row: it is read by its words, and what is wrong with it is told. */
function takeNumbers(reading: Reading, row: string): void {
  const { table, line } = reading;
  if (!reading.kind) throw fault('cube-no-size', 'Numbers come before the size of the table.', line, again);
  const words = row.split(/\s+/);
  if (words.length !== 3) throw fault('cube-row', `A row has ${words.length} numbers; it needs three.`, line, again);
  if (reading.filled === table.length)
    throw fault(
      'cube-rows-surplus',
      `There are more than the ${table.length / 3} rows that a size of ${reading.size} needs.`,
      line,
      again,
    );
  for (const word of words) {
    const v = decimalOf(word);
    if (!Number.isFinite(v))
      throw fault('cube-number', `"${word.slice(0, 24)}" is not a number that a table can hold.`, line, again);
    table[reading.filled++] = v;
  }
}

function takeLine(reading: Reading, row: string): void {
  if (!row) return;
  if (row.startsWith('#')) {
    if (reading.comments.length < 200) reading.comments.push(row.slice(1).trim());
  } else if (/^[0-9+.-]/.test(row)) takeNumbers(reading, row);
  else takeWords(reading, row);
}

/** The look, once the file has ended: it must have been whole. */
function finished({ kind, size, table, filled, line, title, domain, comments, warnings }: Reading): Look {
  if (!kind)
    throw fault(
      'cube-no-size',
      'There is no table in this file: neither LUT_1D_SIZE nor LUT_3D_SIZE is given.',
      Math.max(1, line),
      again,
    );
  if (filled < table.length)
    throw fault('cube-rows-missing', `The table ends after ${filled / 3} of ${table.length / 3} rows.`, line, again);
  if (domain.min.some((v, c) => !(v < domain.max[c]!)))
    throw fault('cube-domain', 'The domain is empty: its smallest value is not below its largest.', line, again);
  return { format: 'cube', kind, size, table, title, domain, comments, warnings };
}

/** Reads a table; a fault is told by its line, and what is passed over by a warning. */
export function readCube(bytes: Uint8Array): Look {
  const text = decodeText(bytes, '.cube file');
  const reading: Reading = {
    title: '',
    kind: null,
    size: 0,
    table: new Float32Array(0),
    filled: 0,
    line: 0,
    domain: { min: [0, 0, 0], max: [1, 1, 1] },
    comments: [],
    warnings: [],
  };
  const scan = new Scanner(text.length === bytes.length ? bytes : byUnit(text));
  let from = 0;
  while (from < text.length) {
    from = plainRows(scan, from, reading);
    if (from >= text.length) break;
    let to = text.indexOf('\n', from);
    if (to < 0) to = text.length;
    reading.line++;
    takeLine(reading, text.slice(from, to).trim());
    from = to + 1;
  }
  return finished(reading);
}

/** Most of a file are plain rows of three numbers, which are read in place. Where the first other line begins. */
function plainRows(scan: Scanner, from: number, reading: Reading): number {
  const { table } = reading;
  const row = new Float64Array(3);
  let at = from;
  let filled = reading.filled;
  while (filled < table.length) {
    const next = scan.row(at, row);
    if (next <= 0) break;
    table[filled] = row[0]!;
    table[filled + 1] = row[1]!;
    table[filled + 2] = row[2]!;
    filled += 3;
    at = next;
    reading.line++;
  }
  reading.filled = filled;
  return at;
}

const decimal = (v: number): string => {
  const bytes = new Uint8Array(48);
  return new TextDecoder().decode(bytes.subarray(0, putDecimal(bytes, 0, v)));
};

/** Byte-stable UTF-8 text: keywords, then rows with red fastest, LF at each line's end. */
export function writeCubeBytes(look: Look): Uint8Array {
  const head: string[] = [];
  if (look.title) head.push(`TITLE "${look.title.replace(/["\r\n]/g, ' ').slice(0, 240)}"`);
  head.push(`${look.kind === '3d' ? 'LUT_3D_SIZE' : 'LUT_1D_SIZE'} ${look.size}`);
  if (look.domain.min.some((v) => v !== 0) || look.domain.max.some((v) => v !== 1))
    head.push(
      `DOMAIN_MIN ${look.domain.min.map(decimal).join(' ')}`,
      `DOMAIN_MAX ${look.domain.max.map(decimal).join(' ')}`,
    );
  const table = look.table;
  const start = new TextEncoder().encode(head.join('\n') + '\n');
  const body = rowsOf(table, table.length / 3, (row) => row * 3);
  const out = new Uint8Array(start.length + body.length);
  out.set(start);
  out.set(body, start.length);
  return out;
}

export const writeCube = (look: Look): string => new TextDecoder().decode(writeCubeBytes(look));
