/** One round of a librarian's work, each step of which is done in the end, whatever is killed meanwhile. */
import { strToU8, zipSync } from 'fflate';
import { cubeOf } from '@/demo/files';
import type { World } from './world';

const FILES = 5;

/** What a round has brought about, for those who look whether it is so. */
export interface Done {
  titles: string[];
  arrival: string;
  rollout: string;
  undo: string;
}

const titlesOf = (seed: number, round: number): string[] =>
  Array.from({ length: FILES }, (_, n) => `Fault ${seed} ${round} ${n}`);

/** A pack of tables, each of which does something of its own. */
function packOf(titles: readonly string[], next: () => number): Uint8Array {
  return zipSync(
    Object.fromEntries(
      titles.map((title) => [
        `${title}.cube`,
        strToU8(
          cubeOf({ title, headings: ['Faults'], settings: { warmth: next() * 300 - 150, level: next() - 0.5 } }, 9),
        ),
      ]),
    ),
  );
}

interface Upload {
  arrival: string;
  files: { id: string }[];
}

/** Sends a pack; the answer to its announcement may be lost, then it is announced once more. */
async function send(world: World, name: string, bytes: Uint8Array): Promise<string> {
  let upload: Upload | null = null;
  await world.until(
    'an upload is announced',
    async () => upload !== null,
    120_000,
    async () => {
      upload = await world.ask<Upload>('POST', '/api/uploads', { name, files: [{ path: name, size: bytes.length }] });
    },
  );
  const { arrival, files } = upload as unknown as Upload;
  const file = `/api/uploads/${files[0]!.id}`;
  const statusIs = async (...wanted: string[]): Promise<boolean> => {
    const [row] = await world.sql<{ status: string }>('select status from arrival where id = $1', [arrival]);
    return wanted.includes(row?.status ?? '');
  };
  await world.until(
    'an upload is finished',
    () => statusIs('reading', 'ready'),
    120_000,
    async () => {
      const { received } = await world.ask<{ received: number }>('GET', file);
      if (received < bytes.length)
        await world.ask('PUT', `${file}?offset=${received}`, bytes.subarray(received, received + (1 << 20)));
      await world.ask('POST', file);
    },
  );
  await world.until(
    'an arrival is read',
    () => statusIs('ready'),
    180_000,
    async () => {
      // three workers may have died over it: then a person reads it again
      if (await statusIs('failed')) await world.ask('POST', `/api/arrivals/${arrival}/read`);
    },
  );
  return arrival;
}

async function accept(world: World, arrival: string): Promise<void> {
  const [shelf] = await world.sql<{ id: string }>(
    'select id from shelf where query is null and archived_at is null order by position limit 1',
  );
  await world.until(
    'an arrival is accepted',
    async () =>
      (await world.sql(`select 1 from arrival where id = $1 and status = 'accepted'`, [arrival])).length === 1,
    120_000,
    () => world.ask('POST', `/api/arrivals/${arrival}`, { shelfId: shelf!.id }),
  );
}

async function approve(world: World, titles: readonly string[]): Promise<string[]> {
  const rows = await world.sql<{ id: string }>(
    'select v.id from version v join item i on i.id = v.item_id where i.title = any ($1) order by i.title',
    [titles],
  );
  const srgb = { primaries: 'sRGB', transfer: 'sRGB', range: 'full', referred: 'display', white: 'D65' };
  for (const { id } of rows)
    await world.until(
      'a version is approved',
      async () => (await world.sql(`select 1 from version where id = $1 and status = 'approved'`, [id])).length === 1,
      120_000,
      async () => {
        await world.ask('POST', `/api/versions/${id}/encoding`, srgb);
        await world.ask('POST', `/api/versions/${id}/approve`);
      },
    );
  return rows.map(({ id }) => id);
}

const conversionStatus = async (world: World, id: string): Promise<string> =>
  (await world.sql<{ status: string }>('select status from conversion where id = $1', [id]))[0]?.status ?? '';

/** Whether the job of a conversion has come to nothing: three workers may have died over it. */
const conversionWaits = async (world: World, id: string): Promise<boolean> =>
  (
    await world.sql(
      `
        select 1
        from conversion c
          left join job j on j.id = c.job_id
        where c.id = $1 and (c.status = 'paused' or j.status = 'failed')
      `,
      [id],
    )
  ).length === 1;

