/** The bench as its address has it: rows, columns, the reference, and how it is looked at. */
import { noTrim, type Trim } from '@/core/bench/measure';
import { readings } from '@/core/look/reading';
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
  const c: Column = { ...plain, parts: [] };
  for (const f of text.split('!')) {
    const [k, a = '', b = '', d = ''] = f.split(':');
    if (k === 'none') continue;
    else if (k === 'jpeg') c.profile = 'jpeg';
    else if (k === 'x') {
      try {
        c.profile = `x:${decodeURIComponent(a).slice(0, 120)}`;
      } catch {
        return null;
      }
    } else if (k === 'r') c.range = true;
    else if (k === 'p' && id.test(a)) {
      c.profile = a;
      c.stages = b === '' ? 15 : Number(b) & 15;
      c.anchor = Number(d) >= 2000 ? Math.min(50000, Number(d)) : null;
    } else if (k === 'l' && id.test(a))
      c.parts.push({
        version: a,
        strength: Math.max(0, Math.min(400, Math.round(Number(b)) || 0)),
        ...(Number(d) >= 1 && Number(d) <= readings.length ? { reading: Math.round(Number(d)) } : {}),
      });
    else if (k === 't') {
      const v = a.split(',').map(Number);
      if (v.length === 9 && v.every(Number.isFinite))
        c.trim = { slope: [v[0]!, v[1]!, v[2]!], offset: [v[3]!, v[4]!, v[5]!], power: [v[6]!, v[7]!, v[8]!] };
    } else return null;
  }
  return c.parts.length > 6 ? null : c;
}
const textOf = (c: Column): string =>
  [
    c.profile === 'jpeg'
      ? 'jpeg'
      : c.profile.startsWith('x:')
        ? `x:${encodeURIComponent(c.profile.slice(2))}`
        : c.profile === 'plain'
          ? ''
          : `p:${c.profile}${c.stages !== 15 || c.anchor ? `:${c.stages}` : ''}${c.anchor ? `:${c.anchor}` : ''}`,
    ...c.parts.map((p) => `l:${p.version}:${p.strength}${p.reading ? `:${p.reading}` : ''}`),
    c.trim && JSON.stringify(c.trim) !== JSON.stringify(noTrim)
      ? `t:${[...c.trim.slope, ...c.trim.offset, ...c.trim.power].map((v) => Number(v.toFixed(3))).join(',')}`
      : '',
    c.range ? 'r' : '',
  ]
    .filter(Boolean)
    .join('!') || 'none';

export function stateOf(get: (k: string) => string | null): State {
  const rows = (get('rows') ?? '')
    .split('~')
    .filter(Boolean)
    .slice(0, MOST_ROWS)
    .map((t): Row => {
      const at = t.indexOf('.');
      const wb = at < 0 ? 'as' : t.slice(at + 1);
      return { frame: at < 0 ? t : t.slice(0, at), wb: wb === 'auto' || /^[nk]:[\d.,-]+$/.test(wb) ? wb : 'as' };
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

export function addressOf(s: State): string {
  const p = new URLSearchParams();
  if (s.rows.length) p.set('rows', s.rows.map((r) => (r.wb === 'as' ? r.frame : `${r.frame}.${r.wb}`)).join('~'));
  if (s.columns.length) p.set('cols', s.columns.map(textOf).join('~'));
  if (s.reference) p.set('ref', String(s.reference));
  if (s.difference) p.set('diff', '1');
  if (s.mark) p.set('mark', '1');
  if (s.blind) p.set('blind', String(s.blind));
  if (s.surround) p.set('gray', String(s.surround));
  if (JSON.stringify(s.range) !== JSON.stringify(usualRange))
    p.set(
      'range',
      [s.range.inLow, s.range.inHigh, s.range.outLow, s.range.outHigh, s.range.edge, s.range.detail].join(','),
    );
  if (s.open) p.set('open', [s.open.row, ...s.open.columns].join(','));
  return p.toString();
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
