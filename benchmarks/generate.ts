/** Made-up data in bulk: a large pack, a large catalogue, many looks. Deterministic. */
import { once } from 'node:events';
import { createWriteStream, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8, Zip, ZipDeflate } from 'fflate';
import pg from 'pg';
import { bytesOfFingerprint, fingerprint } from '@/core/look/fingerprint';
import { fromRows, writeCubeBytes } from '@/core/look';
import { compile, compileMany } from '@/core/preset/render';
import type { Settings } from '@/core/preset/kinds';
import { seeded } from '@/core/random';
import { dataFolder } from '@/server/data-folder';
import type { Sql } from '@/server/db/pool';

const first = [
  'Amber',
  'Slate',
  'Celadon',
  'Madder',
  'Kaolin',
  'Cobalt',
  'Ember',
  'Verdigris',
  'Ochre',
  'Raku',
  'Bisque',
  'Sienna',
  'Indigo',
  'Tallow',
  'Linen',
  'Velvet',
  'Lamp',
  'Chalk',
  'Copper',
  'Ash',
];
const second = [
  'Proscenium',
  'Backcloth',
  'Glaze',
  'Kiln',
  'Drop',
  'Wing',
  'Fly',
  'Cue',
  'Maquette',
  'Gel',
  'Footlight',
  'Curtain',
  'Plate',
  'Slip',
  'Crackle',
  'Hinge',
  'Wash',
  'Fire',
  'Bench',
  'Study',
];

export function settings(next: () => number): Settings {
  return {
    level: next() * 1.6 - 0.8,
    contrast: 0.8 + next() * 0.7,
    warmth: next() * 120 - 60,
    tintShift: next() * 40 - 20,
    chroma: 0.4 + next() * 1.2,
    toe: next() * 60 - 30,
    shoulder: next() * 60 - 30,
    tintDark: { hue: next() * 360, amount: next() * 0.05 },
    tintLight: { hue: next() * 360, amount: next() * 0.04 },
    hueSectors: [
      {
        center: next() * 360,
        width: 60 + next() * 90,
        turn: next() * 30 - 15,
        chroma: 0.7 + next() * 0.6,
        lightness: next() * 0.06 - 0.03,
      },
    ],
  };
}

/** A ZIP of `count` looks in folders, about `bytes` unpacked. */
export async function writePack(file: string, count: number): Promise<number> {
  const out = createWriteStream(file);
  const zip = new Zip();
  const next = seeded(11);
  const waits: Promise<unknown>[] = [];
  let total = 0;
  zip.ondata = (flateError, data, final) => {
    if (flateError) throw flateError;
    if (!out.write(data)) waits.push(once(out, 'drain'));
    if (final) out.end();
  };
  for (let i = 0; i < count; i++) {
    const title = `${first[i % 20]} ${second[Math.floor(i / 20) % 20]} ${i}`;
    const bytes = writeCubeBytes(fromRows(11, title, compileMany(settings(next))));
    const zipDeflate = new ZipDeflate(`Large pack/${first[i % 20]}/${second[Math.floor(i / 20) % 20]}/${title}.cube`, {
      level: 1,
    });
    total += bytes.length;
    zip.add(zipDeflate);
    zipDeflate.push(bytes, true);
    await Promise.all(waits.splice(0));
  }
  const note = new ZipDeflate('Large pack/Read me.txt', { level: 1 });
  zip.add(note);
  note.push(strToU8('made up'), true);
  zip.end();
  await once(out, 'close');
  return total;
}

