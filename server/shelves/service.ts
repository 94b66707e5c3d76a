/** Shelves themselves: made, named, ordered, put away and brought back; self-filling ones from saved searches; items moved among them. */
import type { AnswerOf, BodyOf } from '@/core/api';
import { shelfEndpoints, type ItemPlace } from '@/core/api/shelves';
import { groupBy } from '@/core/lists';
import { must } from '@/core/must';
import { v7 } from 'uuid';
import { Problem } from '@/core/problem';
import { pool, transaction, type Sql } from '../db/pool';
import { shelfToPutOn } from '../items/create';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import * as q from '../items/queries';

/** Throws where another shelf has the name. */
async function refuseName(sql: Sql, id: string, name: string): Promise<void> {
  const named = await q.shelfNamed(sql, name);
  if (named && named.id !== id)
    throw new Problem(
      'shelf-exists',
      `There is a shelf called ${named.name} already.`,
      'name',
      'Choose another name, or use that shelf.',
    );
}

/** A shelf; with a query, one that fills itself by that search. */
export async function addShelf(person: Person, input: BodyOf<'POST /api/shelves'>): Promise<string> {
  allow(person, input.query ? 'search.save' : 'shelf.edit');
  const shelf = checked(shelfEndpoints['POST /api/shelves'].body, input) as {
    name: string;
    note: string;
    query?: q.SavedSearch | null;
  };
  const id = v7();
  if (shelf.query && !Object.values(shelf.query).some(Boolean))
    throw new Problem(
      'shelf-search',
      'There is nothing to search by.',
      'query',
      'Type some words or choose a facet first.',
    );
  await transaction(async (sql) => {
    await refuseName(sql, id, shelf.name);
    await q.insertShelf(sql, {
      id,
      name: shelf.name,
      note: shelf.note,
      position: (await q.lastShelfPosition(sql)) + 1,
      query: shelf.query ?? null,
    });
    await record(sql, actorOf(person), 'shelf', id, 'made', null, {
      name: shelf.name,
      ...(shelf.query ? { query: shelf.query } : {}),
    });
  });
  return id;
}

const gone = (id: string): Problem => new Problem('shelf-unknown', 'There is no such shelf.', id, 'Reload the page.');

export async function changeShelf(person: Person, id: string, input: BodyOf<'PATCH /api/shelves/:id'>): Promise<void> {
  allow(person, 'shelf.edit');
  const changed = checked(shelfEndpoints['PATCH /api/shelves/:id'].body, input);
  await transaction(async (sql) => {
    const before = await q.shelfById(sql, id);
    if (!before) throw gone(id);
    await refuseName(sql, id, changed.name);
    await q.renameShelf(sql, id, changed.name, changed.note);
    await record(
      sql,
      actorOf(person),
      'shelf',
      id,
      'renamed',
      { name: before.name },
      { name: changed.name, note: changed.note },
    );
  });
}

/** Takes an empty or a self-filling shelf away. */
export async function removeShelf(person: Person, id: string): Promise<void> {
  allow(person, 'shelf.edit');
  await transaction(async (sql) => {
    await q.lockShelf(sql, id);
    const before = await q.shelfById(sql, id);
    if (!before) throw gone(id);
    if (await q.shelfHolds(sql, id))
      throw new Problem(
        'shelf-full',
        `Items stand on ${before.name}.`,
        before.name,
        'Move them to another shelf first.',
      );
    await q.archiveShelf(sql, id);
    await record(sql, actorOf(person), 'shelf', id, 'taken away', { name: before.name }, null);
  });
}

/** Puts a shelf away for oneself, or brings it back. */
export async function putAway(person: Person, id: string, away: boolean): Promise<void> {
  allow(person, 'ribbon.own');
  const sql = pool();
  if (!(await q.shelfById(sql, id))) throw gone(id);
  await (away ? q.shelfAway(sql, id, person.id) : q.shelfBack(sql, id, person.id));
}

