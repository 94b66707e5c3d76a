/** What a person sees of stations: the three-way view of each, and what its editors list. */
import { isTold, type Doubled } from '@/core/sync/agent-runs';
import { groupBy } from '@/core/lists';
import { must } from '@/core/must';
import { fileNameOf } from '@/core/paths';
import { Problem } from '@/core/problem';
import { resolveTemplate } from '@/core/sync/place-templates';
import { showsPaths } from '@/core/sync/protocol';
import { isChangedThere, merge } from '@/core/sync/three-way';
import { isUuid } from '@/core/uuid';
import { pool, type Sql } from '../db/pool';
import { allow, type Person } from '../people/roles';
import { isKeptByHand, lyingAt } from './by-hand';
import { placementState, takenAwayState, type PlacementState } from './placement-state';
import * as q from './queries';

/** Of a file that is not ours: what the editor says of it. */
function theirState(refused: boolean, listed: boolean): string {
  if (refused) return 'refused';
  return listed ? 'listed' : '';
}

/** That two agents have one token, where there was a sign of it lately. */
export const twoAgentsAt = ({ doubled }: Pick<q.StationRow, 'doubled'>): Doubled | null =>
  isTold(doubled, new Date()) ? doubled : null;

export interface EditorState {
  editor: string;
  version: string;
  title: string;
  sees: 'launch' | 'rescan';
  running: boolean;
  listed: number;
  refused: { path: string; reason: string }[];
  placed: number;
  state:
    | 'in-step'
    | 'restart-due'
    | 'launch-due'
    | 'rescan-due'
    | 'import-due'
    | 'update-due'
    | 'surplus'
    | 'refused'
    | 'not-listed'
    | 'changed'
    | 'conflict'
    | 'empty';
  waiting: number;
  /** so many lie in its hand-off folder, until a person has it take them in */ importing: number;
  /** so many of ours have a newer approved version */ updates: number;
  changed: number;
  listedAt: string | null;
}
/** Another editor that reads the folder in which a file lies. */
export interface AlsoRead {
  editor: string;
  /** '' where it says nothing of the file */ state: string;
  reason: string;
}
export interface PlaceRow {
  path: string;
  editor: string;
  place: string;
  title: string | null;
  itemId: string | null;
  number: number | null;
  base: string | null;
  is: string | null;
  decision: string;
  /** ours, and somebody there has changed it or taken it away */ changed: boolean;
  state: string;
  reason: string;
  /** what other editors there made of it, that read the same folder */ also: AlsoRead[];
  /** its editor can be asked for a picture with it on */ asksForPictures: boolean;
  points: number | null;
  residual: { maxDeltaE: number; meanDeltaE: number } | null;
}
export interface StationView {
  station: q.StationRow;
  /** the one whose agent looks after it: of a card, that of its reader */ agent: q.StationRow;
  /** whether an agent is there that shows files in the file manager */ showsPaths: boolean;
  host: string | null;
  editors: EditorState[];
  rows: PlaceRow[];
  /** its agent has not reported for a day */ silent: boolean;
}

/** Tells lists that an editor keeps itself from the files among which they lie. */
function ownLists(editors: readonly q.StationEditorRow[], system: q.StationRow['system']): (path: string) => boolean {
  const names = editors.flatMap(({ descriptor }) => descriptor.favorites?.eachFolder ?? []);
  const lists = editors.flatMap(({ descriptor: { favorites, opening } }) => [
    favorites?.list?.[system] ?? '',
    opening?.list[system] ?? '',
  ]);
  const paths = new Set(lists.map((template) => resolveTemplate(template, system)));
  return (path) => paths.has(path) || names.includes(fileNameOf(path));
}

type Merged = ReturnType<typeof merge>[number];

/** An editor that reads a folder at a station, with "/" at its end, and which of its places that is. */
interface Reader {
  editor: q.StationEditorRow;
  place: string;
  folder: string;
}

