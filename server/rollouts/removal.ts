/**
 * Takes files of ours away from a station: an operation like any other, planned, looked at, confirmed, and undone. It says
 * which other editors there read the same file, since they lose it too.
 */
import type { BodyOf } from '@/core/api';
import { rolloutEndpoints } from '@/core/api/rollouts';
import { stationEndpoints } from '@/core/api/stations';
import { editorKey } from '@/core/editor/descriptor';
import { distinct, groupBy } from '@/core/lists';
import { must } from '@/core/must';
import { fileNameOf } from '@/core/paths';
import { Problem } from '@/core/problem';
import { removeLines, UNREADABLE } from '@/core/sync/index-lines';
import { placeOfPath, resolveTemplate } from '@/core/sync/place-templates';
import { counted } from '@/core/words';
import { v7 } from 'uuid';
import { record } from '../activity/queries';
import { hex, putBlob } from '../blobs/service';
import { transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import { importSteps } from '../stations/placement-state';
import * as stations from '../stations/queries';
import { indexAt } from './index-at';
import { placedAt, priorOf, type PlacedThere } from './placed-there';
import * as q from './queries';

/** What lies there, and who reads it. */
export interface There {
  station: stations.StationRow;
  agentId: string;
  /** the editors of the workstation and of the cards in its reader, with the station that each is at */
  editors: readonly stations.StationEditorRow[];
  shaOf: ReadonlyMap<string, string>;
}

export async function lookThere(sql: Sql, station: stations.StationRow, paths: readonly string[]): Promise<There> {
  const agentId = station.host_id ?? station.id;
  const family = (await stations.stations(sql)).filter(({ id, host_id }) => id === agentId || host_id === agentId);
  const editors = await stations.stationEditors(
    sql,
    family.map(({ id }) => id),
  );
  const lying = await stations.lyingAtPaths(sql, agentId, paths);
  return { station, agentId, editors, shaOf: new Map(lying.map(({ path, sha256 }) => [path, hex(sha256)])) };
}

/** The editors beside its own that read the file, by title. */
function alsoReadBy({ editors, station }: There, placement: stations.PlacementRow): string[] {
  const own = `${placement.editor_id}@${placement.editor_version}`;
  const others = editors.filter(
    ({ descriptor }) =>
      editorKey(descriptor) !== own && placeOfPath(descriptor.places, station.system, placement.path) !== null,
  );
  return distinct(others.map(({ descriptor }) => descriptor.title));
}

/** What an editor took in from its hand-off folder stays with it. */
function ownCopy({ editors }: There, placement: stations.PlacementRow): string {
  const own = editors.find(
    ({ editor_id, editor_version }) => editor_id === placement.editor_id && editor_version === placement.editor_version,
  );
  if (!own || !importSteps(own.descriptor, placement)) return '';
  return `${own.descriptor.title} keeps what it took in: take it out there too`;
}

/** What is done about one file; what was changed there is left as it is. */
function removing(there: There, placement: stations.PlacementRow, n: number): q.NewStep {
  const is = there.shaOf.get(placement.path) ?? null;
  const others = alsoReadBy(there, placement);
  const step = {
    station_id: there.station.id,
    agent_station_id: there.agentId,
    editor_id: placement.editor_id,
    editor_version: placement.editor_version,
    place: placement.place,
    version_id: placement.version_id,
    rendition_id: null,
    n,
    path: placement.path,
    sha: null,
    size: 0,
    expect: is,
    lines: null,
    list: null,
  };
  if (is === placement.sha)
    return {
      ...step,
      do_what: 'remove',
      decision: 'remove',
      note: [
        others.length ? `${others.join(' and ')} there ${others.length === 1 ? 'reads' : 'read'} it too` : '',
        ownCopy(there, placement),
      ]
        .filter(Boolean)
        .join('; '),
      prior: priorOf(placement),
    };
  return {
    ...step,
    do_what: 'none',
    decision: is === null ? 'gone-there' : 'changed-there',
    note: is === null ? 'is gone there already' : 'was changed there: say first what becomes of that',
    prior: null,
  };
}

/** The list of files from which an editor loads, without those that go; null where it names none of them. */
async function withoutLines(
  sql: Sql,
  there: There,
  editor: stations.StationEditorRow,
  gone: readonly q.NewStep[],
  n: number,
): Promise<q.NewStep | null> {
  const { descriptor } = editor;
  const [first] = gone;
  const accepts = descriptor.accepts.find(({ place, index }) => place === first?.place && index);
  const template = accepts?.index?.path[there.station.system];
  if (!first || !template) return null;
  const path = resolveTemplate(template, there.station.system);
  const [lying] = await stations.lyingAtPaths(sql, there.agentId, [path]);
  const is = lying ? hex(lying.sha256) : null;
  const before = await indexAt(sql, there.agentId, path, is);
  const names = gone.map((step) => fileNameOf(step.path));
  const step: q.NewStep = { ...first, version_id: null, n, path, expect: is };
  if (before === null)
    return {
      ...step,
      do_what: 'none',
      sha: null,
      size: 0,
      decision: 'conflict',
      note: `the list from which ${descriptor.title} loads ${UNREADABLE}: ${names.join(', ')} must be taken out there by hand`,
      prior: null,
    };
  const text = removeLines(before, names);
  if (text === before) return null;
  const bytes = Buffer.from(text);
  const placed = (await stations.placements(sql, [there.station.id])).find((one) => one.path === path);
  return {
    ...step,
    do_what: 'put',
    sha: hex(await putBlob(sql, bytes)),
    size: bytes.length,
    decision: 'put',
    note: `names them no longer in the list from which ${descriptor.title} loads`,
    prior: placed ? priorOf(placed) : null,
  };
}

/** A file that Etagere did not put there: the agent keeps what it held, and an undo brings it back. */
function removingTheirs(there: There, { path, editor, place, sha }: Theirs, n: number): q.NewStep {
  return {
    station_id: there.station.id,
    agent_station_id: there.agentId,
    editor_id: editor.editor_id,
    editor_version: editor.editor_version,
    place,
    version_id: null,
    rendition_id: null,
    n,
    path,
    sha: null,
    size: 0,
    expect: sha,
    lines: null,
    list: null,
    do_what: 'remove',
    decision: 'remove',
    note: 'is theirs, and the same as a file of ours',
    prior: null,
  };
}

/** A file of theirs that is to go, and where it lies. */
export interface Theirs {
  path: string;
  editor: stations.StationEditorRow;
  place: string;
  sha: string;
}

/**
 * The files first, then the lists that name them.
 * @param from the number of the first step: those of one agent are numbered through
 */
async function removalSteps(
  sql: Sql,
  there: There,
  placements: readonly stations.PlacementRow[],
  theirs: readonly Theirs[],
  from = 0,
): Promise<q.NewStep[]> {
  const steps = [
    ...placements.map((placement, n) => removing(there, placement, from + n)),
    ...theirs.map((file, n) => removingTheirs(there, file, from + placements.length + n)),
  ];
  const going = steps.filter(({ do_what }) => do_what === 'remove');
  for (const [, gone] of groupBy(going, (step) => `${step.editor_id}@${step.editor_version} ${step.place}`)) {
    const { editor_id, editor_version } = must(gone[0]);
    const editor = there.editors.find(
      (one) =>
        one.station_id === there.station.id && one.editor_id === editor_id && one.editor_version === editor_version,
    );
    const index = editor && (await withoutLines(sql, there, editor, gone, from + steps.length));
    if (index) steps.push(index);
  }
  return steps;
}

/** Plans that these files are taken away there. Throws where none of them lies there as it was told. */
export async function planTakingAway(
  sql: Sql,
  person: Person,
  title: string,
  { station, placements, theirs }: PlacedThere & { theirs: readonly Theirs[] },
): Promise<{ rollout: string }> {
  const there = await lookThere(
    sql,
    station,
    placements.map(({ path }) => path),
  );
  const steps = await removalSteps(sql, there, placements, theirs);
  if (!steps.some(({ do_what }) => do_what === 'remove'))
    throw new Problem(
      'removal-nothing',
      'None of these files lies there as Etagere put it.',
      station.name,
      'Reload the page, and say what becomes of what was changed there.',
    );
  return writeDown(sql, person, title, steps);
}

async function writeDown(
  sql: Sql,
  person: Person,
  title: string,
  steps: readonly q.NewStep[],
): Promise<{ rollout: string }> {
  const id = v7();
  await q.insertRollout(sql, { id, title, personId: person.id, undoes: null, status: 'planning' });
  await q.insertSteps(sql, id, [...steps]);
  await q.setRollout(sql, id, 'planned');
  await record(sql, actorOf(person), 'rollout', id, 'planned', null, { title, steps: steps.length });
  return { rollout: id };
}

/** Plans that files of ours are taken away there. */
export async function planRemoval(
  person: Person,
  stationId: string,
  input: BodyOf<'POST /api/stations/:id/removal'>,
): Promise<{ rollout: string }> {
  allow(person, 'rollout.plan');
  const { paths } = checked(stationEndpoints['POST /api/stations/:id/removal'].body, input);
  return transaction(async (sql) => {
    const placed = await placedAt(sql, stationId, distinct(paths));
    const title = `Take ${counted(placed.placements.length, 'file')} away at ${placed.station.name}`;
    return planTakingAway(sql, person, title, { ...placed, theirs: [] });
  });
}

/** Plans that these items go from every station that has them: a pack, or what is chosen on the shelves, as one. */
export async function planRemovalOfItems(
  person: Person,
  input: BodyOf<'POST /api/rollouts/removal'>,
): Promise<{ rollout: string }> {
  allow(person, 'rollout.plan');
  const { items, title } = checked(rolloutEndpoints['POST /api/rollouts/removal'].body, input);
  return transaction(async (sql) => {
    const used = (await stations.stations(sql)).filter((station) => station.retired_at === null);
    const ids = used.map(({ id }) => id);
    const placed = groupBy(await stations.placementsOfItems(sql, ids, items), (row) => row.station_id);
    const steps: q.NewStep[] = [];
    for (const station of used) {
      const placements = placed.get(station.id) ?? [];
      if (!placements.length) continue;
      const there = await lookThere(
        sql,
        station,
        placements.map(({ path }) => path),
      );
      const from = steps.filter((step) => step.agent_station_id === there.agentId).length;
      steps.push(...(await removalSteps(sql, there, placements, [], from)));
    }
    if (!steps.some(({ do_what }) => do_what === 'remove'))
      throw new Problem(
        'removal-nothing',
        steps.length
          ? 'None of this lies anywhere as Etagere put it.'
          : 'None of this lies at any station that is in use.',
        'items',
        steps.length ? 'Say first, at the stations, what becomes of what was changed there.' : 'Nothing is to be done.',
      );
    return writeDown(sql, person, title || `Take ${counted(items.length, 'item')} away`, steps);
  });
}
