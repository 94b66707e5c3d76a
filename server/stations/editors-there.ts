/** Which editors a station has: what fits there, and what becomes of our files when an editor goes. */
import { editorKey, type Descriptor } from '@/core/editor/descriptor';
import { Problem } from '@/core/problem';
import { same } from '@/core/same';
import { placeOfPath } from '@/core/sync/place-templates';
import { counted } from '@/core/words';
import { record, type Actor } from '../activity/queries';
import type { Sql } from '../db/pool';
import { descriptors } from '../editors/service';
import * as q from './queries';

type Place = Pick<q.StationRow, 'kind' | 'system'>;

/** The descriptors that were named. Throws where one is not known, or is not for such a station. */
export async function fitting(sql: Sql, place: Place, named: readonly string[]): Promise<Descriptor[]> {
  const known = new Map((await descriptors(sql)).map((one) => [editorKey(one), one]));
  return [...new Set(named)].map((key) => {
    const descriptor = known.get(key);
    if (!descriptor)
      throw new Problem(
        'editor-unknown',
        `The studio knows no editor ${key}.`,
        'editors',
        'Bring its descriptor in first, in Studio.',
      );
    if ((descriptor.kind === 'card') !== (place.kind === 'card'))
      throw new Problem(
        'editor-elsewhere',
        `${descriptor.title} is ${descriptor.kind === 'card' ? 'a camera, which reads cards' : 'an editor, and not on a card'}.`,
        'editors',
        descriptor.kind === 'card' ? 'Add a card for it.' : 'Choose a camera.',
      );
    if (!descriptor.systems.includes(place.system))
      throw new Problem(
        'editor-system',
        `There is no ${descriptor.title} for this system.`,
        'editors',
        'Leave it out, or correct its descriptor.',
      );
    return descriptor;
  });
}

/**
 * Editors that came to a station and went from it; what others said meanwhile stays. Files that we put there for an editor
 * that goes stay where they are: they are looked after for another editor there that reads the same folder in the same form,
 * or no longer. While something of a rollout waits there, it does not go.
 */
export async function changeEditors(
  sql: Sql,
  actor: Actor,
  station: q.StationRow,
  change: { came: readonly string[]; went: readonly string[] },
): Promise<void> {
  const there = (await q.stationEditors(sql, [station.id])).map(({ descriptor }) => descriptor);
  const has = new Set(there.map(editorKey));
  const added = (await fitting(sql, station, change.came)).filter((one) => !has.has(editorKey(one)));
  const gone = there.filter((one) => change.went.includes(editorKey(one)));
  if (!added.length && !gone.length) return;
  for (const { editor, version } of added) await q.insertStationEditor(sql, station.id, editor, version);
  const staying = [...there.filter((one) => !gone.includes(one)), ...added];
  let left = 0;
  for (const descriptor of gone) left += await letGo(sql, station, descriptor, staying);
  const titles = (all: readonly Descriptor[]): string => all.map(({ title }) => title).join(', ');
  await record(sql, actor, 'station', station.id, 'editors changed', null, {
    added: titles(added),
    gone: titles(gone),
    left,
  });
}

/** Answers how many files of ours are looked after no longer. */
async function letGo(
  sql: Sql,
  station: q.StationRow,
  descriptor: Descriptor,
  staying: readonly Descriptor[],
): Promise<number> {
  const { editor, version, title } = descriptor;
  const waiting = await q.waitingAt(sql, station.id, editor, version);
  if (waiting)
    throw new Problem(
      'editor-busy',
      `${counted(waiting, 'file')} of a rollout ${waiting === 1 ? 'waits' : 'wait'} to be written for ${title}.`,
      station.name,
      'Let the rollout come to its end, or leave out there what waits; then change the editors.',
    );
  await handOver(sql, station, descriptor, staying);
  return q.dropStationEditor(sql, station.id, editor, version);
}

/** Gives what lies in a folder that another editor reads too, in the same form, to that one. */
async function handOver(
  sql: Sql,
  station: q.StationRow,
  gone: Descriptor,
  staying: readonly Descriptor[],
): Promise<void> {
  const own = (await q.placements(sql, [station.id])).filter(
    (one) => one.editor_id === gone.editor && one.editor_version === gone.version,
  );
  const formOf = ({ accepts }: Descriptor, place: string, kind: string | null) =>
    accepts.find((one) => one.place === place && one.kind === kind)?.writer;
  for (const { path, place, kind } of own)
    for (const heir of staying) {
      const into = placeOfPath(heir.places, station.system, path);
      if (into === null || !same(formOf(heir, into, kind), formOf(gone, place, kind))) continue;
      await q.handOverPlacements(sql, station.id, gone, { ...heir, place: into, paths: [path] });
      break;
    }
}
