/** Twenty at once: one wins or all do, nobody is told of a fault of ours, and what is counted is true afterwards. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import { cubeOf } from '@/demo/files';
import { acceptArrival, arrivalFor, beginArrival, finishUpload, readArrival, uploadPart } from '../arrivals/service';
import { putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { many, one } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { keepGear } from '../gear/service';
import { runJob } from '../jobs/service';
import { addLicence } from '../licences/service';
import { actorOf } from '../people/roles';
import { addShelf, moveItems, removeShelf } from '../shelves/service';
import { retire } from '../versions/service';
import { addVersion, createItem } from './create';
import { applyBulk } from './edit';
import { setRibbon } from './service';
import { confirmEncoding } from './encoding';
import { approve } from './approval';

withDatabase();
let shelf = '';
beforeAll(async () => {
  shelf = await addShelf(people.librarian, { name: 'Test' });
});

const TIMES = 20;
const bytesOf = (title: string, warmth: number) =>
  Buffer.from(cubeOf({ title, headings: [], settings: { warmth } }, 5));

async function make(title: string, warmth = title.length): Promise<{ itemId: string; versionId: string }> {
  return transaction(async (sql) =>
    createItem(sql, actorOf(people.librarian), {
      kind: 'look',
      title,
      headings: [],
      shelfId: shelf,
      supplier: '',
      sha: await putBlob(sql, bytesOf(title, warmth)),
      fileName: `${title}.cube`,
      format: 'cube',
      facts: { kind: '3d', size: 5 },
      selvedge: null,
      notes: '',
      content: null,
      fingerprint: null,
    }),
  );
}

/** What came of each, by its code; a fault that is no Problem ends the test. */
async function atOnce(work: (n: number) => Promise<unknown>): Promise<Record<string, number>> {
  const outcomes = await Promise.allSettled(Array.from({ length: TIMES }, (_, n) => work(n)));
  const counted: Record<string, number> = {};
  for (const outcome of outcomes) {
    if (outcome.status === 'rejected' && !(outcome.reason instanceof Problem)) throw outcome.reason;
    const code = outcome.status === 'fulfilled' ? 'done' : (outcome.reason as Problem).code;
    counted[code] = (counted[code] ?? 0) + 1;
  }
  return counted;
}

test('changes of many items, each in another order, all come through, and facets are counted right', async () => {
  const items = await Promise.all(Array.from({ length: 12 }, (_, n) => make(`Bulk ${n}`, n)));
  const ids = items.map(({ itemId }) => itemId);
  const turned = (n: number) => [...ids.slice(n % 12), ...ids.slice(0, n % 12)];
  expect(await atOnce((n) => applyBulk(people.librarian, { items: turned(n), addTags: [`tag ${n % 5}`] }))).toEqual({
    done: TIMES,
  });
  const counted = await many<{ facet: string; n: number }>(
    pool(),
    `select facet, n from facet_count where facet like 'tag:tag %' order by facet`,
  );
  expect(counted).toEqual([0, 1, 2, 3, 4].map((n) => ({ facet: `tag:tag ${n}`, n: 12 })));
});

test('versions given to one item have numbers one after the other', async () => {
  const { itemId } = await make('Versions');
  const outcomes = await atOnce((n) =>
    transaction(async (sql) =>
      addVersion(sql, actorOf(people.librarian), itemId, {
        kind: 'look',
        sha: await putBlob(sql, bytesOf('Versions', 100 + n)),
        fileName: 'Versions.cube',
        format: 'cube',
        facts: { kind: '3d', size: 5 },
        selvedge: null,
        notes: '',
        content: null,
        fingerprint: null,
      }),
    ),
  );
  expect(outcomes).toEqual({ done: TIMES });
  const numbers = await many<{ number: number }>(
    pool(),
    'select number from version where item_id = $1 order by number',
    [itemId],
  );
  expect(numbers.map(({ number }) => number)).toEqual(Array.from({ length: TIMES + 1 }, (_, n) => n + 1));
});

test('of approving and retiring one version, each is done once, and the log tells the order', async () => {
  const { versionId } = await make('Approved or not');
  await confirmEncoding(people.librarian, versionId, {
    primaries: 'sRGB',
    transfer: 'sRGB',
    range: 'full',
    referred: 'display',
    white: 'D65',
  });
  const outcomes = await atOnce((n) => (n % 2 ? approve : retire)(people.lead, versionId));
  const { status } = await one<{ status: string }>(pool(), 'select status from version where id = $1', [versionId]);
  expect(status).toBe('retired');
  expect(outcomes.done).toBeLessThanOrEqual(2);
  expect(outcomes.status).toBe(TIMES - must(outcomes.done));
});

describe('the same content', () => {
  async function delivered(name: string): Promise<string> {
    const bytes = bytesOf('Twice', 77);
    const begun = await beginArrival(people.librarian, { name, files: [{ path: 'twice.cube', size: bytes.length }] });
    const { id } = must(begun.files[0]);
    await uploadPart(people.librarian, id, 0, bytes);
    await finishUpload(people.librarian, id);
    await runJob(must((await arrivalFor(people.librarian, begun.arrival)).arrival.job_id), { arrival: readArrival });
    return begun.arrival;
  }

  test('that two deliveries hold becomes one item', async () => {
    const arrivals: string[] = [];
    for (let n = 0; n < 6; n++) arrivals.push(await delivered(`Delivery ${n}`));
    const outcomes = await Promise.allSettled(
      arrivals.map((arrival) => acceptArrival(people.librarian, arrival, { shelfId: shelf })),
    );
    expect(outcomes.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    for (const outcome of outcomes)
      if (outcome.status === 'rejected') expect(outcome.reason).toMatchObject({ code: 'arrival-held' });
    expect(await many(pool(), `select 1 from item where title = 'Twice'`)).toHaveLength(1);
  });
});

test('an item goes onto a shelf or the shelf goes away, never both', async () => {
  for (let round = 0; round < 5; round++) {
    const going = await addShelf(people.librarian, { name: `Going ${round}` });
    const { itemId } = await make(`Moved ${round}`, 50 + round);
    await Promise.allSettled([
      moveItems(people.librarian, { items: [itemId], shelfId: going }),
      removeShelf(people.librarian, going),
    ]);
    const { lost } = await one<{ lost: boolean }>(
      pool(),
      `
        select s.archived_at is not null as lost
        from item i join shelf s on s.id = i.shelf_id
        where i.id = $1
      `,
      [itemId],
    );
    expect(lost).toBe(false);
  }
});

test('a name is given once', async () => {
  expect(await atOnce(() => addLicence(people.librarian, { name: 'One name' }).catch(told))).toMatchObject({ done: 1 });
  const camera = { maker: 'Korva', model: 'M4' };
  expect(await atOnce(() => keepGear(people.librarian, 'camera', null, camera).catch(told))).toMatchObject({ done: 1 });
});

test('a ribbon is put on once, however often it is asked for', async () => {
  const { itemId } = await make('Ribboned');
  expect(await atOnce(() => setRibbon(people.lead, itemId, { on: true, whose: 'mine' }))).toEqual({ done: TIMES });
  expect(await many(pool(), 'select 1 from ribbon where item_id = $1', [itemId])).toHaveLength(1);
});

/** What the door makes of a refusal of the database: a Problem. */
async function told(error: unknown): Promise<never> {
  const { refusalOf } = await import('../db/faults');
  throw refusalOf(error) ?? error;
}
