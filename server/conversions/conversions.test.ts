/** Conversions of many, against the database: planned, changed, carried through, interrupted, made again. */
import { beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { oxbowPreset } from '@/core/preset/testing';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { cubeOf } from '@/demo/files';
import { pool, transaction } from '../db/pool';
import { many, one } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { addVersion } from '../items/create';
import { itemFor, lineageOf } from '../items/service';
import { itemOf } from '../items/testing/item-of';
import { jobById } from '../jobs/queries';
import { runJob, type JobHandler } from '../jobs/service';
import { addLicence } from '../licences/service';
import { actorOf } from '../people/roles';
import { putBlob } from '../blobs/service';
import { recognise } from '@/core/recognise';
import { descriptors } from '../editors/service';
import { addShelf } from '../shelves/service';
import { planConversion } from './planning';
import { giveUpConversion, runConversion } from './running';
import { changeConversion, changeRows, conversionFor, moveConversion, planAgainOf, planConversionOf } from './service';

withDatabase();
const handlers: Record<string, JobHandler> = { 'conversion-plan': planConversion, conversion: runConversion };
let shelf = '';
let elsewhere = '';
let shelves = 0;

beforeAll(async () => {
  for (const descriptor of [oxbow2, marlstone4])
    await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, descriptor, 'd'));
  elsewhere = await addShelf(people.librarian, { name: 'Elsewhere' });
});
beforeEach(async () => {
  shelf = await addShelf(people.librarian, { name: `Shelf ${++shelves}` });
});

const lamp = (stops: number) => `<rdf:li run:step="lamp" run:stops="${stops}"/>`;
const grain = '<rdf:li run:step="edge" run:relief="0.2"/>';
const text = (title: string, steps: string) => oxbowPreset(steps, { title, headings: ['Autumn'] });
const preset = (title: string, steps: string) => itemOf(text(title, steps), `${title}.xmp`, { shelfId: shelf });

/** Works the conversion's job, as the worker does. */
async function work(id: string): Promise<void> {
  const { conversion } = await conversionFor(people.librarian, id);
  await runJob(must(conversion.job_id), handlers);
}
async function planned(items: string[]): Promise<string> {
  const id = await planConversionOf(people.librarian, { items });
  await work(id);
  return id;
}
const start = async (id: string): Promise<void> => {
  await moveConversion(people.librarian, id, { verb: 'start' });
  await work(id);
};
const statuses = async (id: string) => (await conversionFor(people.librarian, id)).rows.map((row) => row.status);
const titlesOf = async (kind: string) =>
  (
    await many<{ title: string }>(pool(), 'select title from item where shelf_id = $1 and kind = $2 order by title', [
      shelf,
      kind,
    ])
  ).map(({ title }) => title);