/** Looks made into chains, all at once; none is made twice, whatever is killed. */
async function convert(world: World, titles: readonly string[]): Promise<void> {
  const rows = await world.sql<{ id: string }>('select id from item where title = any ($1)', [titles]);
  const body = { items: rows.map(({ id }) => id), recipe: { tool: 'derive', form: 'clf', points: 33 } };
  let id = '';
  await world.until(
    'a conversion is begun',
    async () => id !== '',
    120_000,
    async () => {
      id = (await world.ask<{ id: string }>('POST', '/api/conversions', body)).id;
    },
  );
  const move = (verb: 'plan' | 'start') => world.ask('POST', `/api/conversions/${id}`, { verb });
  await world.until(
    'a conversion is planned',
    async () => (await conversionStatus(world, id)) === 'planned',
    180_000,
    async () => {
      if (await conversionWaits(world, id)) await move('plan');
    },
  );
  await world.until(
    'a conversion is carried through',
    async () => (await conversionStatus(world, id)) === 'done',
    180_000,
    async () => {
      const isPlanned = (await conversionStatus(world, id)) === 'planned';
      if (isPlanned || (await conversionWaits(world, id))) await move('start');
    },
  );
}

const statusOf = async (world: World, rollout: string): Promise<string> =>
  (await world.sql<{ status: string }>('select status from rollout where id = $1', [rollout]))[0]?.status ?? '';

/**
 * Where something can be written at once: an agent reports from there. An editor that writes its bundle anew when it quits runs there all the while, and
 * would hold a rollout up for ever; kills over entries of a bundle are in agent/bundles.test.ts.
 */
const WRITABLE = `
  select s.id
  from station s
  where s.token_sha256 is not null
    and s.last_report_at > now() - make_interval(mins => 10)
    and not exists (
      select 1
      from station_editor se join editor e on e.id = se.editor_id and e.version = se.editor_version
      where se.station_id = s.id
        and (e.descriptor ->> 'writesBack')::boolean
    )
`;

async function rollOut(world: World, versions: readonly string[]): Promise<string> {
  const stations = await world.sql<{ id: string }>(WRITABLE);
  let rollout = '';
  await world.until(
    'a rollout is begun',
    async () => rollout !== '',
    120_000,
    async () => {
      const body = { versions, stations: stations.map(({ id }) => id) };
      rollout = (await world.ask<{ id: string }>('POST', '/api/rollouts', body)).id;
    },
  );
  await world.until(
    'a rollout is planned',
    async () => (await statusOf(world, rollout)) === 'planned',
    180_000,
    async () => {
      const [job] = await world.sql<{ status: string }>(
        'select j.status from rollout r join job j on j.id = r.job_id where r.id = $1',
        [rollout],
      );
      if (job?.status === 'failed') await world.ask('POST', `/api/rollouts/${rollout}`, { verb: 'again' });
    },
  );
  await world.until(
    'a rollout is confirmed',
    async () => ['confirmed', 'done'].includes(await statusOf(world, rollout)),
    120_000,
    () => world.ask('POST', `/api/rollouts/${rollout}`, { verb: 'confirm' }),
  );
  await world.until('a rollout is done', async () => (await statusOf(world, rollout)) === 'done', 180_000);
  return rollout;
}

async function undo(world: World, rollout: string): Promise<string> {
  await world.until(
    'an undoing is begun',
    async () => ['undoing', 'undone'].includes(await statusOf(world, rollout)),
    120_000,
    () => world.ask('POST', `/api/rollouts/${rollout}`, { verb: 'undo' }),
  );
  await world.until('a rollout is undone', async () => (await statusOf(world, rollout)) === 'undone', 180_000);
  const [row] = await world.sql<{ id: string }>('select id from rollout where undoes = $1', [rollout]);
  return row!.id;
}

/** Every content of the demo is read, sent and hashed: minutes, where a machine does much else. Milliseconds. */
const WHOLE_STUDIO = 240_000;

/** A backup that is taken, and put in the place of what is there: what was in it is there again, as is all before it. */
async function backUpAndRestore(world: World): Promise<void> {
  let bytes: Uint8Array | null = null;
  await world.until(
    'a backup is taken',
    async () => bytes !== null,
    3 * WHOLE_STUDIO,
    async () => {
      bytes = await world.ask<Uint8Array>('GET', '/api/backup', undefined, WHOLE_STUDIO);
    },
  );
  // the old sessions go with the old studio: that none is left is the sign that the places have changed
  const restored = async (): Promise<boolean> => (await world.sql('select 1 from session')).length === 0;
  await world.until('a backup is restored', restored, 3 * WHOLE_STUDIO, () =>
    world.ask('POST', '/api/backup', bytes, WHOLE_STUDIO),
  );
  await world.signIn();
}

/** Does the whole, with a backup put back in the middle of it where that is asked. */
export async function work(
  world: World,
  seed: number,
  round: number,
  next: () => number,
  withRestore: boolean,
): Promise<Done> {
  const titles = titlesOf(seed, round);
  const arrival = await send(world, `Fault ${seed} ${round}.zip`, packOf(titles, next));
  await accept(world, arrival);
  const versions = await approve(world, titles.slice(0, 2));
  await convert(world, titles);
  if (withRestore) await backUpAndRestore(world);
  const rollout = await rollOut(world, versions);
  return { titles, arrival, rollout, undo: round % 2 ? await undo(world, rollout) : '' };
}
