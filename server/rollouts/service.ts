/** Rollouts: plan, confirm, follow, undo; and what agents fetch and report of them. */
import { v7 } from 'uuid';
import { array, object, string } from 'yup';
import { uuid } from '@/core/uuid';
import { removeLines } from '@/core/sync/index-lines';
import { resultSchema, type OperationResult, type Plan } from '@/core/sync/protocol';
import { Problem } from '@/core/problem';
import { blobChunks, blobSize, bytesOf, hex, putBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../events';
import { versionById } from '../items/queries';
import { allowUnderLicence } from '../licences/service';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../people/service';
import { dropPlacement, indexText, inventoryOf, putPlacement, stations, type StationRow } from '../stations/queries';
import { planSteps } from './plan';
import * as q from './queries';
import { maybe } from '../db/query';

export type { RolloutRow, StepRow } from './queries';

const planSchema = object({
  title: string().trim().max(200).default(''),
  versions: array().of(uuid().required()).min(1, 'Choose at least one item.').max(500).required(),
  stations: array().of(uuid().required()).min(1, 'Choose at least one station.').max(1000).required(),
}).noUnknown();

/** Plans exact file operations. Nothing is written anywhere until the rollout is confirmed. */
export async function planRollout(
  person: Person,
  input: { title?: string; versions: string[]; stations: string[] },
): Promise<string> {
  allow(person, 'rollout.plan');
  const p = checked(planSchema, input);
  const id = v7();
  await transaction(async (sql) => {
    const versions = [];
    for (const vid of new Set(p.versions)) {
      const v = await versionById(sql, vid);
      if (!v) throw new Problem('not-found', 'A chosen version is not there.', vid, 'Choose again.');
      if (v.status !== 'approved')
        throw new Problem(
          'not-approved',
          `Version ${v.number} of ${v.title} is a ${v.status}, and only approved versions are rolled out.`,
          v.title,
          'Approve it first, or leave it out.',
        );
      versions.push(v);
    }
    const all = await stations(sql);
    const chosen = all.filter((s) => p.stations.includes(s.id));
    if (!chosen.length)
      throw new Problem('not-found', 'None of the chosen stations is there.', 'stations', 'Choose again.');
    if (chosen.length > 1) for (const v of versions) await allowUnderLicence(person, v, 'spread');
    const steps = await planSteps(sql, versions, chosen, all);
    const title =
      p.title || (versions.length === 1 ? versions[0]!.title : `${versions[0]!.title} and ${versions.length - 1} more`);
    await q.insertRollout(sql, { id, title, personId: person.id, undoes: null, status: 'planned', approvedBy: null });
    for (const s of steps) await q.insertStep(sql, id, s);
    await record(sql, actorOf(person), 'rollout', id, 'planned', null, {
      title,
      steps: steps.filter((s) => s.do_what !== 'none').length,
    });
  });
  return id;
}

const missing = (id: string): Problem =>
  new Problem('not-found', 'There is no such rollout.', id, 'Go back to Rollouts.');

export async function listRollouts(person: Person) {
  allow(person, 'view');
  return q.rollouts(pool(), 100);
}

export async function rolloutFor(
  person: Person,
  id: string,
): Promise<{ rollout: q.RolloutRow; steps: q.StepRow[]; undoneBy: string | null }> {
  allow(person, 'view');
  const rollout = /^[0-9a-f-]{36}$/.test(id) ? await q.rolloutById(pool(), id) : undefined;
  if (!rollout) throw missing(id);
  const undoing = await maybe<{ id: string }>(
    pool(),
    'select id from rollout where undoes = $1 order by created_at desc limit 1',
    [id],
  );
  return { rollout, steps: await q.stepsOf(pool(), id), undoneBy: undoing?.id ?? null };
}

export async function confirmRollout(person: Person, id: string): Promise<void> {
  allow(person, 'rollout.confirm');
  await transaction(async (sql) => {
    const r = await q.rolloutById(sql, id, true);
    if (!r) throw missing(id);
    if (r.status !== 'planned')
      throw new Problem('rollout-settled', `This rollout is ${r.status} already.`, r.title, 'Reload the page.');
    if ((await q.pendingSteps(sql, id)) === 0)
      throw new Problem(
        'rollout-empty',
        'There is nothing to write: everything is there already or cannot go there.',
        r.title,
        'Choose other items or stations.',
      );
    await q.setRollout(sql, id, 'confirmed', person.id);
    await record(sql, actorOf(person), 'rollout', id, 'confirmed', { status: 'planned' }, { status: 'confirmed' });
  });
}

export async function dropRollout(person: Person, id: string): Promise<void> {
  allow(person, 'rollout.plan');
  await transaction(async (sql) => {
    const r = await q.rolloutById(sql, id, true);
    if (!r || r.status !== 'planned')
      throw new Problem(
        'rollout-settled',
        'Only a plan that was not confirmed can be dropped.',
        id,
        'Undo it instead.',
      );
    await q.setRollout(sql, id, 'dropped');
    await record(sql, actorOf(person), 'rollout', id, 'dropped');
  });
}

/** The opposite operations, confirmed at once: what was put is taken away, what was overwritten comes back. */
export async function undoRollout(person: Person, id: string): Promise<string> {
  allow(person, 'rollout.confirm');
  const undo = v7();
  await transaction(async (sql) => {
    const r = await q.rolloutById(sql, id, true);
    if (!r) throw missing(id);
    if (r.status !== 'done' && r.status !== 'confirmed')
      throw new Problem(
        'rollout-settled',
        `A rollout that is ${r.status} cannot be undone.`,
        r.title,
        'Reload the page.',
      );
    if (r.undoes)
      throw new Problem(
        'rollout-settled',
        'This is itself the undoing of a rollout.',
        r.title,
        'Plan the rollout anew instead.',
      );
    const steps = await q.stepsOf(sql, id);
    const done = steps.filter((s) => s.outcome === 'done');
    if (steps.some((s) => s.outcome === null && s.do_what !== 'none'))
      throw new Problem(
        'rollout-running',
        'Some stations have not reported yet.',
        r.title,
        'Wait until they have, then undo it.',
      );
    if (!done.length)
      throw new Problem(
        'rollout-empty',
        'Nothing was written that could be undone.',
        r.title,
        'There is nothing to do.',
      );
    await q.insertRollout(sql, {
      id: undo,
      title: `Undo: ${r.title}`,
      personId: person.id,
      undoes: id,
      status: 'confirmed',
      approvedBy: person.id,
    });
    const counters = new Map<string, number>();
    for (const s of done.reverse()) {
      const n = counters.get(s.agent_station_id) ?? 0;
      counters.set(s.agent_station_id, n + 1);
      if (s.lines) {
        await q.insertStep(sql, undo, await undoIndex(sql, s, n));
        continue;
      }
      await q.insertStep(sql, undo, {
        ...s,
        n,
        do_what: s.before ? 'put' : 'remove',
        sha: s.before,
        size: s.before ? ((await blobSize(bytesOf(s.before), sql)) ?? 0) : 0,
        expect: s.sha,
        decision: s.before ? 'put' : 'remove',
        note: s.before ? 'brings back what was there' : 'was not there before',
        version_id: s.version_id,
        rendition_id: null,
        prior: s.prior,
      });
    }
    await q.setRollout(sql, id, 'undoing');
    await record(sql, actorOf(person), 'rollout', id, 'undo begun', { status: r.status }, { status: 'undoing' });
  });
  return undo;
}

/** Takes the lines out that the step had put in; what others added since stays. */
async function undoIndex(sql: Sql, s: q.StepRow, n: number): Promise<q.StepRow> {
  const text = removeLines(await indexText(sql, s.agent_station_id, s.path), s.lines!);
  const gone = !text && !s.before;
  const bytes = Buffer.from(text);
  const is = (await inventoryOf(sql, s.agent_station_id)).find((f) => f.path === s.path)?.sha ?? s.sha;
  return {
    ...s,
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

// --- what agents ask

export async function planFor(agent: StationRow): Promise<Plan | null> {
  const sql = pool();
  const id = await q.nextFor(sql, agent.id);
  if (!id) return null;
  const steps = (await q.stepsOf(sql, id)).filter(
    (s) => s.agent_station_id === agent.id && s.outcome === null && s.do_what !== 'none',
  );
  return {
    id,
    operations: steps
      .sort((a, b) => a.n - b.n)
      .map((s) => ({
        n: s.n,
        do: s.do_what as 'put' | 'remove',
        place: s.place,
        path: s.path,
        sha256: s.sha,
        size: s.size,
        expect: s.expect,
      })),
  };
}

/** Contents that a plan of this very station names; nothing else. */
export async function contentFor(
  agent: StationRow,
  sha: string,
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
  return { size, chunks: blobChunks(bytesOf(sha)) };
}

/** An agent's results: settles its steps, moves the base of the three-way view, and closes the rollout when all is in. Said twice, nothing changes. */
export async function takeResults(agent: StationRow, rolloutId: string, input: unknown): Promise<void> {
  const { results } = checked(resultSchema, input) as unknown as { results: OperationResult[] };
  await transaction(async (sql) => {
    const r = await q.rolloutById(sql, rolloutId, true);
    if (!r) throw missing(rolloutId);
    const steps = (await q.stepsOf(sql, rolloutId)).filter((s) => s.agent_station_id === agent.id);
    for (const result of results) {
      const s = steps.find((x) => x.n === result.n);
      if (!s || s.outcome !== null || s.do_what === 'none') continue;
      await q.settleStep(sql, s.id, result.outcome, result.message, result.before);
      if (result.outcome === 'done') await moveBase(sql, s, rolloutId, r.undoes !== null, result.at);
    }
    const actor = { personId: null, name: `agent of ${agent.name}` };
    const bad = results.filter((x) => x.outcome !== 'done').length;
    await record(sql, actor, 'rollout', rolloutId, 'reported', null, { operations: results.length, bad });
    if (r.status === 'confirmed' && (await q.pendingSteps(sql, rolloutId)) === 0) {
      await q.setRollout(sql, rolloutId, 'done');
      await record(sql, actor, 'rollout', rolloutId, 'done');
      if (r.undoes) {
        await q.setRollout(sql, r.undoes, 'undone');
        await record(sql, actor, 'rollout', r.undoes, 'undone');
      }
    }
  });
}

async function moveBase(sql: Sql, s: q.StepRow, rolloutId: string, undoing: boolean, at: string): Promise<void> {
  const place = { stationId: s.station_id, path: s.path, rolloutId, at };
  if (!undoing && s.do_what === 'put')
    await putPlacement(sql, {
      ...place,
      editorId: s.editor_id,
      editorVersion: s.editor_version,
      place: s.place,
      versionId: s.version_id,
      renditionId: s.rendition_id,
      sha: bytesOf(s.sha!),
    });
  else if (undoing && s.prior)
    await putPlacement(sql, {
      ...place,
      editorId: s.prior.editor_id,
      editorVersion: s.prior.editor_version,
      place: s.prior.place,
      versionId: s.prior.version_id,
      renditionId: s.prior.rendition_id,
      sha: bytesOf(s.prior.sha),
    });
  else await dropPlacement(sql, s.station_id, s.path);
}