describe('a plan', () => {
  test('says of each row what is carried, what is left and how far it will be off, and makes nothing', async () => {
    const a = await preset('Side Light', lamp(0.5) + grain);
    const b = await preset('Rim Light', lamp(-0.4));
    const id = await planned([a.itemId, b.itemId]);
    const view = await conversionFor(people.librarian, id);
    expect(view.conversion).toMatchObject({ status: 'planned', title: 'Side Light and 1 more' });
    const [first, second] = view.rows;
    expect(first).toMatchObject({ status: 'planned', name: 'Side Light', clashes: false });
    expect(first?.outcome).toMatchObject({ said: 'table of 33 points', carried: ['level'] });
    expect(first?.outcome?.left).toMatchObject([{ setting: 'localContrast' }]);
    expect(first?.outcome?.error?.maxDeltaE).toBeGreaterThan(0);
    expect(second?.outcome?.left).toEqual([]);
    expect(await titlesOf('look')).toEqual([]);
  });

  test('says of what cannot be made why, and goes on with the rest', async () => {
    const only = await preset('Only Relief', grain);
    const good = await preset('Good', lamp(0.2));
    const licenceId = await addLicence(people.librarian, { name: `No ${shelf}`, may_convert: 'no', may_spread: 'no' });
    const bought = await preset('Bought', lamp(0.3));
    await pool().query('update item set licence_id = $2, supplier = $3 where id = $1', [
      bought.itemId,
      licenceId,
      'Kiln',
    ]);
    const id = await planned([only.itemId, good.itemId, bought.itemId]);
    expect(await statuses(id)).toEqual(['refused', 'planned', 'refused']);
    const { rows } = await conversionFor(people.librarian, id);
    expect(rows.map((row) => row.problem?.code ?? null)).toEqual(['convert-empty', null, 'licence-forbids']);
  });

  test('of a mixed choice takes the recipe for most of it', async () => {
    const look = await itemOf(cubeOf({ title: 'Ash', headings: [], settings: { warmth: 9 } }, 5), 'Ash.cube', {
      shelfId: shelf,
    });
    const some = await Promise.all([preset('One', lamp(0.1)), preset('Two', lamp(0.2))]);
    const id = await planned([look.itemId, ...some.map((made) => made.itemId)]);
    expect(await statuses(id)).toEqual(['refused', 'planned', 'planned']);
  });

  test('of a shelf or a pack takes all that can be converted; of nothing it is refused', async () => {
    await preset('One', lamp(0.1));
    await preset('Two', lamp(0.2));
    const id = await planConversionOf(people.librarian, { shelf });
    expect((await conversionFor(people.librarian, id)).rows.map((row) => row.name).sort()).toEqual(['One', 'Two']);
    await expect(planConversionOf(people.librarian, { shelf: elsewhere })).rejects.toMatchObject({
      code: 'convert-nothing',
    });
    await expect(planConversionOf(people.librarian, {})).rejects.toMatchObject({ code: 'convert-nothing' });
  });

  test('is changed by another recipe, which is worked out anew, and by exceptions', async () => {
    const a = await preset(
      'Side Light',
      lamp(0.5) + '<rdf:li run:step="petal" run:at="40" run:span="80" run:rich="20"/>',
    );
    const b = await preset('Rim Light', lamp(-0.4));
    const id = await planned([a.itemId, b.itemId]);
    await changeConversion(people.librarian, id, { recipe: { tool: 'bake', size: 17, leave: ['level'] } });
    expect((await conversionFor(people.librarian, id)).conversion.status).toBe('planning');
    await work(id);
    const [first] = (await conversionFor(people.librarian, id)).rows;
    expect(first?.outcome).toMatchObject({ said: 'table of 17 points', carried: ['hueSectors'] });
    expect(await statuses(id)).toEqual(['planned', 'refused']);
    await changeRows(people.librarian, id, { places: [2], leave: [] });
    await work(id);
    expect(await statuses(id)).toEqual(['planned', 'planned']);
    const [, second] = (await conversionFor(people.librarian, id)).rows;
    expect(second?.recipe).toEqual({ tool: 'bake', size: 17, leave: [] });
    // as the rest again
    await changeRows(people.librarian, id, { places: [2], leave: ['level'] });
    expect((await conversionFor(people.librarian, id)).rows[1]?.recipe).toBeNull();
  });

  test('goes on where its job was killed', async () => {
    const items = await Promise.all([1, 2, 3].map((n) => preset(`Light ${n}`, lamp(n / 10))));
    const id = await planConversionOf(people.librarian, { items: items.map((made) => made.itemId) });
    await pool().query(
      `update conversion_row set status = 'planned', outcome = '{"said":"kept"}' where conversion_id = $1 and place = 1`,
      [id],
    );
    await work(id);
    expect((await conversionFor(people.librarian, id)).rows.map((row) => row.outcome?.said)).toEqual([
      'kept',
      'table of 33 points',
      'table of 33 points',
    ]);
  });
});