async function insertItems(client: Sql, items: number): Promise<void> {
  await client.query(
    `
      with
        s as (
          select id, row_number() over (order by position) - 1 as n
          from shelf
          where note = 'bench'
        )
      insert into
        item (
          id, kind, title, headings, supplier, tags, cameras, description, origin, scope, shelf_id,
          shelf_order, created_at
        )
      select
        gen_random_uuid(),
        (array[ 'look', 'look', 'look', 'preset', 'camera-profile', 'look' ]) [1 + i % 6],
        ($2::text[]) [1 + abs(hashint4 (i * 8 + 1) / 7) % 20] || ' ' || ($3::text[]) [1 + abs(hashint4 (i * 8 + 2) / 7) % 20] || ' ' || i,
        array[ 'Bench', ($2::text[]) [1 + abs(hashint4 (i * 8 + 3) / 7) % 20] ],
        (
          array[ '', 'Sable Row Looks', 'Fathom Color', 'Saltmarsh Lens Bureau', 'Kiln & Co' ]
        ) [1 + abs(hashint4 (i * 8 + 4) / 7) % 5],
        array[
          (
            array['costume', 'ceramics', 'stage', 'tungsten', 'daylight']
          ) [1 + abs(hashint4 (i * 8 + 5) / 7) % 5],
          'batch ' || (i / 500)
        ],
        case
          when i % 6 = 4 then array[
            (
              array[ 'Perrin Alder', 'Perrin Alder IR', 'Ondine 40', 'Corvane Ley' ]
            ) [1 + abs(hashint4 (i * 8 + 6) / 7) % 4]
          ]
          else '{}'
        end, 'made up for the bench, number ' || i, 'bought', '{}', s.id, i,
        now() - i * interval '1 minute'
      from generate_series(1, $1::int) i
        join s on s.n = case when i <= 10000 then 0 else 1 + i % 59
        end
    `,
    [items, first, second],
  );
}

/** The cluster's administrator, who may run triggers once for all and have the server tidy up at once. */
export function administrator(): pg.Client {
  const { port, password } = JSON.parse(readFileSync(join(dataFolder(), 'database.json'), 'utf8')) as {
    port: number;
    password: string;
  };
  return new pg.Client({ host: '127.0.0.1', port, password, user: 'etagere', database: 'etagere' });
}

/**
 * A catalogue: items over 60 shelves, of which the first has 10,000, each with three versions
 * of what an item of its kind in the demo holds. Triggers are run once at the end, which is what they are for.
 */
export async function fillCatalogue(items: number): Promise<void> {
  const client = administrator();
  await client.connect();
  try {
    await client.query('begin');
    await client.query(`set local session_replication_role = 'replica'`);
    await client.query(
      `
        insert into shelf (id, name, note, position)
        select
          gen_random_uuid(), case when n = 0 then 'The long shelf' else 'Bench shelf ' || n end,
          'bench', 1000 + n
        from generate_series(0, 59) n
      `,
    );
    await insertItems(client, items);
    await client.query(`
      with
        pattern as (
          select distinct on (i.kind) i.kind, v.sha256, v.file_name, v.format, v.facts, v.encoding
          from item i
            join version v on v.id = i.newest_version_id
          where i.archived_at is null and i.description not like 'made up for the bench%'
          order by i.kind, v.status = 'approved' desc, v.file_name
        )
      insert into
        version(id, item_id, number, sha256, file_name, format, facts, encoding, status, words)
      select
        gen_random_uuid(), i.id, n, p.sha256, p.file_name, p.format, p.facts, p.encoding,
        case when abs(hashint4 (i.shelf_order) / 7) % 3 = 0 then 'approved' else 'draft' end,
        case
          when abs(hashint4 (i.shelf_order + 9) / 7) % 4 = 0 then 'Hue sectors color Contrast light'
          else 'Curve curve'
        end
      from item i
        join pattern p on p.kind = i.kind
        cross join generate_series(1, 3) n
      where i.description like 'made up for the bench%'
    `);
    const { rows } = await client.query<{ kind: string }>(
      'select distinct kind from item i where not exists (select 1 from version v where v.item_id = i.id)',
    );
    if (rows.length) throw new Error(`the demo has no ${rows.map(({ kind }) => kind).join(', ')} to go by`);
    await client.query('commit');
    await client.query(`update item set touched_at = now() where description like 'made up for the bench%'`);
    // a library that has stood a while: what was changed is tidied, as the server does by itself within minutes
    await client.query('vacuum analyze');
    await client.query('checkpoint');
  } finally {
    await client.end();
  }
}

/** Fingerprints of `count` looks laid one after the other, one in forty a near copy of another. */
export function fingerprints(count: number): {
  all: Int16Array;
  rows: { id: string; group: string; fingerprint: Buffer }[];
} {
  const next = seeded(5);
  const all = new Int16Array(count * 192);
  const rows: { id: string; group: string; fingerprint: Buffer }[] = [];
  let last: Settings = {};
  for (let i = 0; i < count; i++) {
    const made = i % 40 === 39 ? { ...last, level: (last.level as number) + 0.002 } : settings(next);
    const print = fingerprint(compile(made));
    last = made;
    all.set(print, i * 192);
    rows.push({ id: String(i), group: 'look', fingerprint: Buffer.from(bytesOfFingerprint(print)) });
  }
  return { all, rows };
}
