/** Standing orders: which stations follow which shelves, packs and choices of the house; what is due by that, and its plan. */
import type { BodyOf } from '@/core/api';
import { orderEndpoints } from '@/core/api/orders';
import { distinct } from '@/core/lists';
import { Problem } from '@/core/problem';
import { countsByStation, type DueAt, type Followed, type Standing } from '@/core/sync/standing';
import { isUuid } from '@/core/uuid';
import { v7 } from 'uuid';
import type { InferType } from 'yup';
import { record } from '../activity/queries';
import { pool, transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import { planRollout } from '../rollouts/planning';
import { searchItems } from '../search/service';
import { followedItems, standingAt } from './standing';
import * as q from './queries';

export type { OrderRow } from './queries';

/** So many items of a self-filling shelf are followed. */
const MOST_FOUND = 2000;
/** A rollout takes so many versions. */
const MOST_PLANNED = 500;

const missing = (id: string): Problem =>
  new Problem(
    'not-found',
    'There is no such standing order.',
    id,
    'Go back to Stations; somebody may have removed it.',
  );

type Order = InferType<(typeof orderEndpoints)['POST /api/orders']['body']>;

/** Throws where nothing is followed, or another order has the name. */
async function refuseUnfit(sql: Sql, id: string, order: Order): Promise<void> {
  if (!order.shelves.length && !order.packs.length && !order.ribbons && !order.choices)
    throw new Problem(
      'order-empty',
      'Nothing is followed by this order.',
      'shelves',
      'Choose at least a shelf, a pack, the everyday list or the house choices.',
    );
  const named = await q.orderNamed(sql, order.name);
  if (named && named.id !== id)
    throw new Problem(
      'order-exists',
      `There is a standing order called ${order.name} already.`,
      'name',
      'Choose another name.',
    );
}

async function linkAll(sql: Sql, id: string, order: Order): Promise<void> {
  for (const link of q.linkNames) {
    const chosen = distinct(order[link]);
    if ((await q.setLinks(sql, id, link, chosen)) < chosen.length)
      throw new Problem(
        'not-found',
        `One of the chosen ${link} is not there any more.`,
        link,
        'Reload the page, and choose again.',
      );
  }
}

export async function addOrder(person: Person, input: BodyOf<'POST /api/orders'>): Promise<{ id: string }> {
  allow(person, 'rollout.plan');
  const order = checked(orderEndpoints['POST /api/orders'].body, input);
  const id = v7();
  await transaction(async (sql) => {
    await refuseUnfit(sql, id, order);
    await q.insertOrder(sql, { ...order, id, authorId: person.id });
    await linkAll(sql, id, order);
    await record(sql, actorOf(person), 'order', id, 'made', null, { name: order.name });
  });
  return { id };
}

/** Of two who change one order at once the second is told. */
export async function changeOrder(person: Person, id: string, input: BodyOf<'PATCH /api/orders/:id'>): Promise<void> {
  allow(person, 'rollout.plan');
  const order = checked(orderEndpoints['PATCH /api/orders/:id'].body, input);
  await transaction(async (sql) => {
    const before = await q.lockOrder(sql, id);
    if (!before) throw missing(id);
    if (before.revision !== order.revision)
      throw new Problem(
        'edited-meanwhile',
        'Somebody else has changed this standing order meanwhile.',
        before.name,
        'Reload the page, and change it again.',
      );
    await refuseUnfit(sql, id, order);
    await q.updateOrder(sql, { ...order, id });
    await linkAll(sql, id, order);
    await record(sql, actorOf(person), 'order', id, 'changed', { name: before.name }, { name: order.name });
  });
}

/** What was put by it stays where it lies. */
export async function removeOrder(person: Person, id: string): Promise<void> {
  allow(person, 'rollout.plan');
  await transaction(async (sql) => {
    const before = await q.lockOrder(sql, id);
    if (!before) throw missing(id);
    await q.deleteOrder(sql, id);
    await record(sql, actorOf(person), 'order', id, 'removed', { name: before.name }, null);
  });
}

const idsOf = (things: readonly { id: string }[]): string[] => things.map(({ id }) => id);

/** What an order follows today: of each form of its items the newest approved version. */
async function followedBy(sql: Sql, order: q.OrderRow): Promise<Followed[]> {
  const filling = order.shelves.filter((shelf) => shelf.selfFilling);
  // a self-filling shelf holds what its author would find
  const author: Person = { id: order.author_id, name: order.author, email: '', role: 'librarian' };
  const found = await Promise.all(filling.map(({ id }) => searchItems(author, { shelf: id }, MOST_FOUND)));
  const items = await q.itemsFollowed(sql, {
    shelves: idsOf(order.shelves),
    packs: idsOf(order.packs),
    ribbons: order.ribbons,
    choices: order.choices,
  });
  const all = distinct([...items, ...found.flatMap(({ rows }) => rows.map(({ id }) => id))]);
  return followedItems(sql, all);
}

/** How many files are due by standing orders at each of these stations; those where nothing is are left out. */
export async function dueByStation(person: Person, stations: readonly string[]): Promise<Map<string, number>> {
  allow(person, 'view');
  const sql = pool();
  const due = new Map<string, Set<string>>();
  for (const order of await q.orders(sql)) {
    const here = idsOf(order.stations).filter((id) => stations.includes(id));
    const standing = here.length ? await standingAt(sql, await followedBy(sql, order), here) : [];
    // what two orders ask for is one file
    for (const { station, editor, followed } of standing.filter(isDue))
      due.set(station, (due.get(station) ?? new Set()).add(`${editor} ${followed.version}`));
  }
  return new Map([...due].map(([station, files]) => [station, files.size]));
}

export interface OrderView extends q.OrderRow {
  /** how many forms of items it follows today */ items: number;
  due: DueAt[];
}

export async function ordersFor(person: Person): Promise<OrderView[]> {
  allow(person, 'view');
  const sql = pool();
  return Promise.all(
    (await q.orders(sql)).map(async (order) => {
      const followed = await followedBy(sql, order);
      const counts = countsByStation(await standingAt(sql, followed, idsOf(order.stations)));
      return {
        ...order,
        items: followed.length,
        due: order.stations.map(({ id }) => counts.get(id) ?? { station: id, missing: 0, updates: 0, inStep: 0 }),
      };
    }),
  );
}

/** What is missing, or has a newer version. */
export type Due = Standing & { is: 'missing' | 'update-due' };
const isDue = (one: Standing): one is Due => one.is !== 'in-step';

export interface DueHere {
  order: { id: string; name: string };
  due: Due[];
  /** so many are as they should be */ inStep: number;
}

/** What should lie at one station by each order that it follows, and does not. */
export async function dueAt(person: Person, station: string): Promise<DueHere[]> {
  allow(person, 'view');
  if (!isUuid(station)) return [];
  const sql = pool();
  return Promise.all(
    (await q.ordersOfStation(sql, station)).map(async (order) => {
      const standing = await standingAt(sql, await followedBy(sql, order), [station]);
      const due = standing.filter(isDue);
      return { order: { id: order.id, name: order.name }, due, inStep: standing.length - due.length };
    }),
  );
}

/**
 * Plans what is missing or due by an order, at the stations where something is, or at one of them; of more than a rollout
 * takes, the first.
 */
export async function planOrder(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/orders/:id/plan'> = {},
): Promise<{ rollout: string }> {
  allow(person, 'rollout.plan');
  const { station } = checked(orderEndpoints['POST /api/orders/:id/plan'].body, input);
  const order = isUuid(id) ? await q.orderById(pool(), id) : undefined;
  if (!order) throw missing(id);
  const standing = await standingAt(pool(), await followedBy(pool(), order), idsOf(order.stations));
  const due = standing.filter(isDue).filter((one) => !station || one.station === station);
  if (!due.length)
    throw new Problem(
      'order-in-step',
      'All that this order asks for was put there.',
      order.name,
      'Reload the page; somebody may have brought the stations in step.',
    );
  const versions = distinct(due.map(({ followed }) => followed.version)).slice(0, MOST_PLANNED);
  const planned = new Set(versions);
  const stations = distinct(due.filter(({ followed }) => planned.has(followed.version)).map(({ station }) => station));
  return { rollout: await planRollout(person, { title: order.name, versions, stations }) };
}
