/** Support files: what no reader knows and an editor needs, said by a person, kept and placed like any item. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { AS_PROPOSED } from '@/core/api/arrivals';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { approve } from '../items/approval';
import { itemFor } from '../items/service';
import { rolloutFor } from '../rollouts/service';
import { searchItems } from '../search/service';
import { addStation, planned } from '../rollouts/testing/world';
import { acceptArrival, arrivalFor, correctEntries } from './service';
import { arrive } from './testing';

withDatabase();

const bytesOf = (text: string) => new TextEncoder().encode(text);
let arrival = '';
const entryAt = async (path: string) =>
  must((await arrivalFor(people.librarian, arrival)).entries.find((entry) => entry.path === path));
const say = async (path: string, outcome: string, kind?: string) =>
  correctEntries(people.librarian, arrival, {
    entries: [(await entryAt(path)).id],
    outcome,
    ...(kind ? { kind } : {}),
  } as never);

beforeAll(async () => {
  for (const descriptor of [oxbow2, tessel7])
    await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, descriptor, 'd'));
  arrival = await arrive({
    'bodies.txt': bytesOf('PA-2 = Perrin Alder, infrared\n'),
    'mask.dat': new Uint8Array([1, 0, 2, 0, 3]),
    'Soft.cube': bytesOf('LUT_1D_SIZE 2\n0 0 0\n1 1 1\n'),
  });
});

describe('a file that no reader knows', () => {
  test('is left out, unless somebody says that it is a support file; and so again where that is taken back', async () => {
    expect(await entryAt('bodies.txt')).toMatchObject({ kind: 'document', outcome: 'document' });
    expect(await entryAt('mask.dat')).toMatchObject({ kind: 'unknown', outcome: 'unknown' });
    for (const path of ['bodies.txt', 'mask.dat']) {
      await say(path, 'new', 'support-file');
      expect(await entryAt(path)).toMatchObject({ kind: 'support-file', outcome: 'new' });
    }
    await say('mask.dat', AS_PROPOSED);
    expect(await entryAt('mask.dat')).toMatchObject({ kind: 'unknown', outcome: 'unknown' });
  });

  test('is no support file where it is a look', async () => {
    await expect(say('Soft.cube', 'new', 'support-file')).rejects.toMatchObject({ code: 'arrival-kind' });
  });

  test('stands on a shelf, and goes where an editor takes it', async () => {
    const bodies = (await entryAt('bodies.txt')).id;
    const { items } = await acceptArrival(people.librarian, arrival, { entries: [bodies], newShelf: 'Lists' });
    const { item, versions } = await itemFor(people.librarian, must(items[0]));
    expect([item.kind, item.title, versions[0]?.format]).toEqual(['support-file', 'bodies', 'txt']);
    const version = must(versions[0]).id;
    await approve(people.lead, version);
    const room = await addStation('Room', 'macos', ['oxbow@2', 'tessel@7']);
    const { steps } = await rolloutFor(people.lead, await planned({ versions: [version], stations: [room] }));
    expect(steps.map(({ do_what, path, note }) => [do_what, path, note])).toEqual([
      ['put', 'Oxbow/Support/bodies.txt', ''],
      ['none', '', 'Tessel 7 takes no support files'],
    ]);
  });

  test('gets a new version by another file, and no look is a version of it', async () => {
    const [held] = (await searchItems(people.librarian, { q: 'bodies' })).rows;
    arrival = await arrive({
      'bodies.txt': bytesOf('PA-2 = Perrin Alder, infrared\nPA-9 = Perrin Alder, infrared\n'),
      'Other.cube': bytesOf('LUT_1D_SIZE 2\n0 0 0\n0.9 1 1\n'),
    });
    const itemId = must(held).id;
    const correct = async (path: string) =>
      correctEntries(people.librarian, arrival, {
        entries: [(await entryAt(path)).id],
        outcome: 'version',
        kind: 'support-file',
        itemId,
      });
    await expect(correct('Other.cube')).rejects.toMatchObject({ code: 'arrival-kind' });
    await correct('bodies.txt');
    const entries = [(await entryAt('bodies.txt')).id];
    expect(await acceptArrival(people.librarian, arrival, { entries, newShelf: 'More lists' })).toMatchObject({
      items: [],
      versions: 1,
    });
    expect((await itemFor(people.librarian, itemId)).versions.map(({ number }) => number)).toEqual([2, 1]);
  });
});
