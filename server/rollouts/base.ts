/** What was put last at a station, the base of the three-way view: moved by each step that was carried out. */
import { must } from '@/core/must';
import { bytesOf } from '../blobs/service';
import type { Sql } from '../db/pool';
import { dropBase, setBase } from '../editor-lists/queries';
import { dropPlacement, putPlacement } from '../stations/queries';
import type * as q from './queries';

/** Of a list that its editor keeps the base is what was asked for: what they put into it themselves is no part of it. */
async function moveListBase(
  sql: Sql,
  step: q.StepRow,
  list: NonNullable<q.StepRow['list']>,
  undoing: boolean,
): Promise<void> {
  const { station_id: station, editor_id: editor, editor_version: version, path } = step;
  const asked = undoing ? list.before : list.asked;
  if (asked) await setBase(sql, { station, editor, version, path }, asked);
  else await dropBase(sql, station, path);
}

/** @param at when it was done, by the clock of the station */
export async function moveBase(
  sql: Sql,
  step: q.StepRow,
  rolloutId: string,
  undoing: boolean,
  at: string,
): Promise<void> {
  if (step.list) {
    await moveListBase(sql, step, step.list, undoing);
    return;
  }
  const place = { stationId: step.station_id, path: step.path, rolloutId, at };
  if (!undoing && step.do_what === 'put')
    await putPlacement(sql, {
      ...place,
      editorId: step.editor_id,
      editorVersion: step.editor_version,
      place: step.place,
      versionId: step.version_id,
      renditionId: step.rendition_id,
      sha: bytesOf(must(step.sha)),
    });
  else if (undoing && step.prior)
    await putPlacement(sql, {
      ...place,
      editorId: step.prior.editor_id,
      editorVersion: step.prior.editor_version,
      place: step.prior.place,
      versionId: step.prior.version_id,
      renditionId: step.prior.rendition_id,
      sha: bytesOf(step.prior.sha),
    });
  else await dropPlacement(sql, step.station_id, step.path);
}
