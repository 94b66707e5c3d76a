/** Many items at once: approved, their encodings said, changed, moved, and each of these taken back. */
import { strToU8 } from 'fflate';
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { cubeOf } from '@/demo/files';
import { putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { addShelf, moveBack, moveItems } from '../shelves/service';
import { approveItems, confirmEncodings, takeApprovalBack } from './approval';
import { addVersion, createItem } from './create';
import { applyBulk, editItem, undoBulk } from './edit';

withDatabase();
const actor = () => ({ personId: people.librarian.id, name: people.librarian.name });
const encoding = {
  primaries: 'sRGB',
  transfer: 'sRGB',
  range: 'full',
  output: null,
  referred: 'display',
  white: 'D65',
} as const;
let shelf = '';
let other = '';
beforeAll(async () => {
  shelf = await addShelf(people.librarian, { name: 'One' });
  other = await addShelf(people.librarian, { name: 'Other' });
});

let warmth = 0;
async function look(title: string, kind: 'look' | 'preset' = 'look'): Promise<{ itemId: string; versionId: string }> {
  warmth += 3;
  const bytes = Buffer.from(strToU8(cubeOf({ title, headings: [], settings: { warmth } }, 3)));
  return transaction(async (sql) =>
    createItem(sql, actor(), {
      kind,
      title,
      headings: [],
      shelfId: shelf,
      supplier: '',
      sha: await putBlob(sql, bytes),
      fileName: `${title}.cube`,
      format: 'cube',
      facts: kind === 'preset' ? { settings: { warmth } } : { kind: '3d', size: 3 },
      selvedge: null,
      notes: '',
    }),
  );
}
const looks = async (...titles: string[]) => Promise.all(titles.map(async (title) => (await look(title)).itemId));
const statusOf = async (items: string[]) =>
  (await many<{ status: string }>(pool(), 'select status from item where id = any ($1) order by title', [items])).map(
    (row) => row.status,
  );

describe('approval', () => {
  test('takes what can be approved, and says of the rest why not', async () => {
    const items = await looks('A1', 'A2');
    const preset = (await look('A3', 'preset')).itemId;
    const waiting = await approveItems(people.librarian, { items: [...items, preset] });
    expect(waiting.left.map((one) => one.why)).toEqual(Array(2).fill('its encoding is only assumed'));
    expect(await statusOf([...items, preset])).toEqual(['draft', 'draft', 'approved']);

    const said = await confirmEncodings(people.librarian, { items: [...items, preset], encoding });
    expect(said).toMatchObject({ versions: 2, left: [{ why: 'only looks have an encoding' }] });
    const done = await approveItems(people.librarian, { items: [...items, preset] });
    expect(done.versions).toHaveLength(2);
    expect(done.left).toEqual([{ id: preset, title: 'A3', why: 'version 1 is approved already' }]);
    expect(await statusOf(items)).toEqual(['approved', 'approved']);
  });

  test('takes the newest of each variant, and no older one', async () => {
    const { itemId, versionId } = await look('B1');
    const more = (variant: string) =>
      transaction(async (sql) => {
        const sha = await putBlob(sql, Buffer.from(strToU8(cubeOf({ title: variant, headings: [], settings: {} }, 3))));
        return addVersion(sql, actor(), itemId, {
          kind: 'look',
          sha,
          fileName: 'b.cube',
          format: 'cube',
          facts: {},
          selvedge: null,
          notes: '',
          variant,
        });
      });
    const newer = await more('');
    const rendered = await more('for rendered files');
    await confirmEncodings(people.librarian, { items: [itemId], encoding });
    const { versions } = await approveItems(people.librarian, { items: [itemId] });
    expect(versions.sort()).toEqual([newer, rendered].sort());
    expect(versions).not.toContain(versionId);
  });

  test('is taken back by who gave it, as long as nothing uses it', async () => {
    const items = await looks('C1', 'C2');
    await confirmEncodings(people.librarian, { items, encoding });
    const { versions } = await approveItems(people.librarian, { items });
    await expect(takeApprovalBack(people.lead, { versions })).rejects.toMatchObject({ code: 'approved-used' });
    expect(await statusOf(items)).toEqual(['approved', 'approved']);
    expect(await takeApprovalBack(people.librarian, { versions })).toEqual({ changed: 2 });
    expect(await statusOf(items)).toEqual(['draft', 'draft']);
    await expect(approveItems(people.retoucher, { items })).rejects.toMatchObject({ code: 'not-allowed' });
  });

  test('is not taken back from what is a house choice by now', async () => {
    const items = await looks('Choice');
    await confirmEncodings(people.librarian, { items, encoding });
    const { versions } = await approveItems(people.librarian, { items });
    await pool().query(
      `
        insert into house_choice (client, camera, light, file_kind, look_version_id, strength, person_id)
        values ('Museum', '', '', '', $1, 100, $2)
      `,
      [versions[0], people.librarian.id],
    );
    await expect(takeApprovalBack(people.librarian, { versions })).rejects.toMatchObject({ code: 'approved-used' });
    expect(await statusOf(items)).toEqual(['approved']);
  });

  test('two who approve the same at once: each version once, and nobody waits for ever', async () => {
    const items = await looks('D1', 'D2', 'D3');
    await confirmEncodings(people.librarian, { items, encoding });
    const both = await Promise.all([
      approveItems(people.librarian, { items }),
      approveItems(people.lead, { items: [...items].reverse() }),
    ]);
    expect(both.flatMap((one) => one.versions)).toHaveLength(3);
  });
});

describe('a change of many', () => {
  test('is taken back but for what was changed since', async () => {
    const items = await looks('E1', 'E2');
    const { undo } = await applyBulk(people.librarian, {
      items,
      title: { pattern: '{title} new' },
      set: { supplier: 'Fathom Color', headings: ['Sea'] },
    });
    await editItem(people.librarian, must(items[0]), {
      revision: 2,
      base: {},
      mine: { supplier: 'Sable Row' },
    });
    const back = await undoBulk(people.librarian, undo);
    expect(back).toMatchObject({ changed: 2, left: [{ why: 'supplier changed since' }] });
    const rows = await many(pool(), 'select title, supplier, headings from item where id = any ($1) order by title', [
      items,
    ]);
    expect(rows).toEqual([
      { title: 'E1', supplier: 'Sable Row', headings: [] },
      { title: 'E2', supplier: '', headings: [] },
    ]);
  });

  test('takes no other change along that the same person made in between', async () => {
    const items = await looks('H1', 'H2');
    const first = await applyBulk(people.librarian, { items: items.slice(0, 1), set: { supplier: 'One' } });
    const other = await applyBulk(people.librarian, { items: items.slice(1), set: { supplier: 'Two' } });
    await undoBulk(people.librarian, { first: first.undo.first, last: other.undo.last });
    const rows = await many(pool(), 'select supplier from item where id = any ($1) order by title', [items]);
    expect(rows).toEqual([{ supplier: '' }, { supplier: 'Two' }]);
  });

  test('is not taken back by somebody else', async () => {
    const items = await looks('F1');
    const { undo } = await applyBulk(people.librarian, { items, set: { supplier: 'Fathom Color' } });
    expect(await undoBulk({ ...people.librarian, id: people.lead.id }, undo)).toEqual({ changed: 0, left: [] });
  });
});

test('items that were moved go back to where each stood', async () => {
  const items = await looks('G1', 'G2', 'G3', 'G4', 'G5');
  const order = async (of: string) =>
    (
      await many<{ title: string }>(
        pool(),
        `select title from item where shelf_id = $1 and title like 'G%' order by shelf_order, id`,
        [of],
      )
    ).map((row) => row.title);
  const [, second, third, , fifth] = items;
  const before = await order(shelf);
  const { places } = await moveItems(people.librarian, {
    items: [must(fifth), must(second), must(third)],
    shelfId: other,
    before: null,
  });
  expect(await order(other)).toEqual(['G5', 'G2', 'G3']);
  await moveBack(people.librarian, { places });
  expect(await order(shelf)).toEqual(before);
  expect(await order(other)).toEqual([]);
});
