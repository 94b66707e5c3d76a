/** From approved versions and stations to exact file operations, through descriptors, renditions and the three-way view. */
import { must } from '@/core/must';
import { fileNameOf } from '@/core/paths';
import type { Accepts, Descriptor } from '@/core/editor/descriptor';
import { acceptance } from '@/core/editor/acceptance';
import { fileName } from '@/core/editor/file-name';
import { addLines } from '@/core/sync/index-lines';
import { resolveTemplate } from '@/core/sync/place-templates';
import { decide, foldKey } from '@/core/sync/three-way';
import { hex, putBlob } from '../blobs/service';
import type { Sql } from '../db/pool';
import { versionById } from '../items/queries';
import { renditionFor, type Looks } from '../renditions/service';
import { indexText, inventoryOf, placements, stationEditors, type StationRow } from '../stations/queries';
import type { NewStep } from './queries';

type Step = NewStep;
export type Version = NonNullable<Awaited<ReturnType<typeof versionById>>>;

type Inventory = ReadonlyMap<string, { path: string; sha: string }>;

/** A plan being made: what was read on the way, and the steps so far. */
interface Planning {
  sql: Sql;
  steps: Step[];
  /** how many steps each agent has */ counters: Map<string, number>;
  /** by agent and path, so that one file for two editors is written once */ planned: Map<string, Step>;
  inventories: Map<string, Inventory>;
  looks: Looks;
  /** Called before each version at each editor. */ begin: (what: string) => Promise<void>;
}
/** One editor at one station. */
interface Target {
  station: StationRow;
  agent: StationRow;
  descriptor: Descriptor;
  inventory: Inventory;
  placed: Awaited<ReturnType<typeof placements>>;
}

async function inventoryAt({ sql, inventories }: Planning, agent: StationRow): Promise<Inventory> {
  const known = inventories.get(agent.id);
  if (known) return known;
  const files = await inventoryOf(sql, agent.id);
  const inventory = new Map(files.map(({ path, sha }) => [foldKey(path, agent.system), { path, sha }]));
  inventories.set(agent.id, inventory);
  return inventory;
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
});

/** What an undo puts back. */
const priorOf = (before: Target['placed'][number]): NonNullable<Step['prior']> => ({
  version_id: before.version_id,
  rendition_id: before.rendition_id,
  sha: before.sha,
  editor_id: before.editor_id,
  editor_version: before.editor_version,
  place: before.place,
});

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
  const coming = [...planned.values()].filter(
    (step) => step.agent_station_id === agent.id && step.expect === null && inside(step.path),
  ).length;
  return lying + coming >= most;
}

