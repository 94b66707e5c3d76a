/** The library at size: a large pack, a large catalogue, many looks compared, a backup. Needs the bench's own data folder. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { backup } from '@/server/backup/service';
import { pool, transaction } from '@/server/db/pool';
import { putBlobs, sha256 } from '@/server/blobs/service';
import { pairsOf } from '@/server/copies/service';
import { searchPage, type Search } from '@/server/search/service';
import { beginArrival, discardArrival, finishUpload, uploadPart } from '@/server/arrivals/service';
import { approveItems, takeApprovalBack } from '@/server/items/approval';
import type { Person } from '@/server/people/roles';
import { seeded } from '@/core/random';
import { fillCatalogue, fingerprints, writePack } from './generate';
import { median, type Row } from './rows';
import { many, one } from '@/server/db/query';

export async function librarian(): Promise<Person> {
  return one<Person>(pool(), `select id, name, email, role from person where role = 'librarian' limit 1`);
}

export async function packRows(files: number): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'etagere-bench-'));
  const file = join(folder, 'large.zip');
  const person = await librarian();
  try {
    const unpacked = await writePack(file, files);
    const size = statSync(file).size;
    const begun = await beginArrival(person, { name: 'Large pack.zip', files: [{ path: 'Large pack.zip', size }] });
    const bytes = readFileSync(file);
    for (let at = 0; at < size; at += 8 << 20)
      await uploadPart(person, begun.files[0]!.id, at, bytes.subarray(at, at + (8 << 20)));
    await finishUpload(person, begun.files[0]!.id);
    const began = performance.now();
    execFileSync('unzip', ['-q', file, '-d', join(folder, 'out')]);
    execFileSync('sh', ['-c', `find '${join(folder, 'out')}' -type f -print0 | xargs -0 sha256sum > /dev/null`]);
    const reference = performance.now() - began;
    const result = spawnSync(process.execPath, ['dist/bench-read-arrival.mjs', begun.arrival], {
      encoding: 'utf8',
      env: process.env,
    });
    if (result.status !== 0) throw new Error(result.stderr.slice(-800));
    const told = JSON.parse(result.stdout.trim().split('\n').pop()!) as {
      ms: number;
      entries: number;
      megabytes: number;
    };
    if (told.entries < files) throw new Error(`${told.entries} of ${files} files were read`);
    await discardArrival(person, begun.arrival);
    return [
      {
        name: `take in a pack of ${files.toLocaleString('en')} files, ${(unpacked / 1e6).toFixed(0)} MB, from stored upload to table`,
        figure: told.ms / reference,
        unit: '× unzip and sha256sum',
        target: 3,
        reference: { name: 'unzip, then sha256sum of every file', figure: reference, unit: 'ms' },
        note: `ours ${told.ms.toFixed(0)} ms, ${told.entries} entries`,
      },
      { name: 'memory of the process that reads it', figure: told.megabytes, unit: 'MB', target: 500 },
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const p95 = (v: number[]): number => [...v].sort((a, b) => a - b)[Math.ceil(v.length * 0.95) - 1]!;

export async function catalogueRows(items: number): Promise<Row[]> {
  await fillCatalogue(items);
  return [await searchRow(items), await approveRow(items)];
}

export async function searchRow(items: number): Promise<Row> {
  const person = await librarian();
  const next = seeded(3);
  const pick = <T>(l: T[]): T => l[Math.floor(next() * l.length)]!;
  const words = [
    'amber',
    'slate kiln',
    'celad',
    'madder 12',
    'hue sectors',
    'kil',
    'co',
    'perrin',
    'bench 4711',
    'ember crackle',
    'fathom',
    'velvet wash 9',
    'a',
    'tungsten',
    'chalk hinge',
  ];
  const searches: Search[] = Array.from({ length: 240 }, (_, i) => ({
    ...(i % 6 ? { q: pick(words) } : {}),
    ...(i % 3 === 0 ? { kind: pick(['look', 'preset', 'camera-profile']) } : {}),
    ...(i % 4 === 0 ? { supplier: pick(['Fathom Color', 'Sable Row Looks']) } : {}),
    ...(i % 7 === 0 ? { status: 'approved' } : {}),
    ...(i % 11 === 0 ? { tag: 'ceramics' } : {}),
    sort: pick(['title', 'title', 'made', 'supplier']),
  }));
  const times: number[] = [];
  const bare: number[] = [];
  const slow: [number, Search][] = [];
  const ids = (await many<{ id: string }>(pool(), 'select id from item limit 300')).map((x) => x.id);
  for (let round = 0; round < 2; round++)
    for (const search of searches) {
      const began = performance.now();
      await searchPage(person, search);
      const ms = performance.now() - began;
      if (round) {
        times.push(ms);
        slow.push([ms, search]);
      }
    }
  for (const id of ids) {
    const asked = performance.now();
    await pool().query('select * from item where id = $1', [id]);
    bare.push(performance.now() - asked);
  }
  slow.sort((a, b) => b[0] - a[0]);
  return {
    name: `search ${items.toLocaleString('en')} items: facets and a page of results, 95th percentile`,
    figure: p95(times),
    unit: 'ms',
    target: 60,
    reference: { name: 'a bare SELECT by primary key', figure: p95(bare), unit: 'ms' },
    note: `median ${median(times).toFixed(1)} ms; slowest ${slow[0]![0].toFixed(0)} ms: ${JSON.stringify(slow[0]![1])}`,
  };
}

const CHOSEN = 200;
const APPROVALS = 5;

/** A selection approved in one go, as the shelves do it, and taken back, in a library of so many items. */
export async function approveRow(items: number): Promise<Row> {
  const person = await librarian();
  const chosen = (
    await many<{ id: string }>(
      pool(),
      `select id from item where kind = 'preset' and status = 'draft' and archived_at is null order by id limit $1`,
      [CHOSEN],
    )
  ).map((row) => row.id);
  const times: number[] = [];
  for (let round = 0; round < APPROVALS; round++) {
    const began = performance.now();
    const { versions } = await approveItems(person, { items: chosen });
    times.push(performance.now() - began);
    if (versions.length < CHOSEN) throw new Error(`only ${versions.length} of ${CHOSEN} were approved`);
    await takeApprovalBack(person, { versions });
  }
  return {
    name: `approve a selection of ${CHOSEN} among ${items.toLocaleString('en')} items`,
    figure: median(times),
    unit: 'ms',
    target: 1000,
    note: `slowest ${Math.max(...times).toFixed(0)} ms`,
  };
}

