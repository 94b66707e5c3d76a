/** Editors' own renderings of frames, brought in by the studio to be seen beside ours. */
import { v7 } from 'uuid';
import { Problem } from '@/core/problem';
import { getBlob, putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { atWidth, displayedPng } from './cache';
import * as q from './queries';

export type { ExportRow } from './queries';
export const MOST_BYTES = 200e6;

export async function listExports(person: Person): Promise<q.ExportRow[]> {
  allow(person, 'view');
  return q.exportsOfFrames(pool());
}

/** Takes a picture in as what an editor makes of a frame; one of the same label takes the place of the last. Brought to sRGB by its own profile, 8 bits, at most 3,000 pixels wide. */
export async function addExport(
  person: Person,
  frame: string,
  label: string,
  bytes: Uint8Array,
): Promise<{ id: string }> {
  allow(person, 'frame.edit');
  const words = label.trim().replace(/\s+/g, ' ').slice(0, 120);
  const of = await q.pictureOf(pool(), frame);
  if (!of) throw new Problem('not-found', 'There is no such frame.', frame, 'Choose another frame.');
  if (!words || /[!~:]/.test(words))
    throw new Problem(
      'export-label',
      'An export needs a label, without the signs ! ~ and :',
      'label',
      'Name the editor and what it was made with.',
    );
  const {
    data,
    info: { width, height },
  } = await displayedPng(bytes, words, 'Export it as JPEG, PNG or TIFF.');
  if (Math.abs(Math.log((width * of.height) / (height * of.width))) > 0.02)
    throw new Problem(
      'export-shape',
      `The picture is ${width} × ${height}; ${of.name} has another shape.`,
      words,
      'Export the frame whole, without a crop.',
    );
  return transaction(async (sql) => {
    const id = v7();
    await q.putExport(sql, {
      id,
      frame,
      label: words,
      sha: await putBlob(sql, data),
      width,
      height,
      person: person.id,
    });
    await record(sql, actorOf(person), 'frame', frame, 'export brought in', null, { label: words });
    return { id };
  });
}

export async function removeExport(person: Person, id: string): Promise<void> {
  allow(person, 'frame.edit');
  await transaction(async (sql) => {
    const had = await q.removeExport(sql, id);
    if (!had) throw new Problem('not-found', 'There is no such export.', id, 'Reload the page.');
    await record(sql, actorOf(person), 'frame', had.frame_id, 'export removed', { label: had.label }, null);
  });
}

/** An export as PNG, at one of the offered widths. */
export async function exportPicture(person: Person, id: string, width: number): Promise<Buffer> {
  allow(person, 'view');
  const row = await q.exportById(pool(), id);
  if (!row) throw new Problem('not-found', 'This export is not there any more.', id, 'Take its column off.');
  return atWidth(row, width, () => getBlob(row.sha256));
}