describe('a run', () => {
  test('makes drafts beside their sources, which know them and the recipe; none of those left out', async () => {
    const items = await Promise.all([1, 2, 3].map((n) => preset(`Light ${n}`, lamp(n / 10))));
    const id = await planned(items.map((made) => made.itemId));
    await changeRows(people.librarian, id, { places: [2], excluded: true });
    await changeConversion(people.librarian, id, { naming: '{heading} {title} baked' });
    await start(id);
    const { conversion, rows } = await conversionFor(people.librarian, id);
    expect(conversion.status).toBe('done');
    expect(rows.map((row) => row.status)).toEqual(['made', 'planned', 'made']);
    expect(await titlesOf('look')).toEqual(['Autumn Light 1 baked', 'Autumn Light 3 baked']);
    const made = await itemFor(people.librarian, must(rows[0]?.made_item_id));
    expect(made.newest).toMatchObject({ status: 'draft', format: 'cube', encoding: { assumed: false } });
    const { sources } = await lineageOf(people.librarian, made);
    expect(sources[0]).toMatchObject({ title: 'Light 1', recipe: { tool: 'bake', size: 33, leave: [] } });
  });

  test('asks once what becomes of names that are borne, also among its own', async () => {
    const twins = await Promise.all([preset('Twin', lamp(0.1)), preset('Twin', lamp(0.2))]);
    await itemOf(cubeOf({ title: 'Twin', headings: [], settings: { warmth: 4 } }, 3), 'Twin.cube', { shelfId: shelf });
    const id = await planned(twins.map((made) => made.itemId));
    expect((await conversionFor(people.librarian, id)).rows.map((row) => row.clashes)).toEqual([true, true]);
    await expect(moveConversion(people.librarian, id, { verb: 'start' })).rejects.toMatchObject({
      code: 'conversion-clash',
    });
    await changeConversion(people.librarian, id, { clash: 'number' });
    expect((await conversionFor(people.librarian, id)).rows.map((row) => row.name)).toEqual(['Twin 2', 'Twin 3']);
    await changeConversion(people.librarian, id, { clash: 'leave' });
    await expect(moveConversion(people.librarian, id, { verb: 'start' })).rejects.toMatchObject({
      code: 'conversion-empty',
    });
    await changeConversion(people.librarian, id, { clash: 'number' });
    await start(id);
    expect(await titlesOf('look')).toEqual(['Twin', 'Twin 2', 'Twin 3']);
    expect((await conversionFor(people.librarian, id)).rows.map((row) => row.name)).toEqual(['Twin 2', 'Twin 3']);
  });

  test('stands on the shelf that is said, and one that fails leaves the rest and is tried again', async () => {
    const items = await Promise.all([preset('Left', lamp(0.1)), preset('Right', lamp(0.2))]);
    const id = await planned(items.map((made) => made.itemId));
    await changeConversion(people.librarian, id, { shelfId: elsewhere });
    const licenceId = await addLicence(people.librarian, { name: `Ask ${shelf}`, may_convert: 'no', may_spread: 'no' });
    const hold = (licence: string | null) =>
      pool().query('update item set licence_id = $2 where id = $1', [must(items[1]).itemId, licence]);
    await hold(licenceId);
    await start(id);
    expect(await statuses(id)).toEqual(['made', 'failed']);
    await hold(null);
    await moveConversion(people.librarian, id, { verb: 'retry' });
    await work(id);
    expect(await statuses(id)).toEqual(['made', 'made']);
    const { n } = await one<{ n: number }>(
      pool(),
      `select count(*)::int as n from item where shelf_id = $1 and kind = 'look' and title in ('Left', 'Right')`,
      [elsewhere],
    );
    expect(n).toBe(2);
  });

  test('is paused and goes on; a job that was overtaken writes nothing', async () => {
    const items = await Promise.all([1, 2, 3].map((n) => preset(`Light ${n}`, lamp(n / 10))));
    const id = await planned(items.map((made) => made.itemId));
    await moveConversion(people.librarian, id, { verb: 'start' });
    const first = must((await conversionFor(people.librarian, id)).conversion.job_id);
    await moveConversion(people.librarian, id, { verb: 'pause' });
    await runJob(first, handlers);
    expect(await statuses(id)).toEqual(['planned', 'planned', 'planned']);
    expect((await jobById(pool(), first))?.status).toBe('cancelled');
    await start(id);
    expect(await statuses(id)).toEqual(['made', 'made', 'made']);
    expect(await titlesOf('look')).toHaveLength(3);
  });

  test('waits where nobody goes on with it, and is started again without making one twice', async () => {
    const items = await Promise.all([1, 2].map((n) => preset(`Light ${n}`, lamp(n / 10))));
    const id = await planned(items.map((made) => made.itemId));
    await start(id);
    await pool().query(`update conversion set status = 'running' where id = $1`, [id]);
    await transaction((sql) => giveUpConversion(sql, { conversion: id }, {} as never));
    expect((await conversionFor(people.librarian, id)).conversion.status).toBe('paused');
    await expect(moveConversion(people.librarian, id, { verb: 'start' })).rejects.toMatchObject({
      code: 'conversion-empty',
    });
    expect(await titlesOf('look')).toHaveLength(2);
  });

  test('of presets for an editor makes forms of the same items; of looks, companions and other files', async () => {
    const source = await preset('Side Light', lamp(0.5));
    const id = await planConversionOf(people.librarian, {
      items: [source.itemId],
      recipe: { tool: 'preset', to: 'marlstone@4' },
    });
    await work(id);
    await start(id);
    expect((await itemFor(people.librarian, source.itemId)).forms.map((form) => form.variant)).toEqual([
      '',
      'Marlstone 4',
    ]);
    const look = await itemOf(cubeOf({ title: 'Ash', headings: [], settings: { warmth: 9 } }, 5), 'Ash.cube', {
      shelfId: shelf,
    });
    for (const recipe of [
      { tool: 'companion', to: 'oxbow@2', strength: 60 },
      { tool: 'derive', form: 'clf', points: 17 },
    ] as const) {
      const other = await planConversionOf(people.librarian, { items: [look.itemId], recipe });
      await work(other);
      await start(other);
      expect(await statuses(other)).toEqual(['made']);
    }
    expect(await titlesOf('look')).toEqual(['Ash', 'Ash, CLF']);
    expect(await titlesOf('preset')).toEqual(['Ash', 'Side Light']);
  });
});

