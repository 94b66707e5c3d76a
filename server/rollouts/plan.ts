/** From approved versions and stations to exact file operations, through descriptors, renditions and the three-way view. */
import { must } from '@/core/must';
import { fileNameOf } from '@/core/paths';
import type { Accepts } from '@/core/editor/accepts';
import { editorKey, isBundlePlace, type Descriptor } from '@/core/editor/descriptor';
import { groupBy } from '@/core/lists';
import { acceptance, isUnusedAmong, thingOfVersion } from '@/core/editor/acceptance';
import { fileName } from '@/core/editor/file-name';
import { addLines, UNREADABLE } from '@/core/sync/index-lines';
import { knowsBundles } from '@/core/sync/protocol';
import { resolveTemplate } from '@/core/sync/place-templates';
import { decide, foldKey, isChangedThere } from '@/core/sync/three-way';
import { hex, putBlob } from '../blobs/service';
import type { Sql } from '../db/pool';
import { versionById } from '../items/queries';
import { renditionFor, type Looks } from '../renditions/service';
import {
  inventoryUnder,
  placementsOfItems,
  stationEditors,
  type CameraThere,
  type PlacementRow,
  type StationRow,
} from '../stations/queries';
import { isKeptByHand } from '../stations/by-hand';
import { camerasThere } from '../stations/cameras-there';
import { indexAt } from './index-at';
import { priorOf } from './placed-there';
import type { NewStep } from './queries';

type Step = NewStep;
export type Version = NonNullable<Awaited<ReturnType<typeof versionById>>>;

/** What lies at a station under the names that matter to a plan, by folded path. */
interface Lying {
  path: string;
  sha: string;
  /** Etagere looks after it already */ ours: boolean;
}
type Inventory = ReadonlyMap<string, Lying>;
type Rendition = Awaited<ReturnType<typeof renditionFor>>;

/** A plan being made: what was read on the way, and the steps so far. */
interface Planning {
  sql: Sql;
  steps: Step[];
  /** how many steps each agent has */ counters: Map<string, number>;
  /** by agent and folded path, so that one file for two editors is written once */ planned: Map<
    string,
    Map<string, Step>
  >;
  looks: Looks;
  /** folded paths where ours is to be written over what was changed there */ over: ReadonlySet<string>;
  /** by version and writer: the same for every station */ renditions: Map<string, Promise<Rendition>>;
  /** Called before each version at each editor. */ begin: (what: string) => Promise<void>;
}
/** One editor at one station. */
interface Target {
  station: StationRow;
  agent: StationRow;
  descriptor: Descriptor;
  inventory: Inventory;
  placed: readonly PlacementRow[];
  /** cameras that are used there; none where nobody has said */ cameras: readonly CameraThere[];
}

function nextNumber({ counters }: Planning, agentId: string): number {
  const number = counters.get(agentId) ?? 0;
  counters.set(agentId, number + 1);
  return number;
}

const emptyStep = ({ station, agent, descriptor }: Target, version: Version, n: number): Step => ({
  station_id: station.id,
  agent_station_id: agent.id,
  editor_id: descriptor.editor,
  editor_version: descriptor.version,
  place: '',
  version_id: version.id,
  rendition_id: null,
  n,
  do_what: 'none',
  path: '',
  sha: null,
  size: 0,
  expect: null,
  decision: 'not-accepted',
  note: '',
  prior: null,
  lines: null,
  list: null,
});

function plannedAt(planned: Planning['planned'], agentId: string): Map<string, Step> {
  const known = planned.get(agentId);
  if (known) return known;
  const none = new Map<string, Step>();
  planned.set(agentId, none);
  return none;
}

function renditionOf(
  planning: Planning,
  version: Version,
  descriptor: Descriptor,
  accepts: Accepts,
): Promise<Rendition> {
  const key = `${version.id} ${editorKey(descriptor)} ${descriptor.accepts.indexOf(accepts)}`;
  const known = planning.renditions.get(key);
  if (known) return known;
  const made = renditionFor(planning.sql, version, descriptor, accepts, planning.looks);
  planning.renditions.set(key, made);
  return made;
}