/** The part of a step that says what is to be written where, and whether; decided by the three-way view. */
async function decideStep(planning: Planning, target: Target, version: Version, step: Step): Promise<void> {
  const { descriptor, agent, inventory, placed } = target;
  const accepted = acceptance(descriptor, version);
  if ('reason' in accepted) {
    step.note = accepted.reason;
    return;
  }
  const { accepts } = accepted;
  const template = descriptor.places[accepts.place]?.[agent.system];
  if (!template) {
    step.note = `${descriptor.title} has no place for this on ${agent.system}`;
    return;
  }
  const rendition = await renditionFor(planning.sql, version, descriptor, accepts, planning.looks);
  const folder = resolveTemplate(template, agent.system);
  const before = placed.find(
    (one) =>
      one.item_id === version.item_id &&
      one.editor_id === descriptor.editor &&
      one.editor_version === descriptor.version,
  );
  const path = before?.path ?? freePath(folder, version, accepts, inventory, planning.planned, agent.id);
  const sha = hex(rendition.sha256);
  Object.assign(step, { place: accepts.place, rendition_id: rendition.id, sha, size: rendition.size, path });
  const key = `${agent.id} ${foldKey(path, agent.system)}`;
  if (planning.planned.has(key)) {
    step.decision = 'in-step';
    step.note = 'the same file serves both editors';
    return;
  }
  step.expect = inventory.get(foldKey(path, agent.system))?.sha ?? null;
  step.decision = decide(before?.sha ?? null, sha, step.expect);
  if (step.decision === 'put' && step.expect === null && isFull(planning, target, folder, accepts.most)) {
    step.decision = 'full';
    step.note = `${descriptor.title} takes at most ${accepts.most} files`;
    return;
  }
  if (step.decision === 'put') {
    step.do_what = 'put';
    if (before) step.prior = priorOf(before);
  } else step.note = notes[step.decision] ?? 'something else lies there, or it was changed there: it is left alone';
  planning.planned.set(key, step);
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

/** A station with all that is known of it. */
async function targetsAt(planning: Planning, station: StationRow, all: readonly StationRow[]): Promise<Target[]> {
  const { sql } = planning;
  const agent = must(all.find((one) => one.id === (station.host_id ?? station.id)));
  const inventory = await inventoryAt(planning, agent);
  const placed = await placements(sql, [station.id]);
  const editors = await stationEditors(sql, [station.id]);
  return editors.map(({ descriptor }) => ({ station, agent, descriptor, inventory, placed }));
}

/**
 * Each version at each of the stations' editors, in the order in which the agents will write.
 * @param progress told the share that is done, 0…1, and what is worked on
 */
export async function planSteps(
  sql: Sql,
  versions: readonly Version[],
  chosen: readonly StationRow[],
  all: readonly StationRow[],
  progress: (share: number, what: string) => Promise<void>,
): Promise<NewStep[]> {
  let begun = 0;
  let whole = 1;
  const planning: Planning = {
    sql,
    steps: [],
    counters: new Map(),
    planned: new Map(),
    inventories: new Map(),
    looks: new Map(),
    begin: (what) => progress(begun++ / whole, what),
  };
  const targets: Target[] = [];
  for (const station of chosen) targets.push(...(await targetsAt(planning, station, all)));
  whole = Math.max(1, targets.length * versions.length);
  for (const target of targets) await planEditor(planning, target, versions);
  return planning.steps;
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
  const before = await indexText(sql, agent.id, path);
  const { text, added } = addLines(before, names);
  if (!added.length) return null;
  const is = inventory.get(foldKey(path, agent.system))?.sha ?? null;
  const next = counters.get(agent.id) ?? 0;
  const bytes = Buffer.from(text);
  counters.set(agent.id, next + 1);
  return {
    station_id: station.id,
    agent_station_id: agent.id,
    editor_id: descriptor.editor,
    editor_version: descriptor.version,
    place: accepts.place,
    version_id: null,
    rendition_id: null,
    n: next,
    do_what: 'put',
    path,
    sha: hex(await putBlob(sql, bytes)),
    size: bytes.length,
    expect: is,
    decision: 'put',
    note: `names ${added.join(', ')} in the list from which ${descriptor.title} loads`,
    prior: null,
    lines: added,
  };
}

/** A file name that nothing else at the place has, in the folder of the item's headings where the editor shows folders. */
function freePath(
  folder: string,
  version: Version,
  accepts: Accepts,
  inventory: ReadonlyMap<string, { path: string; sha: string }>,
  planned: ReadonlyMap<string, Step>,
  agentId: string,
): string {
  const inside =
    accepts.headings === 'folder' && version.headings.length
      ? `${folder}/${version.headings.map((h) => fileName(h, '')).join('/')}`
      : folder;
  const taken = new Set<string>();
  for (const step of planned.values())
    if (step.agent_station_id === agentId && step.version_id !== version.id && step.path.startsWith(inside + '/'))
      taken.add(step.path.slice(inside.length + 1).toLowerCase());
  for (const file of inventory.values())
    if (file.path.startsWith(inside + '/')) taken.add(file.path.slice(inside.length + 1).toLowerCase());
  return `${inside}/${fileName(version.title, accepts.extension, accepts.names ?? {}, taken)}`;
}
