/** Favorites at stations: our ribbons and three editors' own lists, merged, written, changed there, undone. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { bytesOf, getBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { setRibbon } from '../items/service';
import { confirmRollout, rolloutFor, undoRollout } from '../rollouts/service';
import { addStation, agent, approvedLook, carryOut, enrolled, planned, sha } from '../rollouts/testing/world';
import { instructionsFor, takeReport } from '../stations/service';
import { favoritesFor, planFavorites, ribbonsFromFavorites, type FavoritesView } from './service';

withDatabase();

const CONFIG = 'Library/Application Support';
const MARLSTONE = `${CONFIG}/.marlstone-4/favorites.json`;
const OXBOW = 'Oxbow/Looks/House/first.list';
const TESSEL = `${CONFIG}/Tessel/tessel.json#chosen/favorites`;

const looks: { itemId: string; versionId: string }[] = [];
let desk = '';
let token = '';
/** What lies at the station, by path: the text of lists, the hash of all else. */
const files = new Map<string, { text?: string; sha256: string }>();

/** Plays the agent's report, as it would be with what lies there. */
async function tell(agentVersion = '0.3.0'): Promise<void> {
  const station = await agent(token);
  const { indexes } = await instructionsFor(station);
  const list = [...files].map(([path, { sha256 }]) => ({ path, sha256, size: 1 }));
  await takeReport(station, {
    agentVersion,
    files: list,
    digest: sha(JSON.stringify(list)),
    listings: [],
    indexes: indexes.flatMap((path) => {
      const text = files.get(path)?.text;
      return text === undefined ? [] : [{ path, text }];
    }),
    waiting: null,
  });
}

/** Texts that were there once, which an agent keeps. */
const kept = new Map<string, string>();

/** Somebody there, or an editor, writes a list. */
function write(path: string, text: string): void {
  kept.set(sha(text), text);
  files.set(path, { text, sha256: sha(text) });
}

/** Carries out what is confirmed, and tells what lies there then. */
async function apply(): Promise<void> {
  for (const { do: what, path, sha256 } of await carryOut(token)) {
    if (what === 'remove') files.delete(path);
    else if ([MARLSTONE, OXBOW, TESSEL].includes(path))
      write(path, kept.get(must(sha256)) ?? (await getBlob(bytesOf(must(sha256)))).toString('utf8'));
    else files.set(path, { sha256: must(sha256) });
  }
  await tell();
}

const all = [
  { editor: 'marlstone', version: '4' },
  { editor: 'oxbow', version: '2' },
  { editor: 'tessel', version: '7' },
];
const placesAt = (station: string) => all.map((one) => ({ ...one, station }));

async function rollFavorites(putBack = false): Promise<string> {
  const { rollout } = await planFavorites(people.librarian, { places: placesAt(desk), putBack });
  await confirmRollout(people.lead, rollout);
  await apply();
  return rollout;
}

const viewOf = async (path: string): Promise<FavoritesView> =>
  must((await favoritesFor(people.retoucher)).find((one) => one.path === path));
const marksOf = async (path: string): Promise<string[]> =>
  (await viewOf(path)).entries.map(({ title, mark }) => `${title} ${mark}`);
const titles: string[] = [];

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [marlstone4, oxbow2, tessel7])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  for (const n of [0, 1, 2]) looks.push(await approvedLook(n));
  desk = await addStation('Desk', 'macos', ['marlstone@4', 'oxbow@2', 'tessel@7'], { person: people.retoucher.name });
  token = await enrolled(desk, 'macos');
  await tell();
  const placing = await planned({ versions: looks.map(({ versionId }) => versionId), stations: [desk] });
  const { steps } = await rolloutFor(people.librarian, placing);
  titles.push(...looks.map(({ itemId }) => must(steps.find((one) => one.item_id === itemId)?.title)));
  await confirmRollout(people.lead, placing);
  await apply();
  await setRibbon(people.lead, must(looks[1]).itemId, { on: true, whose: 'house' });
  await setRibbon(people.retoucher, must(looks[0]).itemId, { on: true, whose: 'mine' });
  await setRibbon(people.librarian, must(looks[2]).itemId, { on: true, whose: 'mine' });
});

