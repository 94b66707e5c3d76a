/**
 * Measured values of a chart as CGATS text (ANSI CGATS.17, ISO 28178): keywords, a data format, data. Colors come out as L*a*b*
 * relative to D50, 2° (ISO 13655); XYZ of 0…100 is brought there.
 * It is our own because there is no package for this format.
 */
import { labOfXyz } from '../color/lab';
import { D50, xyzOf } from '../color/spaces';
import { Problem } from '../problem';

export interface Patch {
  id: string;
  lab: [number, number, number];
}
export interface Chart {
  title: string;
  /** row by row, from the top left */ patches: Patch[];
  columns: number;
  rows: number;
}

const MOST = 5000;
const fault = (message: string, where: string, code = 'chart-broken'): Problem =>
  new Problem(code, message, where, 'Save the measured values anew as CGATS text, with L*a*b* or XYZ of each patch.');
/** D50, Y = 100. */
const WHITE = xyzOf(D50).map((v) => v * 100);

/** Words of a line; quoted ones may hold blanks. */
const wordsOf = (line: string): string[] => [...line.matchAll(/"([^"]*)"|(\S+)/g)].map((m) => m[1] ?? m[2]!);

/** A1, B12: a letter a row, a number a column. */
const place = (id: string): { row: number; column: number } | null => {
  const match = /^([A-Za-z]{1,2})0*(\d{1,3})$/.exec(id);
  return match
    ? {
        row: [...match[1]!.toUpperCase()].reduce((n, c) => n * 26 + c.charCodeAt(0) - 64, 0) - 1,
        column: Number(match[2]) - 1,
      }
    : null;
};

export function readChart(bytes: Uint8Array): Chart {
  const lines = new TextDecoder('utf-8')
    .decode(bytes)
    .replace(/^\ufeff/, '')
    .split(/\r\n|\n|\r/);
  const fields: string[] = [];
  const rows: { words: string[]; line: number }[] = [];
  let title = '';
  let length = 0;
  let inside: 'format' | 'data' | null = null;
  lines.forEach((raw, i) => {
    const line = raw.replace(/#.*$/, '').trim();
    const words = line ? wordsOf(line) : [];
    const key = (words[0] ?? '').toUpperCase();
    if (!words.length) return;
    if (key === 'BEGIN_DATA_FORMAT') {
      inside = 'format';
      fields.push(...words.slice(1));
    } else if (key === 'BEGIN_DATA') inside = 'data';
    else if (key === 'END_DATA_FORMAT' || key === 'END_DATA') inside = null;
    else if (inside === 'format') fields.push(...words);
    else if (inside === 'data') {
      if (rows.length >= MOST)
        throw fault(`The chart has more than ${MOST.toLocaleString('en')} patches.`, `line ${i + 1}`, 'limit-patches');
      rows.push({ words, line: i + 1 });
    } else if (key === 'DESCRIPTOR' || key === 'ORIGINATOR') title ||= words.slice(1).join(' ').slice(0, 120);
    else if (key === 'LGOROWLENGTH') length = Number(words[1]);
  });
  const at = (...names: string[]): number => fields.findIndex((f) => names.includes(f.toUpperCase()));
  const id = at('SAMPLE_ID', 'SAMPLEID', 'SAMPLE_NAME', 'SAMPLE_LOC');
  const name = at('SAMPLE_NAME', 'SAMPLE_LOC');
  const lab = ['LAB_L', 'LAB_A', 'LAB_B'].map((n) => at(n));
  const xyz = ['XYZ_X', 'XYZ_Y', 'XYZ_Z'].map((n) => at(n));
  if (!fields.length) throw fault('There is no data format in the text.', 'BEGIN_DATA_FORMAT');
  const useLab = lab.every((x) => x >= 0);
  const use = useLab ? lab : xyz;
  if (use.some((x) => x < 0)) throw fault('The text has neither L*a*b* nor XYZ of its patches.', 'data format');
  if (!rows.length) throw fault('The text has no patches.', 'BEGIN_DATA');
  const patches = rows.map(({ words, line }, count): Patch => {
    if (words.length < fields.length)
      throw fault(`A patch has ${words.length} values of ${fields.length}.`, `line ${line}`);
    const values = use.map((x) => Number(words[x]!.replace(',', '.')));
    if (values.some((x, c) => !Number.isFinite(x) || (useLab ? Math.abs(x) > (c ? 200 : 110) : x < 0 || x > 200)))
      throw fault(
        `The values ${use
          .map((x) => words[x])
          .join(' ')
          .slice(0, 60)} are no color.`,
        `line ${line}`,
      );
    const [first, second] = [id >= 0 ? words[id]! : '', name >= 0 ? words[name]! : ''];
    return {
      id: ((place(first) || !place(second) ? first : second) || String(count + 1)).slice(0, 20),
      lab: useLab ? (values as [number, number, number]) : labOfXyz(values, WHITE),
    };
  });
  return { title, ...arranged(patches, length) };
}

/** By their names where each has a place of its own, else in order, in rows of `length` or as nearly square as their number lets. */
function arranged(patches: Patch[], length: number): { patches: Patch[]; columns: number; rows: number } {
  const places = patches.map((p) => place(p.id));
  if (places.every((p) => p)) {
    const columns = Math.max(...places.map((p) => p!.column)) + 1;
    const rows = Math.max(...places.map((p) => p!.row)) + 1;
    const grid = new Array<Patch | undefined>(Math.min(columns * rows, MOST + 1));
    if (columns * rows === patches.length) {
      patches.forEach((patch, i) => {
        grid[places[i]!.row * columns + places[i]!.column] = patch;
      });
      if (grid.every((p) => p)) return { patches: grid as Patch[], columns, rows };
    }
  }
  const count = patches.length;
  if (length > 0 && Number.isInteger(length) && count % length === 0)
    return { patches, columns: length, rows: count / length };
  let rows = Math.floor(Math.sqrt(count));
  while (count % rows) rows--;
  return { patches, columns: count / rows, rows };
}