/** The order of the shelves, by hand. */
export async function orderShelves(person: Person, input: BodyOf<'POST /api/shelves/order'>): Promise<void> {
  allow(person, 'shelf.edit');
  const { shelves } = checked(shelfEndpoints['POST /api/shelves/order'].body, input);
  await transaction(async (sql) => {
    await q.placeShelves(sql, shelves as string[]);
    await record(sql, actorOf(person), 'shelf', must(shelves[0]), 'shelves ordered', null, { count: shelves.length });
  });
}

/** Moves items onto a shelf, before another item or to its end; their order among themselves is as given. Answers where they stood. */
export async function moveItems(
  person: Person,
  input: BodyOf<'POST /api/shelves/items'>,
): Promise<{ places: ItemPlace[] }> {
  allow(person, 'item.edit');
  const moving = checked(shelfEndpoints['POST /api/shelves/items'].body, input) as {
    items: string[];
    shelfId: string;
    before: string | null;
  };
  return transaction(async (sql) => {
    await q.lockShelf(sql, moving.shelfId);
    const shelf = await shelfToPutOn(sql, moving.shelfId);
    const places = await q.placesOf(sql, moving.items);
    const order = (await q.shelfOrder(sql, moving.shelfId)).filter((id) => !moving.items.includes(id));
    const at = moving.before ? order.indexOf(moving.before) : -1;
    const from = await q.shelvesOf(sql, moving.items);
    order.splice(at < 0 ? order.length : at, 0, ...moving.items);
    await q.placeItems(sql, moving.shelfId, order, moving.items);
    for (const item of from)
      if (item.shelf_id !== moving.shelfId)
        await record(sql, actorOf(person), 'item', item.id, 'moved', { shelf: item.shelf }, { shelf: shelf.name });
    await record(sql, actorOf(person), 'shelf', moving.shelfId, 'ordered', null, { items: moving.items.length });
    return { places };
  });
}

/** Puts items back where they stood: each before the one that followed it, or at the end where that is not there any more. */
export async function moveBack(person: Person, input: BodyOf<'POST /api/shelves/items/back'>): Promise<void> {
  allow(person, 'item.edit');
  const { places } = checked(shelfEndpoints['POST /api/shelves/items/back'].body, input);
  await transaction(async (sql) => {
    for (const [shelfId, mine] of groupBy(places, (place) => place.shelfId)) {
      await q.lockShelf(sql, shelfId);
      await shelfToPutOn(sql, shelfId);
      const moved = mine.map(({ item }) => item);
      const order = (await q.shelfOrder(sql, shelfId)).filter((id) => !moved.includes(id));
      for (const { item, before } of mine) {
        const at = before ? order.indexOf(before) : -1;
        order.splice(at < 0 ? order.length : at, 0, item);
      }
      await q.placeItems(sql, shelfId, order, moved);
      await record(sql, actorOf(person), 'shelf', shelfId, 'ordered', null, { items: moved.length });
    }
  });
}

/** The headings on a shelf, which its board can fold. */
export async function headingsOfShelf(person: Person, id: string): Promise<AnswerOf<'GET /api/shelves/:id/headings'>> {
  allow(person, 'view');
  return { headings: await q.headingsOf(pool(), id) };
}

/** A shelf's items put in the order of their headings, then of their position numbers, then of their titles. */
export async function orderByHeadings(person: Person, id: string): Promise<void> {
  allow(person, 'item.edit');
  await transaction(async (sql) => {
    const shelf = await q.shelfById(sql, id);
    if (!shelf) throw gone(id);
    if (shelf.query)
      throw new Problem(
        'shelf-search',
        `${shelf.name} fills itself by a search, which has an order of its own.`,
        shelf.name,
        'Choose another shelf.',
      );
    await q.lockShelf(sql, id);
    const order = await q.headingsOrder(sql, id);
    await q.placeItems(sql, id, order, []);
    await record(sql, actorOf(person), 'shelf', id, 'ordered by headings', null, { items: order.length });
  });
}
