/** What lies twice at a station, and a plan by which the second goes: looked at, confirmed and undone like any other. */
import type { BodyOf } from '@/core/api';
import { stationEndpoints } from '@/core/api/stations';
import { distinct } from '@/core/lists';
import { duplicatesThere, type FileThere, type Twice } from '@/core/records/duplicates-there';
import { Problem } from '@/core/problem';
import { placeOfPath } from '@/core/sync/place-templates';
import { counted } from '@/core/words';
import { nearAmong } from '../copies/service';
import { pool, transaction } from '../db/pool';
import { checked } from '../input';
import { allow, type Person } from '../people/roles';
import * as stations from '../stations/queries';
import { stationView, type StationView } from '../stations/views';
import { placedAt } from './placed-there';
import { planTakingAway, type Theirs } from './removal';

/** What lies in its editors' folders now; of ours, what lies there as it was put. */
const filesOf = ({ rows }: StationView): FileThere[] =>
  rows.flatMap(({ path, editor, is, base, itemId, title }) => {
    if (!is || !editor || (base !== null && base !== is)) return [];
    const ours = base !== null && itemId ? { item: itemId, title: title ?? '' } : null;
    // a list of ours, which names files, is no item
    return base !== null && !ours ? [] : [{ path, editor, sha: is, ours }];
  });

async function twiceIn(view: StationView): Promise<Twice[]> {
  const files = filesOf(view);
  const items = distinct(files.flatMap(({ ours }) => ours?.item ?? []));
  return duplicatesThere(files, await nearAmong(pool(), items));
}

/** What lies twice in the folders of one editor there. */
export async function duplicatesIn(person: Person, view: StationView): Promise<Twice[]> {
  allow(person, 'view');
  return twiceIn(view);
}

/** The editor and the place in which a path lies. */
function placeOf(
  editors: readonly stations.StationEditorRow[],
  system: stations.StationRow['system'],
  { path, sha }: FileThere,
): Theirs[] {
  for (const editor of editors) {
    const place = placeOfPath(editor.descriptor.places, system, path);
    if (place !== null) return [{ path, editor, place, sha }];
  }
  return [];
}

/** Plans that what is told to lie there twice goes, of these files. Throws where one of them does not. */
export async function planWithoutDuplicates(
  person: Person,
  stationId: string,
  input: BodyOf<'POST /api/stations/:id/duplicates'>,
): Promise<{ rollout: string }> {
  allow(person, 'rollout.plan');
  const { paths } = checked(stationEndpoints['POST /api/stations/:id/duplicates'].body, input);
  const view = await stationView(person, stationId);
  const twice = new Map((await twiceIn(view)).flatMap(({ others }) => others).map((file) => [file.path, file]));
  const going = distinct(paths).map((path) => {
    const file = twice.get(path);
    if (file) return file;
    throw new Problem(
      'duplicate-none',
      'This file does not lie there twice any more.',
      path,
      'Reload the page, and look again.',
    );
  });
  return transaction(async (sql) => {
    const ours = going.filter((file) => file.ours).map(({ path }) => path);
    const placed = await placedAt(sql, stationId, ours);
    const editors = await stations.stationEditors(sql, [placed.station.id]);
    const theirs = going.filter((file) => !file.ours).flatMap((file) => placeOf(editors, placed.station.system, file));
    const title = `Take ${counted(going.length, 'duplicate')} away at ${placed.station.name}`;
    return planTakingAway(sql, person, title, { ...placed, theirs });
  });
}
