/** A large fleet: a thousand stations with two thousand files each, planned for, reporting, and looked at. */
import { execFileSync } from 'node:child_process';
import { v7 } from 'uuid';
import { pool } from '@/server/db/pool';
import { one } from '@/server/db/query';
import type { Person } from '@/server/people/roles';
import { versionById } from '@/server/items/queries';
import { planSteps, type Version } from '@/server/rollouts/plan';
import { stations } from '@/server/stations/queries';
import { fleet } from '@/server/stations/fleet';
import { rowsAtFullSpeed } from './full-speed';
import { administrator } from './generate';
import { librarian } from './library';
import { median, type Row } from './rows';

const tokenOf = (n: number): string => `bench-token-${String(n).padStart(12, '0')}`;
const DIGEST = 'a'.repeat(64);

/** Stations with an agent, an editor and files of their own; the files lie in the editor's folders and beside them. */
async function fillFleet(count: number, files: number): Promise<void> {
  const client = administrator();
  await client.connect();
  try {
    await client.query(
      `
        insert into station (id, name, kind, system, person, token_sha256, agent_version, digest, last_report_at, position)
        select
          gen_random_uuid(), 'Bench desk ' || n, 'workstation', 'linux', 'Person ' || n,
          sha256(convert_to('bench-token-' || lpad(n::text, 12, '0'), 'UTF8')), '1', $2, now(), 1000 + n
        from generate_series(1, $1::int) n
      `,
      [count, DIGEST],
    );
    await client.query(`
      insert into station_editor (station_id, editor_id, editor_version)
      select id, 'oxbow', '2' from station where name like 'Bench desk %'
    `);
    await client.query(
      `
        insert into inventory (station_id, path, size, sha256)
        select
          s.id,
          case when f % 4 = 0 then 'Oxbow/Presets/' else 'Oxbow/Looks/House/' end || 'file ' || f || '.cube',
          1000 + f, sha256(int4send(f))
        from station s, generate_series(1, $1::int) f
        where s.name like 'Bench desk %'
      `,
      [files],
    );
    await client.query('analyze station, station_editor, inventory');
  } finally {
    await client.end();
  }
}

async function planRows(person: Person, count: number, files: number): Promise<Row[]> {
  void person;
  const sql = pool();
  const { id } = await one<{ id: string }>(
    sql,
    `
      select v.id
      from version v join item i on i.id = v.item_id join blob b on b.sha256 = v.sha256
      where b.size > 1000 and v.status = 'approved' and i.kind = 'look' and i.archived_at is null
      order by i.title
      limit 1
    `,
  );
  const version = (await versionById(sql, id)) as Version;
  const all = await stations(sql);
  const chosen = all.filter((station) => station.name.startsWith('Bench desk'));
  global.gc?.();
  const before = process.memoryUsage().rss;
  let most = before;
  const watch = setInterval(() => {
    most = Math.max(most, process.memoryUsage().rss);
  }, 20);
  const began = performance.now();
  const steps = await planSteps(sql, [version], chosen, all, [], async () => {});
  const seconds = (performance.now() - began) / 1000;
  clearInterval(watch);
  if (steps.length !== count) throw new Error(`${steps.length} steps for ${count} stations`);
  const what = `one item for ${count.toLocaleString('en')} stations with ${files.toLocaleString('en')} files each`;
  return [
    { name: `plan ${what}`, figure: seconds, unit: 's', target: 6 },
    { name: 'memory that planning takes', figure: (most - before) / 1e6, unit: 'MB', target: 200 },
  ];
}

async function pageRow(person: Person, count: number): Promise<Row> {
  const times: number[] = [];
  for (let round = 0; round < 12; round++) {
    const began = performance.now();
    await fleet(person);
    if (round >= 2) times.push(performance.now() - began);
  }
  return {
    name: `the first page of ${count.toLocaleString('en')} stations, at the server`,
    figure: median(times),
    unit: 'ms',
    target: 100,
  };
}

/** Reports that say that nothing has changed, over HTTP, to a web process that has one core to itself. */
async function reportRow(url: string, count: number): Promise<Row> {
  const pid = execFileSync('pgrep', ['-f', 'dist/web.mjs --port 4411'], { encoding: 'utf8' }).trim().split('\n')[0]!;
  execFileSync('taskset', ['-a', '-c', '-p', '0', pid]);
  const body = JSON.stringify({
    agentVersion: '1',
    files: null,
    digest: DIGEST,
    listings: [],
    indexes: [],
    waiting: null,
    run: v7(),
    host: 'bench',
  });
  const seconds = 10;
  const until = Date.now() + seconds * 1000;
  let done = 0;
  let next = 0;
  const reporting = async () => {
    while (Date.now() < until) {
      const token = tokenOf((next++ % count) + 1);
      const response = await fetch(`${url}/api/agent/report`, {
        method: 'POST',
        headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
        body,
      });
      if (response.status !== 200)
        throw new Error(`a report was answered ${response.status}: ${await response.text()}`);
      await response.arrayBuffer();
      done++;
    }
  };
  await Promise.all(Array.from({ length: 16 }, reporting));
  execFileSync('taskset', ['-a', '-c', '-p', '0-63', pid]);
  const rate = done / seconds;
  return {
    name: `an unchanged report of ${count.toLocaleString('en')} stations, one core`,
    figure: 1000 / rate,
    unit: 'ms',
    target: 1000 / 300,
    note: `${rate.toFixed(0)} a second`,
  };
}

export async function fleetRows(url: string, count = 1000, files = 2000): Promise<Row[]> {
  const person = await librarian();
  await fillFleet(count, files);
  return [
    ...(await rowsAtFullSpeed(() => planRows(person, count, files))),
    ...(await rowsAtFullSpeed(async () => [await pageRow(person, count)])),
    ...(await rowsAtFullSpeed(async () => [await reportRow(url, count)])),
  ];
}