/** Whether a place that takes so many files has as many already, with those that are planned for it. */
function isFull(
  { planned }: Planning,
  { agent, inventory }: Target,
  folder: string,
  most: number | undefined,
): boolean {
  if (!most) return false;
  const inside = (path: string): boolean => path.startsWith(`${folder}/`);
  const lying = [...inventory.values()].filter(({ path }) => inside(path)).length;
  const coming = [...plannedAt(planned, agent.id).values()].filter(
    (step) => step.expect === null && inside(step.path),
  ).length;
  return lying + coming >= most;
}

/** Which of an editor's places takes a version, and how; or the reason why none does. */
function placeFor(
  { descriptor, agent }: Pick<Target, 'descriptor' | 'agent'>,
  version: Version,
): { accepts: Accepts; folder: string } | { reason: string } {
  const accepted = acceptance(descriptor, thingOfVersion(version));
  if ('reason' in accepted) return accepted;
  const { accepts } = accepted;
  const template = descriptor.places[accepts.place]?.[agent.system];
  if (!template) return { reason: `${descriptor.title} has no place for this on ${agent.system}` };
  if (isBundlePlace(descriptor, accepts.place) && isKeptByHand(agent))
    return {
      reason: `${descriptor.title} keeps it inside one file of its own, which only an agent writes, and none is at ${agent.name}`,
    };
  if (isBundlePlace(descriptor, accepts.place) && agent.agent_version && !knowsBundles(agent.agent_version))
    return {
      reason: `the agent of ${agent.name} is of version ${agent.agent_version}, which knows no bundles: put the newer one there`,
    };
  return { accepts, folder: resolveTemplate(template, agent.system) };
}

/** The part of a step that says what is to be written where, and whether; decided by the three-way view. */
async function decideStep(planning: Planning, target: Target, version: Version, step: Step): Promise<void> {
  const { descriptor, agent, inventory, placed } = target;
  const place = placeFor(target, version);
  if ('reason' in place) {
    step.note = place.reason;
    return;
  }
  const { accepts, folder } = place;
  if (isUnusedAmong(accepts, target.cameras, version.cameras)) {
    step.decision = 'camera-unused';
    step.note = `${version.cameras.join(', ')} is not used at ${target.station.name}: it is left out`;
    return;
  }
  const rendition = await renditionOf(planning, version, descriptor, accepts);
  const forms = placed.filter((one) => one.item_id === version.item_id && one.variant === version.variant);
  // a folder that two editors share has one file for both
  const before =
    forms.find((one) => one.editor_id === descriptor.editor && one.editor_version === descriptor.version) ??
    forms.find((one) => one.path.startsWith(`${folder}/`));
  const sha = hex(rendition.sha256);
  const planned = plannedAt(planning.planned, agent.id);
  const path =
    before?.path ?? lyingThere(target, folder, sha, planned) ?? freePath(folder, version, accepts, inventory, planned);
  Object.assign(step, { place: accepts.place, rendition_id: rendition.id, sha, size: rendition.size, path });
  const key = foldKey(path, agent.system);
  const shared = planned.get(key);
  if (shared) {
    settleShared(step, shared, descriptor);
    return;
  }
  step.expect = inventory.get(key)?.sha ?? null;
  step.decision = decide(before?.sha ?? null, sha, step.expect);
  settleOver(step, planning.over.has(key));
  settleLying(step, before);
  if (step.decision === 'put' && step.expect === null && isFull(planning, target, folder, accepts.most)) {
    step.decision = 'full';
    step.note = `${descriptor.title} takes at most ${accepts.most} files`;
    return;
  }
  if (step.decision === 'put') {
    step.do_what = 'put';
    if (before) step.prior = priorOf(before);
  } else step.note = notes[step.decision] ?? 'another file is there, or it was changed there: it is left as it is';
  planned.set(key, step);
}

