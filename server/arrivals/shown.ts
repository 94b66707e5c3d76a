/** What of an arrival can be looked at before it is taken: what a file does to a frame, and what a paper says. */
import sharp from 'sharp';
import { Problem } from '@/core/problem';
import { paperText } from '@/core/recognise/paper';
import { isUuid } from '@/core/uuid';
import { getBlob } from '../blobs/service';
import { pool } from '../db/pool';
import { cached, displayed } from '../frames/cache';
import { framePicture } from '../frames/service';
import { tableSource } from '../items/service';
import { allow, type Person } from '../people/roles';
import { compute } from '../threads/computing';
import * as q from './queries';

const WIDTHS = [320, 900];
const LEAST_WIDTH = 320;

/** The file, which is one whose content was kept. */
export async function keptEntry(person: Person, id: string, entry: number): Promise<q.EntryRow & { sha256: Buffer }> {
  allow(person, 'arrival.read');
  const [row] = Number.isSafeInteger(entry) ? await q.entriesOf(pool(), id, [entry]) : [];
  if (!row?.sha256)
    throw new Problem(
      'not-found',
      'There is no such file in this arrival, or it was not kept.',
      String(entry),
      'Reload the page.',
    );
  return { ...row, sha256: row.sha256 };
}

/** A file on a frame, or as the picture that it is: WebP, 320 or 900 pixels wide. Throws a Problem for what does nothing to a frame. */
export async function entryPicture(
  person: Person,
  id: string,
  entry: number,
  frame: string,
  wanted = LEAST_WIDTH,
): Promise<Buffer> {
  const row = await keptEntry(person, id, entry);
  if (!isUuid(frame))
    throw new Problem('not-found', 'There is no such frame.', frame.slice(0, 80), 'Choose another frame.');
  const width = WIDTHS.includes(wanted) ? wanted : LEAST_WIDTH;
  // by its row, which is another one when the arrival is read again with other readers
  const name = `arrival-${id}-${entry}-on-${row.kind === 'frame' ? 'itself' : frame}-${width}.webp`;
  return cached(name, async () => {
    if (row.kind === 'frame')
      return displayed(await getBlob(row.sha256))
        .resize({ width, withoutEnlargement: true })
        .webp()
        .toBuffer();
    if (row.kind !== 'look' && row.kind !== 'preset')
      throw new Problem(
        'preview-kind',
        'Files of this kind do nothing to a frame by themselves.',
        row.path,
        'See what it is instead.',
      );
    return lookOnFrame(person, { ...row, kind: row.kind, sha256: row.sha256 }, frame, width);
  });
}

async function lookOnFrame(
  person: Person,
  row: { kind: 'look' | 'preset'; sha256: Buffer; facts: Record<string, unknown>; title: string },
  frame: string,
  width: number,
): Promise<Buffer> {
  const [png, source] = await Promise.all([framePicture(person, frame, width), tableSource(row)]);
  const { data, info } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const pixels = await compute('picture', { source, pixels: data });
  return sharp(pixels, { raw: { width: info.width, height: info.height, channels: 4 } })
    .webp({ quality: 88 })
    .toBuffer();
}

/** A paper in words; null for one that another program is needed for. With its bytes, to be saved. */
export async function entryPaper(
  person: Person,
  id: string,
  entry: number,
): Promise<{ path: string; text: string | null; bytes: Buffer }> {
  const { path, format, sha256 } = await keptEntry(person, id, entry);
  const bytes = await getBlob(sha256);
  return { path, text: paperText(bytes, format), bytes };
}
