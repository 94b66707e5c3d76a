/** Two frames of one scene or chart by two cameras, and the look that makes the one like the other. */
import sharp from 'sharp';
import { tableFacts } from '@/core/look/table-facts';
import type { BodyOf } from '@/core/api';
import { newMatch } from '@/core/api/camera-match';
import type { MatchedPatch } from '@/core/look/camera-match';
import { computedEncoding } from '@/core/look/look';
import { Problem } from '@/core/problem';
import { counted } from '@/core/words';
import { record } from '../activity/queries';
import { putBlob } from '../blobs/service';
import { chartById } from '../charts/queries';
import type { Kept } from '../conversions/keep';
import { pool, transaction } from '../db/pool';
import { framePicture, listFrames, type FrameRow } from '../frames/service';
import { checked } from '../input';
import { createItem } from '../items/create';
import { actorOf, allow, type Person } from '../people/roles';
import { compute } from '../threads/computing';
import type { MatchAsked, MatchSource } from '../threads/tasks';

/** Wider tells no more of even areas. */
const WIDTH = 900;

export interface MatchFigures {
  from: FrameRow;
  to: FrameRow;
  /** by what the frames were compared */ by: 'chart' | 'scene';
  patches: MatchedPatch[];
  before: { mean: number; max: number };
  after: { mean: number; max: number };
}

async function frameNamed(person: Person, id: string): Promise<FrameRow> {
  const frame = (await listFrames(person)).find((one) => one.id === id);
  if (frame) return frame;
  throw new Problem('not-found', 'There is no such frame.', id, 'Choose another frame.');
}

async function sourceOf(
  person: Person,
  { id, chart_corners }: FrameRow,
  chart: { columns: number; rows: number } | undefined,
): Promise<MatchSource> {
  const png = await framePicture(person, id, WIDTH);
  const { data, info } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const at = chart && chart_corners ? { corners: chart_corners, columns: chart.columns, rows: chart.rows } : null;
  return { pixels: new Uint8Array(data), width: info.width, height: info.height, at };
}

interface Asked {
  from: string;
  to: string;
  table: MatchAsked['table'];
}

async function matched(person: Person, asked: Asked) {
  if (asked.from === asked.to)
    throw new Problem('match-same', 'Both are the same frame.', 'frames', 'Choose a frame of the other camera.');
  const [from, to] = await Promise.all([frameNamed(person, asked.from), frameNamed(person, asked.to)]);
  const common = from.chart_id && from.chart_id === to.chart_id ? await chartById(pool(), from.chart_id) : undefined;
  const [one, other] = await Promise.all([sourceOf(person, from, common), sourceOf(person, to, common)]);
  const chart = common ? common.patches.map(({ id }) => id) : null;
  const made = await compute('cameraMatch', { from: one, to: other, chart, table: asked.table });
  return { from, to, by: chart ? ('chart' as const) : ('scene' as const), ...made };
}

/** What a match would do, patch by patch, before anything is made. */
export async function previewMatch(person: Person, from: string, to: string): Promise<MatchFigures> {
  allow(person, 'view');
  const { table: _none, ...figures } = await matched(person, { from, to, table: null });
  return figures;
}

/** Keeps the match as a look: a draft of our own. */
export async function makeMatch(person: Person, input: BodyOf<'POST /api/camera-match'>): Promise<Kept> {
  allow(person, 'item.convert');
  const { from: source, to: target, title, shelf, size, limit } = checked(newMatch, input);
  const made = await matched(person, { from: source, to: target, table: { points: size, title } });
  const { from, to, by, before, after, patches, table } = made;
  if (!table) throw new Error('a table was asked for');
  const used = patches.filter((patch) => patch.used).length;
  const { residual: tableError, domain, range } = table;
  return transaction(async (sql) => {
    const kept = await createItem(sql, actorOf(person), {
      kind: 'look',
      title,
      headings: [],
      shelfId: shelf,
      supplier: '',
      sha: await putBlob(sql, Buffer.from(table.bytes)),
      fileName: `${title}.cube`,
      format: 'cube',
      selvedge: table.threads,
      encoding: computedEncoding,
      notes: `makes ${from.name} like ${to.name}: ${counted(used, 'patch', 'patches')}, ΔE00 ${before.mean.toFixed(2)} before, ${after.mean.toFixed(2)} after`,
      facts: {
        ...tableFacts({ size, domain, range }, title),
        tableError,
        cameras: limit && from.camera ? [from.camera] : [],
        matched: { from: from.name, to: to.name, by, patches: used, before, after },
      },
    });
    await record(sql, actorOf(person), 'item', kept.itemId, 'matched', null, { from: from.name, to: to.name });
    return kept;
  });
}
