/** What may not be spread counts the stations to which it goes, not those that were chosen. */
import { beforeAll, expect, test } from 'vitest';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { addLicence } from '../licences/service';
import { moveRollout, rolloutFor } from './service';
import { addStation, approvedLook, enrolled, planned, report } from './testing/world';

withDatabase();

let desk = '';
let other = '';
let bare = '';
let version = '';

beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  [desk, other] = [await addStation('Desk', 'linux', ['oxbow@2']), await addStation('Other', 'linux', ['oxbow@2'])];
  bare = await addStation('Bare', 'linux', []);
  for (const station of [desk, other]) await report(await enrolled(station, 'linux'), []);
  const look = await approvedLook(0);
  version = look.versionId;
  await pool().query("update item set supplier = 'Fathom Color', licence_id = $2 where id = $1", [
    look.itemId,
    await addLicence(people.librarian, { name: 'One', may_spread: 'no' }),
  ]);
});

test('a station where no editor takes it is left out of the plan, and takes no leave', async () => {
  const id = await planned({ versions: [version], stations: [desk, bare] });
  const { steps } = await rolloutFor(people.librarian, id);
  expect(steps.filter((step) => step.do_what === 'put').map((step) => step.station_id)).toEqual([desk]);
  await moveRollout(people.librarian, id, { verb: 'confirm' });
});

test('two that take it are one too many', async () => {
  await expect(planned({ versions: [version], stations: [desk, other, bare] })).rejects.toMatchObject({
    code: 'licence-forbids',
  });
});
