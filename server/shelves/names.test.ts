/** No two shelves that are in use have one name. */
import { readFileSync } from 'node:fs';
import { beforeEach, describe, expect, test } from 'vitest';
import { people, withDatabase } from '../db/testing/database';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { addShelf, changeShelf, removeShelf } from './service';

withDatabase();
beforeEach(() => pool().query('delete from shelf'));

const add = (name: string) => addShelf(people.librarian, { name });

describe('the name of a shelf', () => {
  test('is given once, whatever its capitals, and named to whoever gives it again', async () => {
    await add('House looks');
    await expect(add(' house LOOKS ')).rejects.toMatchObject({
      code: 'shelf-exists',
      message: 'There is a shelf called House looks already.',
    });
    const other = await add('Plaster');
    await expect(changeShelf(people.librarian, other, { name: 'House Looks', note: '' })).rejects.toMatchObject({
      code: 'shelf-exists',
    });
  });

  test('stays when only its note or its capitals change', async () => {
    const id = await add('House looks');
    await changeShelf(people.librarian, id, { name: 'House Looks', note: 'on every desk' });
    expect(await many(pool(), 'select name, note from shelf')).toEqual([
      { name: 'House Looks', note: 'on every desk' },
    ]);
  });

  test('is free again once the shelf is taken away', async () => {
    await removeShelf(people.librarian, await add('House looks'));
    await expect(add('House looks')).resolves.toBeTruthy();
  });

  test('of two from before is told apart by a number, the older keeping it, and no third is met by that', async () => {
    await transaction(async (sql) => {
      await sql.query('drop index shelf_name');
      await sql.query(`
        insert into shelf (id, name, position)
        select gen_random_uuid(), name, position
        from (values ('Plaster', 1), ('plaster', 2), ('Plaster (2)', 3), ('Oak', 4)) old (name, position)
      `);
      await sql.query(readFileSync('db/migrations/0058_shelf_names.sql', 'utf8'));
    });
    const named = await many<{ name: string }>(pool(), 'select name from shelf order by position');
    expect(named.map(({ name }) => name)).toEqual(['Plaster', 'plaster (2)', 'Plaster (2) (2)', 'Oak']);
  });
});