const foldersOf = (editors: readonly q.StationEditorRow[], system: q.StationRow['system']): Reader[] =>
  editors.flatMap((editor) =>
    Object.entries(editor.descriptor.places).flatMap(([place, templates]) => {
      const template = templates[system];
      return template ? [{ editor, place, folder: `${resolveTemplate(template, system)}/` }] : [];
    }),
  );

/** What a station has of ours, and what lies in its editors' folders. */
interface Here {
  editors: readonly q.StationEditorRow[];
  folders: readonly Reader[];
  placements: ReadonlyMap<string, q.PlacementRow>;
  /** no agent tells what lies there, nor what the editors list */ byHand: boolean;
}

/** Other editors that read a file, once each; of ours, those that take such a thing where it lies. */
function othersAmong(
  readers: readonly Reader[],
  own: q.StationEditorRow | undefined,
  placement: q.PlacementRow | undefined,
): Reader[] {
  const takesIt = ({ editor, place }: Reader): boolean =>
    !placement || editor.descriptor.accepts.some((one) => one.place === place && one.kind === placement.kind);
  const others = new Map(
    readers.filter((reader) => reader.editor !== own && takesIt(reader)).map((reader) => [reader.editor, reader]),
  );
  return [...others.values()];
}

/** Whose a file is: of the editor for which it was put there; of the first that reads its folder, where that one is gone. */
function editorsOf({ editors, folders }: Here, path: string, placement: q.PlacementRow | undefined) {
  const readers = folders.filter(({ folder }) => path.startsWith(folder));
  const own =
    placement &&
    editors.find((one) => one.editor_id === placement.editor_id && one.editor_version === placement.editor_version);
  const editor = own ?? readers[0]?.editor;
  return {
    editor,
    place: placement?.place ?? readers[0]?.place ?? '',
    others: othersAmong(readers, editor, placement),
  };
}

/** What the editor made of a placement; null for one that is not in step, and for an index of ours, which lists others. */
function stateOfPlacement(
  placement: q.PlacementRow | undefined,
  editor: q.StationEditorRow | undefined,
  decision: string,
  byHand: boolean,
): { state: PlacementState['state'] | 'update-due' | 'surplus' | 'by-hand'; reason: string } | null {
  if (!placement?.version_id || !editor || decision !== 'in-step') return null;
  const made = byHand
    ? {
        state: 'by-hand' as const,
        reason: `no agent is there, which would tell whether ${editor.descriptor.title} lists it`,
      }
    : placementState(editor, placement);
  const { newer, number, withdrawn } = placement;
  if (newer === null && withdrawn) return { state: 'surplus', reason: `${withdrawn}, and it lies here still` };
  if (newer === null || made.state === 'refused' || made.state === 'not-listed') return made;
  // what waits for its editor is written anew before that matters
  const waits = made.state === 'listed' || made.state === 'by-hand' ? '' : `; ${made.reason}`;
  return { state: 'update-due', reason: `version ${newer} is approved; version ${number} lies here${waits}` };
}

/** Facts of a placement; nothing of them for a file that is not ours. */
const placedFacts = (placement: q.PlacementRow | undefined) => ({
  itemId: placement?.item_id ?? null,
  number: placement?.number ?? null,
  points: placement?.points ?? null,
  residual: placement?.residual ?? null,
});

/** What an editor lists at a path, or refuses there. */
function listedAt(editor: q.StationEditorRow | undefined, path: string) {
  return {
    listed: editor?.listing?.listed.find((one) => one.path === path),
    refused: editor?.listing?.refused.find((one) => one.path === path),
  };
}

const makesPictures = (editor: q.StationEditorRow | undefined, placement: q.PlacementRow | undefined): boolean =>
  editor?.descriptor.renders?.kinds.some((kind) => kind === placement?.kind) ?? false;

/** What another editor that reads the folder says of a file there. */
function alsoRead({ editor, place }: Reader, path: string, decision: string, placement?: q.PlacementRow): AlsoRead {
  const { title } = editor.descriptor;
  if (placement?.version_id && decision === 'in-step')
    return { editor: title, ...placementState(editor, { ...placement, place }) };
  const { listed, refused } = listedAt(editor, path);
  return { editor: title, state: theirState(!!refused, !!listed), reason: refused?.reason ?? '' };
}

