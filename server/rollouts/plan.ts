/** From approved versions and stations to exact file operations, through descriptors, renditions and the three-way view. */
import type { Accepts, Descriptor } from '@/core/editor/descriptor';
import { acceptance } from '@/core/editor/acceptance';
import { fileName } from '@/core/editor/file-name';
import { addLines } from '@/core/sync/index-lines';
import { resolveTemplate } from '@/core/sync/places';
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
    const agent = all.find((s) => s.id === agentId)!;
    let inventory = inventories.get(agentId);
    if (!inventory)
      inventories.set(
        agentId,
        (inventory = new Map(
          (await inventoryOf(sql, agentId)).map((f) => [foldKey(f.path, agent.system), { path: f.path, sha: f.sha }]),
        )),
      );
    const placed = await placements(sql, [station.id]);
    for (const e of await stationEditors(sql, [station.id])) {
      const d = e.descriptor;
      for (const v of versions) {
        const n = counters.get(agentId) ?? 0;
        counters.set(agentId, n + 1);
        const step: Step = {
          station_id: station.id,
          agent_station_id: agentId,
          editor_id: d.editor,
          editor_version: d.version,
          place: '',
          version_id: v.id,
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
        const a = acceptance(d, v);
        if ('reason' in a) {
          step.note = a.reason;
          continue;
        }
        const template = d.places[a.accepts.place]?.[agent.system];
        if (!template) {
          step.note = `${d.title} has no place for this on ${agent.system}`;
          continue;
        }
        const r = await renditionFor(sql, v, d, a.accepts, looks);
        const folder = resolveTemplate(template, agent.system);
        step.place = a.accepts.place;
        step.rendition_id = r.id;
        step.sha = hex(r.sha256);
        step.size = r.size;
        const before = placed.find(
          (p) => p.item_id === v.item_id && p.editor_id === d.editor && p.editor_version === d.version,
        );
        step.path = before?.path ?? freePath(folder, v, a.accepts, inventory, planned, agentId);
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
            step.note = `${d.title} takes at most ${a.accepts.most} files`;
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
      for (const a of d.accepts) {
        const index = await indexStep(sql, d, a, station, agent, steps, inventory, counters);
        if (index) steps.push(index);
      }
    }
  }
  return steps;
}

/** Where an editor loads only what its index names: the step that adds the lines of the files just planned. */
async function indexStep(
  sql: Sql,
  d: Descriptor,
  a: Accepts,
  station: StationRow,
  agent: StationRow,
  steps: readonly Step[],
  inventory: ReadonlyMap<string, { path: string; sha: string }>,
  counters: Map<string, number>,
): Promise<Step | null> {
  const template = a.index?.path[agent.system];
  if (!template) return null;
  const path = resolveTemplate(template, agent.system);
  const names = steps
    .filter(
      (s) =>
        s.station_id === station.id &&
        s.editor_id === d.editor &&
        s.editor_version === d.version &&
        s.place === a.place &&
        (s.do_what === 'put' || s.decision === 'in-step'),
    )
    .map((s) => s.path.split('/').pop()!);
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
    editor_id: d.editor,
    editor_version: d.version,
    place: a.place,
    version_id: null,
    rendition_id: null,
    n,
    do_what: 'put',
    path,
    sha: hex(await putBlob(sql, bytes)),
    size: bytes.length,
    expect: is,
    decision: 'put',
    note: `names ${added.join(', ')} in the list from which ${d.title} loads`,
    prior: null,
    lines: added,
  };
}

/** A file name that nothing else at the place has, in the folder of the item's headings where the editor shows folders. */
function freePath(
  folder: string,
  v: Version,
  accepts: Accepts,
  inventory: ReadonlyMap<string, { path: string; sha: string }>,
  planned: ReadonlyMap<string, Step>,
  agentId: string,
): string {
  const inside =
    accepts.headings === 'folder' && v.headings.length
      ? `${folder}/${v.headings.map((h) => fileName(h, '')).join('/')}`
      : folder;
  const taken = new Set<string>();
  for (const p of planned.values())
    if (p.agent_station_id === agentId && p.version_id !== v.id && p.path.startsWith(inside + '/'))
      taken.add(p.path.slice(inside.length + 1).toLowerCase());
  for (const f of inventory.values())
    if (f.path.startsWith(inside + '/')) taken.add(f.path.slice(inside.length + 1).toLowerCase());
  return `${inside}/${fileName(v.title, accepts.extension, accepts.names ?? {}, taken)}`;
}