describe('made again', () => {
  const newer = (itemId: string, title: string, steps: string) =>
    transaction(async (sql) => {
      const bytes = Buffer.from(text(title, steps));
      const { kind, format, facts } = recognise(`${title}.xmp`, bytes, await descriptors(sql));
      return addVersion(sql, actorOf(people.librarian), itemId, {
        kind: kind as 'preset',
        sha: await putBlob(sql, bytes),
        fileName: `${title}.xmp`,
        format,
        facts,
        selvedge: null,
        notes: '',
      });
    });

  test('is what was made of sources that are newer now: by the same recipe, told with what changes', async () => {
    const source = await preset('Side Light', lamp(0.5));
    const id = await planned([source.itemId]);
    await changeConversion(people.librarian, id, { recipe: { tool: 'bake', size: 17, leave: [] } });
    await work(id);
    await start(id);
    const result = must((await conversionFor(people.librarian, id)).rows[0]?.made_item_id);
    await expect(planAgainOf(people.librarian, { items: [result] })).rejects.toMatchObject({ code: 'convert-fresh' });

    await newer(source.itemId, 'Side Light', lamp(0.9));
    const again = await planAgainOf(people.librarian, { items: [result] });
    await work(again);
    const [row] = (await conversionFor(people.librarian, again)).rows;
    expect(row?.outcome).toMatchObject({
      said: 'table of 17 points',
      changes: { settings: [{ setting: 'level', before: 0.5, after: 0.9 }] },
    });
    expect(row?.outcome?.changes?.color?.max).toBeGreaterThan(1);
    await start(again);
    const made = await itemFor(people.librarian, result);
    expect(made.versions.map((version) => version.number)).toEqual([2, 1]);
    expect((await lineageOf(people.librarian, made)).sources[0]).toMatchObject({ number: 2, recipe: { size: 17 } });
    await expect(planAgainOf(people.librarian, { items: [result] })).rejects.toMatchObject({ code: 'convert-fresh' });
    await expect(
      changeConversion(people.librarian, again, { recipe: { tool: 'bake', size: 65, leave: [] } }),
    ).rejects.toMatchObject({ code: 'conversion-state' });
  });
});

describe('who may, and what makes no sense', () => {
  test('a retoucher looks and changes nothing; the lead may', async () => {
    const { itemId } = await preset('Side Light', lamp(0.5));
    await expect(planConversionOf(people.retoucher, { items: [itemId] })).rejects.toMatchObject({
      code: 'not-allowed',
    });
    const id = await planConversionOf(people.lead, { items: [itemId] });
    expect((await conversionFor(people.retoucher, id)).rows).toHaveLength(1);
    await expect(moveConversion(people.retoucher, id, { verb: 'drop' })).rejects.toMatchObject({ code: 'not-allowed' });
  });

  test('a plan is not started before it is worked out, and a dropped one is gone', async () => {
    const { itemId } = await preset('Side Light', lamp(0.5));
    const id = await planConversionOf(people.librarian, { items: [itemId] });
    await expect(moveConversion(people.librarian, id, { verb: 'start' })).rejects.toMatchObject({
      code: 'conversion-state',
    });
    const { job_id } = (await conversionFor(people.librarian, id)).conversion;
    await moveConversion(people.librarian, id, { verb: 'drop' });
    await expect(conversionFor(people.librarian, id)).rejects.toMatchObject({ code: 'not-found' });
    await runJob(must(job_id), handlers);
    expect((await jobById(pool(), must(job_id)))?.status).toBe('cancelled');
  });

  test.each([
    [{ recipe: { tool: 'bake', size: 1 } }, 'input-invalid'],
    [{ recipe: { tool: 'preset', to: '' } }, 'input-invalid'],
    [{ clash: 'shout' }, 'input-invalid'],
    [{ shelfId: '00000000-0000-7000-8000-000000000000' }, 'shelf-unknown'],
  ])('a change to %j is refused', async (change, code) => {
    const { itemId } = await preset('Side Light', lamp(0.5));
    const id = await planConversionOf(people.librarian, { items: [itemId] });
    await expect(changeConversion(people.librarian, id, change as never)).rejects.toMatchObject({ code });
  });
});