export function copiesRow(looks: number): Row {
  const { rows } = fingerprints(looks);
  const times: number[] = [];
  let found = 0;
  for (let i = 0; i < 3; i++) {
    const began = performance.now();
    found = pairsOf(rows).length;
    times.push(performance.now() - began);
  }
  return {
    name: `near-duplicates by effect among ${looks.toLocaleString('en')} looks, all pairs`,
    figure: median(times) / 1000,
    unit: 's',
    target: 2,
    note: `${found} pairs found`,
  };
}

export async function backupRow(items: number): Promise<Row> {
  const next = seeded(9);
  const folder = mkdtempSync(join(tmpdir(), 'etagere-bench-'));
  for (let i = 0; i < items; i += 200) {
    const list = Array.from({ length: 200 }, () => {
      const bytes = Buffer.alloc(20_000);
      for (let k = 0; k < bytes.length; k += 4) bytes.writeUInt32LE(Math.floor(next() * 4294967296), k);
      return { sha256: sha256(bytes), bytes };
    });
    await transaction((sql) => putBlobs(sql, list));
  }
  try {
    const all = (await one<{ n: number }>(pool(), 'select sum(size)::bigint as n from blob')).n;
    const began = performance.now();
    const made = await backup(join(folder, 'x.backup'));
    const seconds = (performance.now() - began) / 1000;
    return {
      name: `backup of ${items.toLocaleString('en')} more contents, ${(all / 1e6).toFixed(0)} MB in all`,
      figure: seconds / (all / 1e6),
      unit: 's a MB',
      target: 1 / 50,
      note: `${(all / 1e6 / seconds).toFixed(0)} MB/s, written ${(made.bytes / 1e6).toFixed(0)} MB`,
    };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