/** A file that this plan writes into a folder which both editors read: it serves both where both take it in one form. */
function settleShared(step: Step, planned: Step, { title }: Descriptor): void {
  if (step.sha === planned.sha) {
    step.decision = 'in-step';
    step.note = 'the same file serves both editors';
    return;
  }
  step.decision = 'not-accepted';
  step.note = `another editor there reads the same folder, and ${title} takes it in another form: say in its descriptor what it takes there`;
}

/** Where the very file lies in the editor's folder already, under whatever name, and nobody looks after it. */
function lyingThere(
  { inventory }: Target,
  folder: string,
  sha: string,
  planned: ReadonlyMap<string, Step>,
): string | undefined {
  const isFree = (key: string, file: Lying): boolean =>
    file.sha === sha && !file.ours && file.path.startsWith(`${folder}/`) && !planned.has(key);
  return [...inventory].find(([key, file]) => isFree(key, file))?.[1].path;
}

/** Somebody has said that ours is to be put there again, over what was changed there or taken away. */
function settleOver(step: Step, over: boolean): void {
  if (!over || !isChangedThere(step.decision)) return;
  step.note =
    step.expect === null
      ? 'was taken away there, and is put there again'
      : 'over what was changed there, which is kept and comes back with an undo';
  step.decision = 'put';
}

/** The very file lies there: the agent writes nothing, and it is noted as what it is. */
function settleLying(step: Step, before: PlacementRow | undefined): void {
  if (step.decision !== 'in-step' || (before?.sha === step.sha && before.version_id === step.version_id)) return;
  step.decision = 'put';
  step.note = before
    ? 'lies there already: it is noted as this version, and not written again'
    : 'lies there already: it is looked after from now on, and not written again';
}

const notes: Record<string, string> = { 'in-step': 'is there already' };

async function planEditor(planning: Planning, target: Target, versions: readonly Version[]): Promise<void> {
  const { sql, steps, counters } = planning;
  const { descriptor, station, agent, inventory } = target;
  for (const version of versions) {
    await planning.begin(`${version.title} at ${station.name}`);
    const step = emptyStep(target, version, nextNumber(planning, agent.id));
    steps.push(step);
    await decideStep(planning, target, version, step);
  }
  for (const accepts of descriptor.accepts) {
    const index = await indexStep(sql, descriptor, accepts, station, agent, steps, inventory, counters);
    if (index) steps.push(index);
  }
}

/** Names that editors at their place may get are at most so much shorter than the usual one: a number takes room. */
const ROOM_FOR_NUMBER = 8;

/** Where a version would go at an editor: the folder, and how the names begin that matter there. */
function prefixesOf({ descriptor, agent, placed }: Target, version: Version): string[] {
  const accepted = acceptance(descriptor, thingOfVersion(version));
  if ('reason' in accepted) return [];
  const { accepts } = accepted;
  const template = descriptor.places[accepts.place]?.[agent.system];
  if (!template) return [];
  const folder = resolveTemplate(template, agent.system);
  const name = fileName(nameOf(version), accepts.extension, accepts.names ?? {});
  const stem = name.slice(0, Math.max(1, name.length - accepts.extension.length - ROOM_FOR_NUMBER));
  const index = accepts.index?.path[agent.system];
  return [
    // a place that takes so many files is counted whole
    accepts.most ? `${folder}/` : `${insideOf(folder, version, accepts)}/${stem}`,
    ...placed.filter((one) => one.item_id === version.item_id).map((one) => one.path),
    ...(index ? [resolveTemplate(index, agent.system)] : []),
  ];
}