function placeRow(here: Here, { path, base, is, decision }: Merged): PlaceRow {
  const placement = here.placements.get(path);
  const { editor, place, others } = editorsOf(here, path, placement);
  const placed = stateOfPlacement(placement, editor, decision, here.byHand);
  const { listed, refused } = listedAt(editor, path);
  const otherwise = decision === 'theirs' ? theirState(!!refused, !!listed) : decision;
  return {
    path,
    editor: editor?.descriptor.title ?? '',
    place,
    title: placement?.title ?? listed?.title ?? null,
    base,
    is,
    decision,
    changed: !!placement?.item_id && isChangedThere(decision),
    state: placed?.state ?? otherwise,
    reason: placed?.reason ?? refused?.reason ?? '',
    also: here.byHand ? [] : others.map((reader) => alsoRead(reader, path, decision, placement)),
    asksForPictures: makesPictures(editor, placement),
    ...placedFacts(placement),
  };
}

/** A file that is gone and still listed. */
function goneRow({ descriptor, running, listing }: q.StationEditorRow, path: string): PlaceRow {
  return {
    path,
    editor: descriptor.title,
    place: '',
    title: listing?.listed.find((one) => one.path === path)?.title ?? null,
    base: null,
    is: null,
    decision: 'taken-away',
    changed: false,
    also: [],
    asksForPictures: false,
    ...takenAwayState(descriptor, running),
    ...placedFacts(undefined),
  };
}

/** Its rows as an editor sees them: its own, and those of others that lie in a folder which it reads too. */
const seenBy = (title: string, rows: readonly PlaceRow[]): PlaceRow[] =>
  rows.flatMap((row) => {
    if (row.editor === title) return [row];
    const also = row.also.find((one) => one.editor === title);
    return also ? [{ ...row, ...also }] : [];
  });

function editorState(editor: q.StationEditorRow, rows: readonly PlaceRow[]): EditorState {
  const { descriptor, listing } = editor;
  const own = seenBy(descriptor.title, rows);
  const ours = own.filter((row) => row.base && row.itemId);
  const told = [...ours, ...own.filter((row) => row.decision === 'taken-away')];
  const count = (state: string): number => told.filter((row) => row.state === state).length;
  const changed = ours.filter((row) => row.decision !== 'in-step').length;
  const usual = ours.length ? 'in-step' : 'empty';
  const gravest =
    (
      [
        'refused',
        'not-listed',
        'restart-due',
        'import-due',
        'launch-due',
        'rescan-due',
        'update-due',
        'surplus',
      ] as const
    ).find(count) ?? usual;
  return {
    editor: editor.editor_id,
    version: editor.editor_version,
    title: descriptor.title,
    sees: descriptor.sees,
    running: editor.running,
    listed: listing?.listed.length ?? 0,
    refused: listing?.refused ?? [],
    placed: ours.length,
    state: changed ? 'changed' : gravest,
    importing: count('import-due'),
    updates: count('update-due'),
    waiting: count('restart-due') + count('launch-due') + count('rescan-due') + count('import-due'),
    changed,
    listedAt: editor.listed_at?.toISOString() ?? null,
  };
}

/** A station that has not reported for so long is silent. */
const SILENT_MS = 24 * 3600e3;

type Lying = readonly { path: string; sha: string }[];

