/** The bench as its address holds it, and back. Whatever is nonsense in an address is left out. */
import { isUuid } from '@/core/uuid';
import { noTrim, type Trim } from '@/core/bench/measure';
import { usualRange, type RangeCompression } from '@/core/bench/range';
import { asInFile, whiteBalanceOf, whiteBalanceText } from '@/core/bench/white-balance';
import { STAGES, type Stage } from '@/core/camera/stages';
import { encodingText, otherEncodings } from '@/core/look/assumed-encoding';
import { emptyColumn, STRENGTH_MOST, type Column, type Layer, type Source } from './column';
import { emptyState, MOST_COLUMNS, MOST_LARGE, MOST_ROWS, type Row, type State, type Surround } from './state';

const MOST_LAYERS = 6;

const finite = (values: readonly number[]): boolean => values.every(Number.isFinite);
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

// --- a column: parts between "!", fields between ":"

/** Bits of STAGES, lowest first. */
const stagesOf = (bits: number): Stage[] => STAGES.filter((_, i) => (bits >> i) % 2 === 1);
const bitsOf = (stages: readonly Stage[]): number =>
  STAGES.reduce((bits, stage, i) => bits + (stages.includes(stage) ? 1 << i : 0), 0);
const ALL_STAGES = bitsOf(STAGES);

function trimOf(text: string): Trim | null {
  const values = text.split(',').map(Number);
  if (values.length !== 9 || !finite(values)) return null;
  const [slopeR, slopeG, slopeB, offsetR, offsetG, offsetB, powerR, powerG, powerB] = values as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  return {
    slope: [slopeR, slopeG, slopeB],
    offset: [offsetR, offsetG, offsetB],
    power: [powerR, powerG, powerB],
  };
}

function labelOf(text: string): string | null {
  try {
    return decodeURIComponent(text).slice(0, 120);
  } catch {
    return null; // a percent sign that escapes nothing
  }
}

function layerOf(version: string, strength: string, encoding: string): Layer {
  return {
    version,
    strength: Math.max(0, Math.min(STRENGTH_MOST, Math.round(Number(strength)) || 0)),
    assumed: otherEncodings[Math.round(Number(encoding)) - 1] ?? null,
  };
}

function profileSource(version: string, stages: string, anchor: string): Source {
  const kelvin = Number(anchor);
  return {
    from: 'profile',
    version,
    stages: stagesOf(stages === '' ? ALL_STAGES : Number(stages)),
    anchor: kelvin >= 2000 ? Math.min(50000, kelvin) : null,
  };
}

/** What a part of a column's text changes of the column; null for a part that means nothing. */
function partOf(column: Column, text: string): Column | null {
  const [key, first = '', second = '', third = ''] = text.split(':');
  switch (key) {
    case 'none':
      return column;
    case 'jpeg':
      return { ...column, source: { from: 'camera-jpeg' } };
    case 'x': {
      const label = labelOf(first);
      return label === null ? null : { ...column, source: { from: 'export', label } };
    }
    case 'p':
      return isUuid(first) ? { ...column, source: profileSource(first, second, third) } : null;
    case 'l':
      return isUuid(first) ? { ...column, layers: [...column.layers, layerOf(first, second, third)] } : null;
    case 't':
      return { ...column, trim: trimOf(first) ?? column.trim };
    case 'r':
      return { ...column, range: true };
    default:
      return null;
  }
}

function columnOf(text: string): Column | null {
  let column: Column | null = emptyColumn;
  for (const part of text.split('!')) {
    column = partOf(column, part);
    if (!column) return null;
  }
  return column.layers.length > MOST_LAYERS ? null : column;
}

function sourceText(source: Source): string {
  switch (source.from) {
    case 'frame':
      return '';
    case 'camera-jpeg':
      return 'jpeg';
    case 'export':
      return `x:${encodeURIComponent(source.label)}`;
    case 'profile': {
      const bits = bitsOf(source.stages);
      const stages = bits !== ALL_STAGES || source.anchor ? `:${bits}` : '';
      return `p:${source.version}${stages}${source.anchor ? `:${source.anchor}` : ''}`;
    }
  }
}