/** The stations' editors, each with what lies there under the names that matter: a few statements, however many there are. */
async function targetsAt(
  sql: Sql,
  chosen: readonly StationRow[],
  all: readonly StationRow[],
  versions: readonly Version[],
): Promise<Target[]> {
  const byId = new Map(all.map((station) => [station.id, station]));
  const ids = chosen.map((station) => station.id);
  const editors = groupBy(await stationEditors(sql, ids), (editor) => editor.station_id);
  const items = versions.map((version) => version.item_id);
  const placed = groupBy(await placementsOfItems(sql, ids, items), (placement) => placement.station_id);
  const used = await camerasThere(sql, ids);
  const targets = chosen.flatMap((station) =>
    (editors.get(station.id) ?? []).map(({ descriptor }) => ({
      station,
      agent: must(byId.get(station.host_id ?? station.id)),
      descriptor,
      placed: placed.get(station.id) ?? [],
      cameras: used.get(station.id) ?? [],
    })),
  );
  const lying = await lyingAt(sql, targets, versions);
  return targets.map((target) => ({
    ...target,
    inventory: isKeptByHand(target.agent) ? putByHand(target) : (lying.get(target.agent.id) ?? new Map()),
  }));
}

type Sought = Omit<Target, 'inventory'>;

/** Where no agent tells what lies there, it is what people said that they have put there. */
const putByHand = ({ placed, agent }: Sought): Inventory =>
  new Map(placed.map(({ path, sha }) => [foldKey(path, agent.system), { path, sha, ours: true }]));

async function lyingAt(
  sql: Sql,
  targets: readonly Sought[],
  versions: readonly Version[],
): Promise<Map<string, Map<string, Lying>>> {
  const asked = new Map<string, { agent: StationRow; prefix: string }>();
  for (const target of targets)
    for (const version of versions)
      for (const prefix of prefixesOf({ ...target, inventory: new Map() }, version))
        asked.set(`${target.agent.id} ${prefix}`, { agent: target.agent, prefix });
  const list = [...asked.values()];
  const systems = new Map(targets.map(({ agent }) => [agent.id, agent.system]));
  const lying = new Map<string, Map<string, Lying>>();
  for (const { station_id, path, sha, ours } of await inventoryUnder(
    sql,
    list.map(({ agent }) => agent.id),
    list.map(({ prefix }) => prefix),
  )) {
    const files = lying.get(station_id) ?? new Map<string, Lying>();
    lying.set(station_id, files.set(foldKey(path, must(systems.get(station_id))), { path, sha, ours }));
  }
  return lying;
}

/**
 * Which versions go to which of the stations: an editor there has a place for them, and their camera is used. What lies
 * there, and may keep them out too, is found when the plan is worked out.
 */
export async function goingTo(
  sql: Sql,
  versions: readonly Version[],
  chosen: readonly StationRow[],
  all: readonly StationRow[],
): Promise<{ version: Version; station: StationRow }[]> {
  const byId = new Map(all.map((station) => [station.id, station]));
  const ids = chosen.map((station) => station.id);
  const editors = groupBy(await stationEditors(sql, ids), (editor) => editor.station_id);
  const used = await camerasThere(sql, ids);
  return chosen.flatMap((station) => {
    const agent = must(byId.get(station.host_id ?? station.id));
    const cameras = used.get(station.id) ?? [];
    const takes = (version: Version): boolean =>
      (editors.get(station.id) ?? []).some(({ descriptor }) => {
        const place = placeFor({ descriptor, agent }, version);
        return !('reason' in place) && !isUnusedAmong(place.accepts, cameras, version.cameras);
      });
    return versions.filter(takes).map((version) => ({ version, station }));
  });
}

/** So many stations are looked at in one go: memory does not grow with their number. */
const STATIONS_AT_ONCE = 100;

/**
 * Each version at each of the stations' editors, in the order in which the agents will write.
 * @param over paths where ours goes over what was changed there, as somebody said; where there are some, nothing else is planned
 * @param progress told the share that is done, 0…1, and what is worked on
 */