/** @param lying what lies in its editors' folders and where something of ours was put */
function viewOf(
  station: q.StationRow,
  agent: q.StationRow,
  editors: readonly q.StationEditorRow[],
  placements: readonly q.PlacementRow[],
  lying: Lying,
  still: readonly q.StillListed[],
): StationView {
  const base = new Map(placements.map(({ path, sha }) => [path, sha]));
  const here: Here = {
    editors,
    folders: foldersOf(editors, station.system),
    placements: new Map(placements.map((one) => [one.path, one])),
    byHand: isKeptByHand(agent),
  };
  const is = new Map(lyingAt(agent, lying, placements).map(({ path, sha }) => [path, sha]));
  const gone = still.flatMap(({ editor_id, editor_version, path }) => {
    const editor = editors.find((one) => one.editor_id === editor_id && one.editor_version === editor_version);
    return editor && !is.has(path) && !base.has(path) ? [goneRow(editor, path)] : [];
  });
  const rows = [...merge(base, base, is, station.system).map((merged) => placeRow(here, merged)), ...gone];
  const last = agent.last_report_at?.getTime() ?? 0;
  return {
    station: { ...station, last_report_at: agent.last_report_at, enrolled: agent.enrolled },
    agent,
    showsPaths: agent.enrolled && showsPaths(agent.agent_version),
    host: station.host_id ? agent.name : null,
    editors: editors.map((editor) => editorState(editor, rows)),
    rows,
    // one that never had an agent has nothing to say
    silent: last > 0 && Date.now() - last > SILENT_MS,
  };
}

/** Views of stations by what was placed there alone: other files are not looked at, however many there are. */
export async function viewsOf(sql: Sql, stations: readonly q.StationRow[]): Promise<StationView[]> {
  const ids = stations.map((station) => station.id);
  const hosts = await q.stationsByIds(
    sql,
    stations.flatMap((station) => station.host_id ?? []),
  );
  const byId = new Map([...hosts, ...stations].map((station) => [station.id, station]));
  const [editors, placements, lying, still] = await Promise.all([
    q.stationEditors(sql, ids),
    q.placements(sql, ids),
    q.lyingWherePlaced(sql, ids),
    q.stillListed(sql, ids),
  ]);
  const editorsAt = groupBy(editors, (one) => one.station_id);
  const placedAt = groupBy(placements, (one) => one.station_id);
  const lyingAt = groupBy(lying, (one) => one.station_id);
  const stillAt = groupBy(still, (one) => one.station_id);
  return stations.map((station) =>
    viewOf(
      station,
      must(byId.get(station.host_id ?? station.id)),
      editorsAt.get(station.id) ?? [],
      placedAt.get(station.id) ?? [],
      lyingAt.get(station.id) ?? [],
      stillAt.get(station.id) ?? [],
    ),
  );
}

/** These stations, as far as something of ours is there. */
export async function stationViews(person: Person, ids: readonly string[]): Promise<StationView[]> {
  allow(person, 'view');
  return viewsOf(pool(), await q.stationsByIds(pool(), ids));
}

/** Stations that are not used any more, the latest first. */
export async function retiredStations(person: Person): Promise<{ id: string; name: string }[]> {
  allow(person, 'view');
  return (await q.retiredStations(pool())).map(({ id, name }) => ({ id, name }));
}

/** Every station with the titles of its editors, for a choice among them. */
export async function stationChoices(person: Person): Promise<q.StationChoice[]> {
  allow(person, 'view');
  return q.stationChoices(pool());
}

/** A station by what an address says. */
export async function stationFor(person: Person, id: string): Promise<q.StationRow> {
  allow(person, 'view');
  const station = isUuid(id) ? await q.stationById(pool(), id) : undefined;
  if (!station) throw new Problem('not-found', 'There is no such station.', id, 'Go back to Stations.');
  return station;
}

/** One station with all that lies in its editors' folders. */
export async function stationView(person: Person, id: string): Promise<StationView> {
  const station = await stationFor(person, id);
  const sql = pool();
  const agent = station.host_id ? must(await q.stationById(sql, station.host_id)) : station;
  const editors = await q.stationEditors(sql, [id]);
  const placements = await q.placements(sql, [id]);
  const ours = new Set(placements.map(({ path }) => path));
  const folders = foldersOf(editors, station.system);
  const isOwnList = ownLists(editors, agent.system);
  const lying = (await q.inventoryOf(sql, agent.id)).filter(
    ({ path }) => ours.has(path) || (folders.some(({ folder }) => path.startsWith(folder)) && !isOwnList(path)),
  );
  return viewOf(station, agent, editors, placements, lying, await q.stillListed(sql, [id]));
}
