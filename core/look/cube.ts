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

export function readCube(bytes: Uint8Array): Look {
  const text = decodeText(bytes, '.cube file');
  const warnings: Warning[] = [];
  const comments: string[] = [];
  let title = '';
  let kind: Look['kind'] | null = null;
  let size = 0;
  let table = new Float32Array(0);
  let filled = 0;
  let line = 0;
  let from = 0;
  const domain = { min: [0, 0, 0], max: [1, 1, 1] };

  const triple = (words: string[], name: string): number[] => {
    const values = words.slice(1).map(Number);
    if (values.length !== 3 || values.some((n, i) => !Number.isFinite(n) || words[i + 1] === ''))
      throw fault('cube-domain', `${name} needs three numbers.`, line, again);
    return values;
  };
  const begin = (k: Look['kind'], word: string | undefined): void => {
    if (kind)
      throw fault(
        'cube-size-twice',
        'A size is given twice.',
        line,
        'A file that carries both a 1D and a 3D table has to be split into two.',
      );
    const n = Number(word);
    const limit = LIMIT[k];
    if (!Number.isInteger(n) || n < 2 || n > limit)
      throw fault(
        'cube-size',
        `A size of ${word ?? 'nothing'} is not legal: a ${k.toUpperCase()} table has 2 to ${limit} points.`,
        line,
        again,
      );
    kind = k;
    size = n;
    table = new Float32Array((k === '3d' ? n ** 3 : n) * 3);
  };

  const scan = new Scanner(text.length === bytes.length ? bytes : byUnit(text));
  const row3 = new Float64Array(3);
  while (from < text.length) {
    // most of a file are plain rows of three numbers: these are read in place, all else by its words
    if (kind && filled < table.length) {
      const next = scan.row(from, row3);
      if (next > 0) {
        table[filled] = row3[0]!;
        table[filled + 1] = row3[1]!;
        table[filled + 2] = row3[2]!;
        filled += 3;
        line++;
        from = next;
        continue;
      }
    }
    let to = text.indexOf('\n', from);
    if (to < 0) to = text.length;
    const row = text.slice(from, to).trim();
    from = to + 1;
    line++;
    if (!row) continue;
    const first = row.charCodeAt(0);
    if (first === 35) {
      if (comments.length < 200) comments.push(row.slice(1).trim());
      continue;
    }
    if ((first >= 48 && first <= 57) || first === 45 || first === 43 || first === 46) {
      if (!kind) throw fault('cube-no-size', 'Numbers come before the size of the table.', line, again);
      const words = row.split(/\s+/);
      if (words.length !== 3)
        throw fault('cube-row', `A row has ${words.length} numbers; it needs three.`, line, again);
      if (filled === table.length)
        throw fault(
          'cube-rows-surplus',
          `There are more than the ${table.length / 3} rows that a size of ${size} needs.`,
          line,
          again,
        );
      for (let c = 0; c < 3; c++) {
        const v = Number(words[c]);
        if (!Number.isFinite(v))
          throw fault('cube-number', `"${words[c]!.slice(0, 24)}" is not a number that a table can hold.`, line, again);
        table[filled++] = v;
      }
      continue;
    }
    const words = row.split(/\s+/);
    const key = words[0]!.toUpperCase();
    if (key === 'TITLE')
      title = row
        .slice(5)
        .trim()
        .replace(/^"(.*)"$/, '$1');
    else if (key === 'LUT_3D_SIZE') begin('3d', words[1]);
    else if (key === 'LUT_1D_SIZE') begin('1d', words[1]);
    else if (key === 'DOMAIN_MIN') domain.min = triple(words, 'DOMAIN_MIN');
    else if (key === 'DOMAIN_MAX') domain.max = triple(words, 'DOMAIN_MAX');
    else if (/^(NAN|INF|INFINITY)$/.test(key))
      throw fault('cube-number', `"${words[0]}" is not a number that a table can hold.`, line, again);
    else if (key === 'LUT_3D_INPUT_RANGE' || key === 'LUT_1D_INPUT_RANGE') {
      // a common older way to say the domain, the same for all channels
      const [a, b] = [Number(words[1]), Number(words[2])];
      if (!Number.isFinite(a) || !Number.isFinite(b))
        throw fault('cube-domain', `${key} needs two numbers.`, line, again);
      domain.min = [a, a, a];
      domain.max = [b, b, b];
    } else if (/^[A-Z_0-9]+$/.test(words[0]!))
      warnings.push({
        code: 'cube-keyword',
        message: `The keyword ${words[0]} is not part of the format and was passed over.`,
        where: `line ${line}`,
      });
    else throw fault('cube-row', `"${row.slice(0, 40)}" is neither a keyword nor a row of three numbers.`, line, again);
  }
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
