/** Rollouts of the demo's past: planned and confirmed by people, carried out as an agent does it. */
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { must } from '@/core/must';
import type { Operation } from '@/core/sync/protocol';
import { getBlob } from '@/server/blobs/service';
import { pool } from '@/server/db/pool';
import { maybe } from '@/server/db/query';
import { runJob } from '@/server/jobs/service';
import type { Person } from '@/server/people/roles';
import { confirmRollout } from '@/server/rollouts/confirm';
import { planRollout, workOutPlan } from '@/server/rollouts/planning';
import { planFor, rolloutFor, takeResults } from '@/server/rollouts/service';
import { stations } from '@/server/stations/queries';

/** The newest version of an item by its title. */
export async function versionOf(title: string): Promise<{ item: string; version: string }> {
  const found = await maybe<{ item: string; version: string }>(
    pool(),
    'select id as item, newest_version_id as version from item where title = $1 order by created_at limit 1',
    [title],
  );
  return must(found);
}
export const versionsOf = async (titles: readonly string[]): Promise<string[]> =>
  Promise.all(titles.map(async (title) => (await versionOf(title)).version));

/** Plans a rollout to stations, and confirms it. */
export async function rollOut(
  person: Person,
  { title, items, to }: { title: string; items: readonly string[]; to: readonly string[] },
): Promise<string> {
  const chosen = (await stations(pool())).filter((station) => to.includes(station.name)).map(({ id }) => id);
  const id = await planRollout(person, { versions: await versionsOf(items), stations: chosen, title });
  await runJob(must((await rolloutFor(person, id)).rollout.job_id), { plan: workOutPlan });
  await confirmRollout(person, id);
  return id;
}

/** What the agent of a station does with its plan: writes each file into its tree, and says so. */
export async function carryOut(name: string, root: string): Promise<void> {
  const station = must((await stations(pool())).find((one) => one.name === name));
  const plan = await planFor(station);
  if (!plan) return;
  for (const operation of plan.operations) await write(root, operation);
  const results = plan.operations.map(({ n, expect }) => ({
    n,
    outcome: 'done',
    message: '',
    before: expect,
    at: new Date().toISOString(),
  }));
  await takeResults(station, plan.id, { results });
}

async function write(root: string, { path, sha256 }: Operation): Promise<void> {
  await mkdir(dirname(join(root, path)), { recursive: true });
  await writeFile(join(root, path), await getBlob(Buffer.from(must(sha256), 'hex')));
}