export async function planSteps(
  sql: Sql,
  versions: readonly Version[],
  chosen: readonly StationRow[],
  all: readonly StationRow[],
  over: readonly string[],
  progress: (share: number, what: string) => Promise<void>,
): Promise<NewStep[]> {
  let share = 0;
  const planning: Planning = {
    sql,
    steps: [],
    counters: new Map(),
    planned: new Map(),
    looks: new Map(),
    over: new Set(chosen.flatMap(({ system }) => over.map((path) => foldKey(path, system)))),
    renditions: new Map(),
    begin: (what) => progress(share, what),
  };
  for (let from = 0; from < chosen.length; from += STATIONS_AT_ONCE) {
    const some = chosen.slice(from, from + STATIONS_AT_ONCE);
    const targets = await targetsAt(sql, some, all, versions);
    for (const [n, target] of targets.entries()) {
      share = (from + (some.length * n) / targets.length) / chosen.length;
      await planEditor(planning, target, versions);
    }
  }
  if (!planning.over.size) return planning.steps;
  const systems = new Map(all.map(({ id, system }) => [id, system]));
  return planning.steps.filter((step) =>
    planning.over.has(foldKey(step.path, must(systems.get(step.agent_station_id)))),
  );
}

/** Where an editor loads only what its index names: the step that adds the lines of the files just planned. */
async function indexStep(
  sql: Sql,
  descriptor: Descriptor,
  accepts: Accepts,
  station: StationRow,
  agent: StationRow,
  steps: readonly Step[],
  inventory: ReadonlyMap<string, { path: string; sha: string }>,
  counters: Map<string, number>,
): Promise<Step | null> {
  const template = accepts.index?.path[agent.system];
  if (!template) return null;
  const path = resolveTemplate(template, agent.system);
  const names = steps
    .filter(
      (step) =>
        step.station_id === station.id &&
        step.editor_id === descriptor.editor &&
        step.editor_version === descriptor.version &&
        step.place === accepts.place &&
        (step.do_what === 'put' || step.decision === 'in-step'),
    )
    .map((s) => fileNameOf(s.path));
  if (!names.length) return null;
  const is = inventory.get(foldKey(path, agent.system))?.sha ?? null;
  const before = await indexAt(sql, agent.id, path, is);
  const next = counters.get(agent.id) ?? 0;
  const step: Step = {
    station_id: station.id,
    agent_station_id: agent.id,
    editor_id: descriptor.editor,
    editor_version: descriptor.version,
    place: accepts.place,
    version_id: null,
    rendition_id: null,
    n: next,
    do_what: 'none',
    path,
    sha: null,
    size: 0,
    expect: is,
    decision: 'conflict',
    note: `the list from which ${descriptor.title} loads ${UNREADABLE}: ${names.join(', ')} must be named there by hand`,
    prior: null,
    lines: null,
    list: null,
  };
  if (before === null) {
    counters.set(agent.id, next + 1);
    return step;
  }
  const { text, added } = addLines(before, names);
  if (!added.length) return null;
  const bytes = Buffer.from(text);
  counters.set(agent.id, next + 1);
  return {
    ...step,
    do_what: 'put',
    sha: hex(await putBlob(sql, bytes)),
    size: bytes.length,
    decision: 'put',
    note: `names ${added.join(', ')} in the list from which ${descriptor.title} loads`,
    lines: added,
  };
}

/** A file name that nothing else at the place has, in the folder of the item's headings where the editor shows folders. */
function freePath(
  folder: string,
  version: Version,
  accepts: Accepts,
  inventory: Inventory,
  planned: ReadonlyMap<string, Step>,
): string {
  const inside = `${insideOf(folder, version, accepts)}/`;
  const taken = new Set<string>();
  const take = (path: string): void => {
    if (path.startsWith(inside)) taken.add(path.slice(inside.length).toLowerCase());
  };
  for (const step of planned.values()) if (step.version_id !== version.id) take(step.path);
  for (const file of inventory.values()) take(file.path);
  return inside + fileName(nameOf(version), accepts.extension, accepts.names ?? {}, taken);
}

/** By its title; a variant bears what sets it apart too, so that forms of one design lie beside one another. */
const nameOf = ({ title, variant }: Version): string => (variant ? `${title} ${variant}` : title);

function insideOf(folder: string, version: Version, accepts: Accepts): string {
  const below: Record<Accepts['headings'], readonly string[]> = {
    folder: version.headings,
    camera: version.cameras.slice(0, 1),
    inside: [],
    none: [],
  };
  return [folder, ...below[accepts.headings].map((name) => fileName(name, ''))].join('/');
}
