/** Files at a station of which somebody wants to hear no more: until they are changed, or until somebody does. */
import { beforeAll, expect, test } from 'vitest';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { addStation, enrolled, report, sha } from '../rollouts/testing/world';
import { ignoredThere, setIgnored } from './ignored';
import { foundCount, takeInFound } from './station-arrival';

withDatabase();

let desk = '';
let token = '';
const [clay, dust] = ['Oxbow/Looks/Clay.cube', 'Oxbow/Looks/Dust.cube'];

const lies = (contents: Record<string, string>) =>
  report(
    token,
    Object.entries(contents).map(([path, text]) => ({ path, size: 1, sha256: sha(text) })),
  );
const set = (verb: 'ignore' | 'tell', ...paths: string[]) => setIgnored(people.librarian, desk, { verb, paths });
const ignored = async () => [...(await ignoredThere(people.retoucher, desk))];
const found = () => foundCount(people.librarian, desk);

beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  desk = await addStation('Desk', 'linux', ['oxbow@2']);
  token = await enrolled(desk, 'linux');
  await lies({ [clay]: 'clay', [dust]: 'dust' });
});

test('what is ignored is neither counted nor taken in, and said so', async () => {
  expect(await found()).toBe(2);
  await set('ignore', clay);
  expect([await found(), await ignored()]).toEqual([1, [clay]]);
  await set('ignore', dust);
  await expect(takeInFound(people.librarian, desk)).rejects.toMatchObject({ code: 'found-nothing' });
  const events = await many<{ action: string }>(pool(), "select action from event where action = 'ignored'");
  expect(events).toHaveLength(2);
});

test('it is told of again where somebody has changed it, or wants to hear of it', async () => {
  await lies({ [clay]: 'clay, fired', [dust]: 'dust' });
  expect([await found(), await ignored()]).toEqual([1, [dust]]);
  await set('tell', dust);
  expect([await found(), await ignored()]).toEqual([2, []]);
  // as it is now, it is ignored anew
  await set('ignore', clay);
  expect(await ignored()).toEqual([clay]);
});

test('what does not lie there is not ignored', async () => {
  await expect(set('ignore', 'Oxbow/Looks/Other.cube')).rejects.toThrow(/None of these files lies on Desk/);
  await expect(set('tell', dust)).rejects.toThrow(/None of these files/);
});
