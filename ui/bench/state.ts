/** The bench as its address has it: rows, columns, the reference, and how it is looked at. */
import { noTrim, type Trim } from '@/core/bench/measure';
import { readings } from '@/core/look/assumed-encoding';
import { usualRange, type RangeCompression } from '@/core/bench/range';

export { STAGES } from '@/core/camera/stages';
export interface Part {
  version: string;
  strength: number;
  /** read in another encoding than the one that holds: its place among `readings`, 1 on */ reading?: number;
}
export interface Column {
  /** a profile's version, "plain" for none, "jpeg" for the camera's own rendering, "x:" and a label for an editor's export */ profile: string;
  /** bits of STAGES, all set: 15 */ stages: number;
  anchor: number | null;
  parts: Part[];
  trim: Trim | null;
  range: boolean;
}
export interface Row {
  frame: string;
  wb: string;
}
export interface State {
  rows: Row[];
  columns: Column[];
  reference: number;
  difference: boolean;
  /** what the display cannot show is marked */ mark: boolean;
  /** 0 is off, else the seed of the order */ blind: number;
  range: RangeCompression;
  surround: 0 | 1 | 2;
  /** row, and columns side by side */ open: { row: number; columns: number[] } | null;
}

export const plain: Column = { profile: 'plain', stages: 15, anchor: null, parts: [], trim: null, range: false };
export const MOST_COLUMNS = 16;
export const MOST_ROWS = 40;
const id = /^[0-9a-f-]{36}$/;
/** Whether a column develops by a profile of the shelves. */
export const isVersion = (profile: string): boolean => id.test(profile);

function columnOf(text: string): Column | null {
  const column: Column = { ...plain, parts: [] };
  for (const file of text.split('!')) {
    const [key, a = '', b = '', d = ''] = file.split(':');
    if (key === 'none') continue;
    else if (key === 'jpeg') column.profile = 'jpeg';
    else if (key === 'x') {
      try {
        column.profile = `x:${decodeURIComponent(a).slice(0, 120)}`;
      } catch {
        return null;
      }
    } else if (key === 'r') column.range = true;
    else if (key === 'p' && id.test(a)) {
      column.profile = a;
      column.stages = b === '' ? 15 : Number(b) & 15;
      column.anchor = Number(d) >= 2000 ? Math.min(50000, Number(d)) : null;
    } else if (key === 'l' && id.test(a))
      column.parts.push({
        version: a,
        strength: Math.max(0, Math.min(400, Math.round(Number(b)) || 0)),
        ...(Number(d) >= 1 && Number(d) <= readings.length ? { reading: Math.round(Number(d)) } : {}),
      });
    else if (key === 't') {
      const values = a.split(',').map(Number);
      if (values.length === 9 && values.every(Number.isFinite))
        column.trim = {
          slope: [values[0]!, values[1]!, values[2]!],
          offset: [values[3]!, values[4]!, values[5]!],
          power: [values[6]!, values[7]!, values[8]!],
        };
    } else return null;
  }
  return column.parts.length > 6 ? null : column;
}
const textOf = (column: Column): string =>
  [
    column.profile === 'jpeg'
      ? 'jpeg'
      : column.profile.startsWith('x:')
        ? `x:${encodeURIComponent(column.profile.slice(2))}`
        : column.profile === 'plain'
          ? ''
          : `p:${column.profile}${column.stages !== 15 || column.anchor ? `:${column.stages}` : ''}${column.anchor ? `:${column.anchor}` : ''}`,
    ...column.parts.map((p) => `l:${p.version}:${p.strength}${p.reading ? `:${p.reading}` : ''}`),
    column.trim && JSON.stringify(column.trim) !== JSON.stringify(noTrim)
      ? `t:${[...column.trim.slope, ...column.trim.offset, ...column.trim.power].map((v) => Number(v.toFixed(3))).join(',')}`
      : '',
    column.range ? 'r' : '',
  ]
    .filter(Boolean)
    .join('!') || 'none';

export function stateOf(get: (k: string) => string | null): State {
  const rows = (get('rows') ?? '')
    .split('~')
    .filter(Boolean)
    .slice(0, MOST_ROWS)
    .map((text): Row => {
      const at = text.indexOf('.');
      const wb = at < 0 ? 'as' : text.slice(at + 1);
      return { frame: at < 0 ? text : text.slice(0, at), wb: wb === 'auto' || /^[nk]:[\d.,-]+$/.test(wb) ? wb : 'as' };
    })
    .filter((r) => id.test(r.frame));
  const columns = (get('cols') ?? '')
    .split('~')
    .filter(Boolean)
    .slice(0, MOST_COLUMNS)
    .map(columnOf)
    .filter((c): c is Column => !!c);
  const r = (get('range') ?? '').split(',').map(Number);
  const open = (get('open') ?? '').split(',').map(Number);
  const range: RangeCompression =
    r.length === 6 && r.every(Number.isFinite) && r[0]! < 0 && r[1]! > 0
      ? { inLow: r[0]!, inHigh: r[1]!, outLow: r[2]!, outHigh: r[3]!, edge: r[4]!, detail: r[5]! }
      : usualRange;
  return {
    rows,
    columns: columns.length ? columns : [plain],
    reference: Math.max(0, Math.min(columns.length - 1, Number(get('ref')) || 0)),
    difference: get('diff') === '1',
    mark: get('mark') === '1',
    blind: Number(get('blind')) || 0,
    range,
    surround: get('gray') === '1' ? 1 : get('gray') === '2' ? 2 : 0,
    open:
      open.length >= 2 && open[0]! < rows.length
        ? { row: open[0]!, columns: open.slice(1, 5).filter((c) => c < columns.length) }
        : null,
  };
}

export function addressOf(state: State): string {
  const query = new URLSearchParams();
  if (state.rows.length)
    query.set('rows', state.rows.map((r) => (r.wb === 'as' ? r.frame : `${r.frame}.${r.wb}`)).join('~'));
  if (state.columns.length) query.set('cols', state.columns.map(textOf).join('~'));
  if (state.reference) query.set('ref', String(state.reference));
  if (state.difference) query.set('diff', '1');
  if (state.mark) query.set('mark', '1');
  if (state.blind) query.set('blind', String(state.blind));
  if (state.surround) query.set('gray', String(state.surround));
  if (JSON.stringify(state.range) !== JSON.stringify(usualRange))
    query.set(
      'range',
      [
        state.range.inLow,
        state.range.inHigh,
        state.range.outLow,
        state.range.outHigh,
        state.range.edge,
        state.range.detail,
      ].join(','),
    );
  if (state.open) query.set('open', [state.open.row, ...state.open.columns].join(','));
  return query.toString();
}

/** Places of the columns in a shuffled order of a seed; the reference keeps its place. */
export function blindOrder(n: number, reference: number, seed: number): number[] {
  const list = Array.from({ length: n }, (_, i) => i).filter((i) => i !== reference);
  let a = seed >>> 0;
  for (let i = list.length - 1; i > 0; i--) {
    a = (Math.imul(a, 1664525) + 1013904223) >>> 0;
    const j = a % (i + 1);
    [list[i], list[j]] = [list[j]!, list[i]!];
  }
  list.splice(reference, 0, reference);
  return list;
}