describe('favorites at a station', () => {
  test('are asked for by the house’s ribbons, then by those of who works there', async () => {
    for (const path of [MARLSTONE, OXBOW, TESSEL]) {
      const view = await viewOf(path);
      expect([view.state, view.entries.map(({ title, mark, whose }) => [title, mark, whose])]).toEqual([
        'update-due',
        [
          [titles[1], 'ours', ''],
          [titles[0], 'ours', people.retoucher.name],
        ],
      ]);
    }
  });

  test('are told to the agent as lists that it reads, in a bundle that its editor would write over', async () => {
    const { indexes, places } = await instructionsFor(await agent(token));
    expect(indexes).toEqual(expect.arrayContaining([MARLSTONE, OXBOW, TESSEL]));
    expect(places.find(({ path }) => path.endsWith('#chosen'))).toMatchObject({ quitFirst: { title: 'Tessel 7' } });
  });

  test('are written in each editor’s own form, and are in step then', async () => {
    await rollFavorites();
    const shaOf = (folder: string, n: number): string =>
      must([...files].find(([path]) => path.includes(folder) && path.includes(must(titles[n]))))[1].sha256;
    expect(JSON.parse(must(files.get(MARLSTONE)?.text))).toEqual([shaOf('.marlstone-4', 1), shaOf('.marlstone-4', 0)]);
    expect(must(files.get(OXBOW)?.text)).toBe(`${titles[1]}.cube\n${titles[0]}.cube\n`);
    const panes = [...files.keys()].flatMap((path) => /#(panes\/.*)$/.exec(path)?.[1] ?? []);
    expect(JSON.parse(must(files.get(TESSEL)?.text))).toEqual([
      panes.find((pane) => pane.includes(must(titles[1]))),
      panes.find((pane) => pane.includes(must(titles[0]))),
    ]);
    const states = (await favoritesFor(people.retoucher)).map(({ state }) => state);
    expect(states).toEqual(['in-step', 'in-step', 'in-step']);
    await expect(planFavorites(people.librarian, { places: placesAt(desk) })).rejects.toMatchObject({
      code: 'favorites-nothing',
    });
  });

  test('that people there add stay, those that they take off stay off, and both are told', async () => {
    write(OXBOW, `\ufeffOwn look.cube\r\n${titles[2]}.cube\r\n${titles[0]}.cube\r\n`);
    await tell();
    expect((await viewOf(OXBOW)).state).toBe('in-step');
    expect(await marksOf(OXBOW)).toEqual([
      'Own look.cube theirs',
      `${titles[2]} theirs`,
      `${titles[0]} both`,
      `${titles[1]} taken-off`,
    ]);
  });

  test('get what was taken off again where somebody says so, in the list’s own ends of lines', async () => {
    const rollout = await rollFavorites(true);
    expect(must(files.get(OXBOW)?.text)).toBe(
      `\ufeff${titles[1]}.cube\r\nOwn look.cube\r\n${titles[2]}.cube\r\n${titles[0]}.cube\r\n`,
    );
    const { steps } = await rolloutFor(people.librarian, rollout);
    expect(steps.map(({ note }) => note)).toEqual([`adds ${titles[1]}; keeps 2 favorites of their own`]);
    await undoRollout(people.lead, rollout);
    await apply();
    expect(must(files.get(OXBOW)?.text)).toContain('Own look.cube\r\n');
    expect(await marksOf(OXBOW)).toContain(`${titles[1]} taken-off`);
  });

  test('lose what no ribbon asks for any more, and nothing of their own', async () => {
    await setRibbon(people.retoucher, must(looks[0]).itemId, { on: false, whose: 'mine' });
    expect(await marksOf(OXBOW)).toContain(`${titles[0]} removed`);
    await rollFavorites();
    expect(must(files.get(OXBOW)?.text)).toBe(`\ufeffOwn look.cube\r\n${titles[2]}.cube\r\n`);
    expect(JSON.parse(must(files.get(MARLSTONE)?.text))).toHaveLength(1);
  });

  test('that people chose become ribbons, as far as they are held here', async () => {
    const place = { station: desk, editor: 'oxbow', version: '2' };
    expect(await ribbonsFromFavorites(people.lead, { ...place, whose: 'house' })).toEqual({ set: 1 });
    expect(await marksOf(OXBOW)).toContain(`${titles[2]} both`);
    await expect(ribbonsFromFavorites(people.lead, { ...place, whose: 'house' })).rejects.toMatchObject({
      code: 'favorites-unknown',
    });
    await expect(ribbonsFromFavorites(people.retoucher, { ...place, whose: 'house' })).rejects.toMatchObject({
      code: 'not-allowed',
    });
    await expect(planFavorites(people.retoucher, { places: placesAt(desk) })).rejects.toMatchObject({
      code: 'not-allowed',
    });
  });

  test('that cannot be read are left alone, and it is said why', async () => {
    write(MARLSTONE, '{"these": "are no favorites"}');
    await tell();
    expect(await viewOf(MARLSTONE)).toMatchObject({
      state: 'unread',
      reason: 'The list of favorites cannot be read: it is no list of names. It is left as it is.',
    });
    write(MARLSTONE, '["caf\ufffd"]');
    await tell();
    expect((await viewOf(MARLSTONE)).reason).toBe('it is no text in UTF-8, and is left as it is');
    await tell('0.2.0');
    expect((await viewOf(TESSEL)).reason).toContain('is of version 0.2.0, which does not read lists in bundles');
    await tell();
    await expect(
      planFavorites(people.librarian, { places: [{ station: desk, editor: 'marlstone', version: '4' }] }),
    ).rejects.toMatchObject({ code: 'favorites-nothing' });
  });

  test('that we have written are looked after when nothing of ours lies beside them any more', async () => {
    await pool().query("delete from placement where path like 'Oxbow/%'");
    expect((await viewOf(OXBOW)).state).toBe('in-step');
    expect((await instructionsFor(await agent(token))).indexes).toContain(OXBOW);
  });

  test('that changed since the plan was made are not written over', async () => {
    write(MARLSTONE, '[]');
    await tell();
    const { rollout } = await planFavorites(people.librarian, { places: placesAt(desk) });
    write(MARLSTONE, '["of their own"]');
    await tell();
    await expect(confirmRollout(people.lead, rollout)).rejects.toMatchObject({ code: 'rollout-outdated' });
    expect((await pool().query('select 1 from editor_list_base where path = $1', [MARLSTONE])).rowCount).toBe(1);
  });
});