function layerText({ version, strength, assumed }: Layer): string {
  const place = assumed ? otherEncodings.findIndex((one) => encodingText(one) === encodingText(assumed)) + 1 : 0;
  return `l:${version}:${strength}${place ? `:${place}` : ''}`;
}

function trimText(trim: Trim | null): string {
  if (!trim || same(trim, noTrim)) return '';
  const values = [...trim.slope, ...trim.offset, ...trim.power];
  return `t:${values.map((value) => Number(value.toFixed(3))).join(',')}`;
}

const columnText = (column: Column): string =>
  [sourceText(column.source), ...column.layers.map(layerText), trimText(column.trim), column.range ? 'r' : '']
    .filter(Boolean)
    .join('!') || 'none';

// --- a row: a frame, and its white balance behind a dot

function rowOf(text: string): Row | null {
  const dot = text.indexOf('.');
  const frame = dot < 0 ? text : text.slice(0, dot);
  if (!isUuid(frame)) return null;
  return { frame, white: (dot < 0 ? null : whiteBalanceOf(text.slice(dot + 1))) ?? asInFile };
}

const rowText = ({ frame, white }: Row): string =>
  white.by === 'file' ? frame : `${frame}.${whiteBalanceText(white)}`;

function rangeOf(text: string): RangeCompression {
  const values = text.split(',').map(Number);
  if (values.length !== 6 || !finite(values)) return usualRange;
  const [inLow, inHigh, outLow, outHigh, edge, detail] = values as [number, number, number, number, number, number];
  return inLow < 0 && inHigh > 0 ? { inLow, inHigh, outLow, outHigh, edge, detail } : usualRange;
}

function openOf(text: string, rows: number, columns: number): State['open'] {
  const [row = Number.NaN, ...shown] = text.split(',').map(Number);
  if (!shown.length || !(row < rows)) return null;
  return { row, columns: shown.slice(0, MOST_LARGE).filter((column) => column < columns) };
}

/** Reads a list between "~"; what means nothing is left out. */
function listed<T extends object>(text: string | null, most: number, read: (one: string) => T | null): T[] {
  const parts = (text ?? '').split('~').filter(Boolean);
  return parts.slice(0, most).flatMap((part) => read(part) ?? []);
}

/** Reads what stands behind an address's question mark. */
export function stateOf(address: string): State {
  const query = new URLSearchParams(address);
  const rows = listed(query.get('rows'), MOST_ROWS, rowOf);
  const columns = listed(query.get('cols'), MOST_COLUMNS, columnOf);
  const gray = Number(query.get('gray'));
  return {
    rows,
    columns: columns.length ? columns : emptyState.columns,
    reference: Math.max(0, Math.min(columns.length - 1, Number(query.get('ref')) || 0)),
    difference: query.get('diff') === '1',
    mark: query.get('mark') === '1',
    blind: Number(query.get('blind')) || 0,
    range: rangeOf(query.get('range') ?? ''),
    surround: gray === 1 || gray === 2 ? (gray satisfies Surround) : 0,
    open: openOf(query.get('open') ?? '', rows.length, columns.length),
  };
}

/** Writes it; what is as usual is left out. */
export function addressOf(state: State): string {
  const query = new URLSearchParams();
  const { range } = state;
  if (state.rows.length) query.set('rows', state.rows.map(rowText).join('~'));
  if (state.columns.length) query.set('cols', state.columns.map(columnText).join('~'));
  if (state.reference) query.set('ref', String(state.reference));
  if (state.difference) query.set('diff', '1');
  if (state.mark) query.set('mark', '1');
  if (state.blind) query.set('blind', String(state.blind));
  if (state.surround) query.set('gray', String(state.surround));
  if (!same(range, usualRange)) {
    const values = [range.inLow, range.inHigh, range.outLow, range.outHigh, range.edge, range.detail];
    query.set('range', values.join(','));
  }
  if (state.open) query.set('open', [state.open.row, ...state.open.columns].join(','));
  return query.toString();
}
