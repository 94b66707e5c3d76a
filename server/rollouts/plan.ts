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
import type { StepRow } from './queries';

type Step = Omit<
  StepRow,
  'id' | 'station' | 'outcome' | 'message' | 'before' | 'title' | 'item_id' | 'number' | 'points' | 'residual'
>;
type Version = NonNullable<Awaited<ReturnType<typeof versionById>>>;

export async function planSteps(
  sql: Sql,
  versions: Version[],
  chosen: StationRow[],
  all: StationRow[],
): Promise<Step[]> {
  const steps: Step[] = [];
  const counters = new Map<string, number>();
  const planned = new Map<string, Step>();
  const inventories = new Map<string, Map<string, { path: string; sha: string }>>();
  const looks: Looks = new Map();
  for (const station of chosen) {
    const agentId = station.host_id ?? station.id;
    const agent = must(all.find((s) => s.id === agentId));
    let inventory = inventories.get(agentId);
    if (!inventory)
      inventories.set(
        agentId,
        (inventory = new Map(
          (await inventoryOf(sql, agentId)).map((f) => [foldKey(f.path, agent.system), { path: f.path, sha: f.sha }]),
        )),
      );
    const placed = await placements(sql, [station.id]);
    for (const stationEditor of await stationEditors(sql, [station.id])) {
      const descriptor = stationEditor.descriptor;
      for (const version of versions) {
        const n = counters.get(agentId) ?? 0;
        counters.set(agentId, n + 1);
        const step: Step = {
          station_id: station.id,
          agent_station_id: agentId,
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
        };
        steps.push(step);
        const a = acceptance(descriptor, version);
        if ('reason' in a) {
          step.note = a.reason;
          continue;
        }
        const template = descriptor.places[a.accepts.place]?.[agent.system];
        if (!template) {
          step.note = `${descriptor.title} has no place for this on ${agent.system}`;
          continue;
        }
        const rendition = await renditionFor(sql, version, descriptor, a.accepts, looks);
        const folder = resolveTemplate(template, agent.system);
        step.place = a.accepts.place;
        step.rendition_id = rendition.id;
        step.sha = hex(rendition.sha256);
        step.size = rendition.size;
        const before = placed.find(
          (p) =>
            p.item_id === version.item_id &&
            p.editor_id === descriptor.editor &&
            p.editor_version === descriptor.version,
        );
        step.path = before?.path ?? freePath(folder, version, a.accepts, inventory, planned, agentId);
        const key = `${agentId} ${foldKey(step.path, agent.system)}`;
        const twin = planned.get(key);
        if (twin) {
          step.decision = 'in-step';
          step.note = 'the same file serves both editors';
          continue;
        }
        const is = inventory.get(foldKey(step.path, agent.system))?.sha ?? null;
        const base = before?.sha ?? null;
        const decision = decide(base, step.sha, is);
        step.decision = decision;
        step.expect = is;
        if (decision === 'put') {
          const there =
            [...inventory.values()].filter((f) => f.path.startsWith(folder + '/')).length +
            [...planned.values()].filter(
              (p) => p.agent_station_id === agentId && p.path.startsWith(folder + '/') && p.expect === null,
            ).length;
          if (a.accepts.most && is === null && there >= a.accepts.most) {
            step.decision = 'full';
            step.note = `${descriptor.title} takes at most ${a.accepts.most} files`;
            continue;
          }
          step.do_what = 'put';
          if (before)
            step.prior = {
              version_id: before.version_id,
              rendition_id: before.rendition_id,
              sha: before.sha,
              editor_id: before.editor_id,
              editor_version: before.editor_version,
              place: before.place,
            };
        } else
          step.note =
            decision === 'in-step'
              ? 'is there already'
              : 'something else lies there, or it was changed there: it is left alone';
        planned.set(key, step);
      }
      for (const accepts of descriptor.accepts) {
        const index = await indexStep(sql, descriptor, accepts, station, agent, steps, inventory, counters);
        if (index) steps.push(index);
      }
    }
  }
  return steps;
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
  const n = counters.get(agent.id) ?? 0;
  const bytes = Buffer.from(text);
  counters.set(agent.id, n + 1);
  return {
    station_id: station.id,
    agent_station_id: agent.id,
    editor_id: descriptor.editor,
    editor_version: descriptor.version,
    place: accepts.place,
    version_id: null,
    rendition_id: null,
    n,
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
  for (const f of inventory.values())
    if (f.path.startsWith(inside + '/')) taken.add(f.path.slice(inside.length + 1).toLowerCase());
  return `${inside}/${fileName(version.title, accepts.extension, accepts.names ?? {}, taken)}`;
}
