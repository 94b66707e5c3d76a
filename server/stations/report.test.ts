/** What stations report: whatever odd names and broken lists there are, the station is heard. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { takeResults } from '../rollouts/service';
import { MOST_PART_BYTES } from '../http/agents';
import { actorOf } from '../people/roles';
import { createStation, enrol, instructionsFor, makeCode, stationOfToken, takeFilesPart, takeReport } from './service';
import { stationView } from './views';

withDatabase();
let desk = '';
let token = '';
beforeAll(async () => {
  const actor = actorOf(people.librarian);
  await transaction((sql) => bringDescriptor(sql, actor, oxbow2, 'd'));
  desk = await transaction((sql) =>
    createStation(sql, actor, {
      name: 'Desk',
      kind: 'workstation',
      system: 'linux',
      person: '',
      hostId: null,
      editors: ['oxbow@2'],
      position: 0,
    }),
  );
  const code = await makeCode(pool(), desk);
  token = (await enrol({ code, system: 'linux', host: 'h', agentVersion: '1' })).token;
});

const station = () => stationOfToken(`Bearer ${token}`);
const sha = 'a'.repeat(64);
async function report(more: object) {
  const { listings } = await instructionsFor(await station());
  const at = '2026-11-27T10:00:00.000Z';
  const text = JSON.stringify({
    at,
    running: true,
    listed: [{ path: 'x.cube', title: 'X', kind: 'look' }],
    refused: [],
  });
  return takeReport(await station(), {
    agentVersion: '1',
    files: [],
    digest: sha,
    listings: [{ editor: must(listings[0]).editor, text, running: true, at }],
    indexes: [],
    waiting: null,
    ...more,
  });
}
const place = async () => must((await instructionsFor(await station())).places[0]).path;

test('a name that cannot be kept is left out and told; the others are kept', async () => {
  const folder = await place();
  const file = (name: string) => ({ path: `${folder}/${name}`, size: 1, sha256: sha });
  expect(await report({ files: [file('good.cube'), file('a\\b.cube'), file('a\nb.cube')] })).toEqual({ need: null });
  const kept = await many<{ path: string }>(pool(), 'select path from inventory');
  expect(kept.map(({ path }) => path)).toEqual([`${folder}/good.cube`]);
  const view = await stationView(people.librarian, desk);
  expect(view.silent).toBe(false);
  expect(view.station.left_out).toEqual({
    count: 2,
    examples: [`${folder}/a\\b.cube`, `${folder}/a\\u000ab.cube`],
  });
  await report({ files: [file('good.cube')], digest: 'b'.repeat(64) });
  expect((await stationView(people.librarian, desk)).station.left_out.count).toBe(0);
});

test('sixty thousand files are kept', async () => {
  const folder = await place();
  const files = Array.from({ length: 60_000 }, (_, n) => ({ path: `${folder}/${n}.cube`, size: 1, sha256: sha }));
  await report({ files, digest: 'c'.repeat(64) });
  expect(await many(pool(), 'select count(*)::int as n from inventory')).toEqual([{ n: 60_000 }]);
  await report({ files: [], digest: 'd'.repeat(64) });
}, 60_000);

describe('files that come in parts', () => {
  const digest = '1'.repeat(64);
  const kept = async () =>
    (await many<{ path: string }>(pool(), 'select path from inventory order by path')).map(({ path }) => path);
  const waiting = () => many(pool(), 'select part from inventory_part order by part');
  const part = async (n: number, names: string[], of = digest) => {
    const folder = await place();
    const files = names.map((name) => ({ path: `${folder}/${name}`, size: 1, sha256: sha }));
    await takeFilesPart(await station(), { digest: of, part: n, files });
  };

  test('are taken once all of them are there, in whatever order and however often they came', async () => {
    const folder = await place();
    await part(1, ['c.cube']);
    expect(await report({ files: null, digest, parts: 2 })).toEqual({ need: 'files' });
    await part(0, ['a.cube', 'b\\c.cube']);
    await part(0, ['a.cube', 'b\\c.cube']);
    expect(await report({ files: null, digest, parts: 2 })).toEqual({ need: null });
    expect(await kept()).toEqual([`${folder}/a.cube`, `${folder}/c.cube`]);
    expect((await station()).left_out).toEqual({ count: 1, examples: [`${folder}/b\\c.cube`] });
    expect(await waiting()).toEqual([]);
  });

  test('fit into what is read of one, with the longest names in any script', () => {
    const file = { path: '\u{1f3fa}'.repeat(500), size: Number.MAX_SAFE_INTEGER, sha256: sha };
    const body = JSON.stringify({ digest, part: 0, files: Array(5000).fill(file) });
    expect(Buffer.byteLength(body)).toBeLessThan(MOST_PART_BYTES);
    const escaped = body.length + 5000 * 1000 * 5;
    expect(escaped).toBeLessThan(MOST_PART_BYTES);
  });

  test('of a state that has passed are over', async () => {
    await part(0, ['old.cube'], '2'.repeat(64));
    await part(0, ['new.cube'], '3'.repeat(64));
    expect(await report({ files: null, digest: '2'.repeat(64), parts: 1 })).toEqual({ need: 'files' });
    expect(await report({ files: null, digest: '3'.repeat(64), parts: 1 })).toEqual({ need: null });
    expect(await kept()).toEqual([`${await place()}/new.cube`]);
  });

  test.each([
    ['a part that is none', { digest, part: -1, files: [] }],
    ['a part too far', { digest, part: 100, files: [] }],
    [
      'more files than a part may have',
      { digest, part: 0, files: Array(5001).fill({ path: 'a', size: 1, sha256: sha }) },
    ],
    ['a path that leads outside', { digest, part: 0, files: [{ path: '../a', size: 1, sha256: sha }] }],
    ['a digest that is none', { digest: 'x', part: 0, files: [] }],
  ])('are refused with %s', async (_, input) => {
    await expect(takeFilesPart(await station(), input)).rejects.toMatchObject({ code: 'input-invalid' });
    expect(await waiting()).toEqual([]);
  });
});

test.each([
  '{"at":"yesterday","running":true,"listed":[null,{"path":"a.cube"}],"refused":[7]}',
  '{"at":',
  'null',
  '[]',
])('an editor’s list that is broken does not keep the station silent: %s', async (text) => {
  const { listings } = await instructionsFor(await station());
  const before = must((await station()).last_report_at).getTime();
  const listing = { editor: must(listings[0]).editor, text, running: false, at: '2026-11-27T11:00:00.000Z' };
  expect(await report({ listings: [listing], digest: 'e'.repeat(64) })).toEqual({ need: null });
  expect(must((await station()).last_report_at).getTime()).toBeGreaterThan(before);
});

test('a plan that nobody here has given, as after a restore, is to be forgotten', async () => {
  const waiting = '01a210e5-4862-76ff-8bf1-cca38cebf5bd';
  expect(await report({ waiting, digest: 'f'.repeat(64) })).toEqual({ need: null, drop: true });
  await expect(
    takeResults(await station(), waiting, {
      results: [{ n: 0, outcome: 'done', message: '', before: null, at: '2026-11-27T10:00:00.000Z' }],
    }),
  ).rejects.toMatchObject({ code: 'not-found' });
});
