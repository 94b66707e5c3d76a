/** What holds after each round, whatever was killed. Each is a sentence and a look; what it answers is what is wrong. */
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Done } from './round';
import type { World } from './world';

export interface Invariant {
  name: string;
  /** what does not hold, in words; null where all does */ look: (world: World, done: Done) => Promise<string | null>;
}

const none = (rows: readonly object[]): string | null => (rows.length ? JSON.stringify(rows.slice(0, 3)) : null);

/** Files below a folder, by their path in it. */
function filesBelow(root: string): string[] {
  if (!existsSync(root)) return [];
  return readdirSync(root, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name).slice(root.length + 1));
}

interface Placed {
  name: string;
  path: string;
  sha: string;
}

const keyOf = ({ name, path }: Placed): string => `${name}\n${path}`;

/** What is placed at stations, and does not lie there byte for byte. */
async function misplaced(world: World): Promise<Placed[]> {
  const placed = await world.sql<Placed>(
    `
      select m.name, p.path, encode(p.sha256, 'hex') as sha
      from placement p join station s on s.id = p.station_id join station m on m.id = coalesce(s.host_id, s.id)
    `,
  );
  const roots = new Map(world.stations().map(({ name, root }) => [name, root]));
  return placed.filter(({ name, path, sha }) => {
    const file = join(roots.get(name)!, path);
    return !existsSync(file) || createHash('sha256').update(readFileSync(file)).digest('hex') !== sha;
  });
}

/** Remembers what somebody of the demo has changed at a station before anything is killed: nothing may put that right. */
export async function noteChangedByHand(world: World): Promise<void> {
  world.changedByHand = new Set((await misplaced(world)).map(keyOf));
}

export const invariants: readonly Invariant[] = [
  {
    name: 'every file of the pack is an item, once',
    look: async (world, { titles }) => {
      const rows = await world.sql<{ title: string; n: number }>(
        'select title, count(*)::int as n from item where title = any ($1) group by title',
        [titles],
      );
      return rows.length === titles.length && rows.every(({ n }) => n === 1) ? null : JSON.stringify(rows);
    },
  },
  {
    name: 'every look of the pack is made into a chain, once',
    look: async (world, { titles }) => {
      const rows = await world.sql<{ title: string; n: number }>(
        'select title, count(*)::int as n from item where title = any ($1) group by title',
        [titles.map((title) => `${title}, CLF`)],
      );
      return rows.length === titles.length && rows.every(({ n }) => n === 1) ? null : JSON.stringify(rows);
    },
  },
  {
    name: 'every entry that was taken has its version',
    look: async (world, { arrival }) =>
      none(
        await world.sql(
          `select path, outcome from arrival_entry where arrival_id = $1 and (outcome <> 'new' or version_id is null)`,
          [arrival],
        ),
      ),
  },
  {
    name: 'every content is there, and is what its hash says',
    look: async (world) =>
      none(
        await world.sql(`
          select encode(v.sha256, 'hex') as sha
          from version v
            left join lateral (
              select sha256(string_agg(data, ''::bytea order by n)) as is
              from blob_chunk c
              where c.sha256 = v.sha256
            ) there on true
          where there.is is distinct from v.sha256
        `),
      ),
  },
  {
    name: 'no job is left that nobody works on',
    look: async (world) => {
      const open = () => world.sql(`select id, kind, status from job where status in ('queued', 'running')`);
      await world.until('jobs come to an end', async () => (await open()).length === 0, 90_000).catch(() => {});
      return none(await open());
    },
  },
  {
    name: 'what was placed lies there, byte for byte, and what was undone does not',
    look: async (world, { rollout, undo }) => {
      const wrong = (await misplaced(world)).filter((placed) => !world.changedByHand.has(keyOf(placed)));
      const left = undo
        ? await world.sql('select path from placement where rollout_id = $1', [rollout])
        : await world.sql(
            `select path, outcome from rollout_step where rollout_id = $1 and do_what <> 'none' and outcome is distinct from 'done'`,
            [rollout],
          );
      return none([...wrong, ...left]);
    },
  },
  {
    name: 'no half file is left at a station',
    look: async (world) =>
      none(
        world.stations().flatMap(({ root }) =>
          filesBelow(root)
            .filter((path) => /\.part\b|\.etagere-/.test(path))
            .map((path) => ({ path })),
        ),
      ),
  },
  {
    name: 'there is one studio, and no restore is half done',
    look: async (world) => {
      const rows = await world.sql<{ datname: string }>(
        `select datname from pg_database where datname like 'etagere%'`,
      );
      const names = rows.map(({ datname }) => datname);
      return names.filter((name) => name === 'etagere').length === 1 && !names.some((name) => /restoring/.test(name))
        ? null
        : names.join(', ');
    },
  },
];
