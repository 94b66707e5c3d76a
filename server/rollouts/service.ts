/** Rollouts: confirm, follow, undo; and what agents fetch and report of them. */
import type { BodyOf } from '@/core/api';
import { rolloutEndpoints } from '@/core/api/rollouts';
import { must } from '@/core/must';
import { isUuid } from '@/core/uuid';
import { v7 } from 'uuid';
import { isEntryPath } from '@/core/sync/bundle';
import { removeLines, UNREADABLE } from '@/core/sync/index-lines';
import { knowsBundles, resultSchema, type Plan } from '@/core/sync/protocol';
import { Problem } from '@/core/problem';
import { blobChunks, blobSize, bytesOf, hex, putBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { requestCancel } from '../jobs/queries';
import { madeOfPresets, referencesOf } from '../references/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { setPace } from './pace';
import { planAgain } from './planning';
import { inventoryOf, type StationRow } from '../stations/queries';
import { moveBase } from './base';
import { indexAt } from './index-at';
import { confirmRollout } from './confirm';
import { missing, settleIfOver } from './leave';
import * as q from './queries';

export type { RolloutRow, StepRow } from './queries';
export { confirmRollout } from './confirm';
export { leaveOut } from './leave';

export async function listRollouts(person: Person) {
  allow(person, 'view');
  return q.rollouts(pool(), 100);
}

export async function rolloutFor(
  person: Person,
  id: string,
): Promise<{ rollout: q.RolloutRow; steps: q.StepRow[]; undoneBy: string | null }> {
  allow(person, 'view');
  const rollout = isUuid(id) ? await q.rolloutById(pool(), id) : undefined;
  if (!rollout) throw missing(id);
  return { rollout, steps: await q.stepsOf(pool(), id), undoneBy: await q.undoingOf(pool(), id) };
}

/** A preset and a look that was made from it, which have the effect twice where both are on. */
export interface DoubleEffect {
  /** the preset's title */ preset: string;
  look: { id: string; title: string };
  /** the preset calls the look itself, so that both are on at once; else they are offered side by side */ calls: boolean;
}

const placeOf = ({ station_id, editor_id, editor_version }: q.StepRow): string =>
  [station_id, editor_id, editor_version].join(' ');

/** Whether a plan brings both to one editor of one station. */
function meet(steps: readonly q.StepRow[], one: string, other: string): boolean {
  const places = new Set(steps.filter((step) => step.version_id === one).map(placeOf));
  return steps.some((step) => step.version_id === other && places.has(placeOf(step)));
}

/** What in a plan would act twice, and how. */
export async function doubleEffects(steps: readonly q.StepRow[]): Promise<DoubleEffect[]> {
  const known = new Map(steps.flatMap((step) => (step.version_id ? [[step.version_id, step]] : [])));
  const titleOf = (version: string): string => known.get(version)?.title ?? '';
  const versions = [...known.keys()];
  const [references, pairs] = await Promise.all([referencesOf(pool(), versions), madeOfPresets(pool(), versions)]);
  const calling = references.flatMap(({ version_id, twice, item_id, title }) =>
    twice && item_id && title ? [{ version: version_id, look: { id: item_id, title } }] : [],
  );
  const beside = pairs.filter(
    ({ look, preset }) =>
      meet(steps, look, preset) &&
      !calling.some((one) => one.version === preset && one.look.id === known.get(look)?.item_id),
  );
  return [
    ...calling.map(({ version, look }) => ({ preset: titleOf(version), look, calls: true })),
    ...beside.map(({ look, preset }) => ({
      preset: titleOf(preset),
      look: { id: known.get(look)?.item_id ?? '', title: titleOf(look) },
      calls: false,
    })),
  ];
}

/** Drops a plan that was not confirmed; one that is still being worked out stops. */
export async function dropRollout(person: Person, id: string): Promise<void> {
  allow(person, 'rollout.plan');
  await transaction(async (sql) => {
    const rollout = await q.rolloutById(sql, id, true);
    if (!rollout || (rollout.status !== 'planned' && rollout.status !== 'planning'))
      throw new Problem(
        'rollout-settled',
        'Only a plan that was not confirmed can be dropped.',
        id,
        'Undo it instead.',
      );
    if (rollout.job_id) await requestCancel(sql, rollout.job_id);
    await q.setRollout(sql, id, 'dropped');
    await record(sql, actorOf(person), 'rollout', id, 'dropped');
  });
}

/** The opposite operations, confirmed at once: what was put is taken away, what was overwritten comes back. */
export async function undoRollout(person: Person, id: string): Promise<string> {
  allow(person, 'rollout.confirm');
  const undo = v7();
  await transaction(async (sql) => {
    const rollout = await q.rolloutById(sql, id, true);
    if (!rollout) throw missing(id);
    if (rollout.status !== 'done' && rollout.status !== 'confirmed')
      throw new Problem(
        'rollout-settled',
        `A rollout that is ${rollout.status} cannot be undone.`,
        rollout.title,
        'Reload the page.',
      );
    if (rollout.undoes)
      throw new Problem(
        'rollout-settled',
        'This is itself the undoing of a rollout.',
        rollout.title,
        'Plan the rollout anew instead.',
      );
    const steps = await q.stepsOf(sql, id);
    const done = steps.filter((s) => s.outcome === 'done');
    if (steps.some((s) => s.outcome === null && s.do_what !== 'none'))
      throw new Problem(
        'rollout-running',
        'Some stations have not reported yet.',
        rollout.title,
        'Wait until they have, or leave out what waits there; then undo it.',
      );
    if (!done.length)
      throw new Problem(
        'rollout-empty',
        'Nothing was written that could be undone.',
        rollout.title,
        'There is nothing to do.',
      );
    await q.insertRollout(sql, {
      id: undo,
      title: `Undo: ${rollout.title}`,
      personId: person.id,
      undoes: id,
      status: 'confirmed',
      approvedBy: person.id,
    });
    await q.insertSteps(sql, undo, await undoingSteps(sql, done));
    await q.setRollout(sql, id, 'undoing');
    await record(sql, actorOf(person), 'rollout', id, 'undo begun', { status: rollout.status }, { status: 'undoing' });
  });
  return undo;
}

/** The opposite of each step, the last one first, numbered anew for each agent. */
async function undoingSteps(sql: Sql, done: readonly q.StepRow[]): Promise<q.NewStep[]> {
  const counters = new Map<string, number>();
  const undoing: q.NewStep[] = [];
  for (const step of done.toReversed()) {
    const next = counters.get(step.agent_station_id) ?? 0;
    counters.set(step.agent_station_id, next + 1);
    undoing.push(step.lines ? await undoIndex(sql, step, next) : await undoFile(sql, step, next));
  }
  return undoing;
}

/** Brings back what the step overwrote, or takes away what was not there before. */
async function undoFile(sql: Sql, step: q.StepRow, n: number): Promise<q.NewStep> {
  const { before } = step;
  return {
    ...step,
    n,
    do_what: before ? 'put' : 'remove',
    sha: before,
    size: before ? ((await blobSize(bytesOf(before), sql)) ?? 0) : 0,
    expect: step.sha,
    decision: before ? 'put' : 'remove',
    note: before ? 'brings back what was there' : 'was not there before',
    rendition_id: null,
  };
}

/** Takes the lines out that the step had put in; what others added since stays. */
async function undoIndex(sql: Sql, step: q.StepRow, n: number): Promise<q.StepRow> {
  const lying = (await inventoryOf(sql, step.agent_station_id)).find((f) => f.path === step.path);
  const before = await indexAt(sql, step.agent_station_id, step.path, lying?.sha ?? null);
  if (before === null)
    return {
      ...step,
      n,
      do_what: 'none',
      decision: 'conflict',
      note: `the list ${UNREADABLE}`,
      lines: null,
      prior: null,
    };
  const text = removeLines(before, must(step.lines));
  const gone = !text && !step.before;
  const bytes = Buffer.from(text);
  const is = lying?.sha ?? step.sha;
  return {
    ...step,
    n,
    do_what: gone ? 'remove' : 'put',
    sha: gone ? null : hex(await putBlob(sql, bytes)),
    size: gone ? 0 : bytes.length,
    expect: is,
    decision: gone ? 'remove' : 'put',
    note: 'takes the lines out again',
    lines: null,
    prior: null,
  };
}

/** Does with a rollout what was asked for; answers with the one to look at next, which for an undo is its opposite. */
export async function moveRollout(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/rollouts/:id'>,
): Promise<string> {
  const { verb, first, goesOn, at } = checked(rolloutEndpoints['POST /api/rollouts/:id'].body, input);
  if (verb === 'undo') return undoRollout(person, id);
  if (verb === 'confirm') await confirmRollout(person, id, { first: first ? { station: first, goesOn } : null, at });
  else if (verb === 'again') await planAgain(person, id);
  else if (verb === 'drop') await dropRollout(person, id);
  else await setPace(person, id, verb);
  return id;
}

// --- what agents ask

export async function planFor(agent: StationRow): Promise<Plan | null> {
  const sql = pool();
  const id = await q.nextFor(sql, agent.id);
  if (!id) return null;
  const isKnown = ({ path }: q.StepRow): boolean => knowsBundles(agent.agent_version) || !isEntryPath(path);
  const steps = (await q.stepsOf(sql, id)).filter(
    (step) =>
      step.agent_station_id === agent.id &&
      step.outcome === null &&
      step.do_what !== 'none' &&
      !step.held &&
      !step.kept_back &&
      isKnown(step),
  );
  // what was there to do may have come to wait meanwhile
  if (!steps.length) return null;
  return {
    id,
    operations: steps
      .sort((a, b) => a.n - b.n)
      .map((step) => ({
        n: step.n,
        do: step.do_what as 'put' | 'remove',
        place: step.place,
        path: step.path,
        sha256: step.sha,
        size: step.size,
        expect: step.expect,
      })),
  };
}

/** Contents that a plan of this very station names, from a byte on; nothing else. */
export async function contentFor(
  agent: StationRow,
  sha: string,
  from = 0,
): Promise<{ size: number; chunks: AsyncGenerator<Buffer> }> {
  const size =
    /^[0-9a-f]{64}$/.test(sha) && (await q.mayFetch(pool(), agent.id, sha)) ? await blobSize(bytesOf(sha)) : null;
  if (size === null)
    throw new Problem(
      'not-found',
      'No plan of this station needs this content, or it is not kept here.',
      sha,
      'Fetch the plan again.',
    );
  return { size, chunks: blobChunks(bytesOf(sha), pool(), from) };
}

/**
 * An agent's results: settles its steps, moves the base of the three-way view, and closes the rollout when all is in. Said
 * twice, nothing changes. What was left out here and had been done there is done: the station knows best.
 */
export async function takeResults(agent: StationRow, rolloutId: string, input: unknown): Promise<void> {
  const { results } = checked(resultSchema, input);
  await transaction(async (sql) => {
    const rollout = await q.rolloutById(sql, rolloutId, true);
    if (!rollout || !['confirmed', 'done', 'undoing', 'undone'].includes(rollout.status)) throw missing(rolloutId);
    const steps = (await q.stepsOf(sql, rolloutId)).filter((s) => s.agent_station_id === agent.id);
    if (!steps.length) throw missing(rolloutId);
    const late: q.StepRow[] = [];
    for (const result of results) {
      const step = steps.find((x) => x.n === result.n);
      if (!step || step.do_what === 'none') continue;
      const isLate = step.outcome === 'left' && result.outcome === 'done';
      if (step.outcome !== null && !isLate) continue;
      await q.settleStep(sql, step.id, result.outcome, result.message, result.before);
      if (result.outcome === 'done') await moveBase(sql, step, rolloutId, rollout.undoes !== null, result.at);
      if (isLate) late.push({ ...step, outcome: 'done', before: result.before });
    }
    const actor = { personId: null, name: `agent of ${agent.name}` };
    const bad = results.filter((x) => x.outcome !== 'done').length;
    await record(sql, actor, 'rollout', rolloutId, 'reported', null, { operations: results.length, bad });
    await settleIfOver(sql, rollout, actor);
    if (late.length && (rollout.status === 'undoing' || rollout.status === 'undone'))
      await undoLate(sql, rollout, late);
  });
}

/** What turns out to have been written, of a rollout that is undone: its undoing takes that back too. */
async function undoLate(sql: Sql, rollout: q.RolloutRow, late: readonly q.StepRow[]): Promise<void> {
  const undo = await q.undoingOf(sql, rollout.id);
  if (!undo) return;
  const from = 1 + Math.max(-1, ...(await q.stepsOf(sql, undo)).map((step) => step.n));
  const steps = await undoingSteps(sql, late);
  await q.insertSteps(
    sql,
    undo,
    steps.map((step) => ({ ...step, n: step.n + from })),
  );
  await q.setRollout(sql, undo, 'confirmed');
  await q.setRollout(sql, rollout.id, 'undoing');
}
