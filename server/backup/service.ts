/**
 * Backup and restore of everything, contents included: PostgreSQL's own dump of one consistent snapshot, made while people
 * work. Restoring builds a database beside the one in use, checks it, brings it up to date, and then changes places with it.
 */
import { must } from '@/core/must';
import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { open, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import pg from 'pg';
import { Problem } from '@/core/problem';
import { closePool, databaseUrl, transaction } from '../db/pool';
import { migrate } from '../db/migrate';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import * as q from './queries';

const MAGIC = 'PGDMP';

/** A program of PostgreSQL's with its connection in the environment, so that no password stands in a list of processes. */
function program(
  name: string,
  args: string[],
  url: string,
  input: 'pipe' | 'ignore' = 'ignore',
): { child: ChildProcess; done: Promise<void> } {
  const address = new URL(url);
  const child = spawn(name, args, {
    stdio: [input, 'pipe', 'pipe'],
    env: {
      ...process.env,
      PGHOST: address.hostname,
      PGPORT: address.port,
      PGUSER: decodeURIComponent(address.username),
      PGPASSWORD: decodeURIComponent(address.password),
      PGDATABASE: address.pathname.slice(1),
    },
  });
  let said = '';
  must(child.stderr).on('data', (bytes: Buffer) => {
    said = (said + bytes.toString()).slice(-2000);
  });
  const done = new Promise<void>((yes, no) => {
    child.on('error', (e) => no(new Error(`${name} could not be run: ${e.message}`)));
    child.on('close', (code) =>
      code === 0 ? yes() : no(new Error(`${name} ended with ${code}: ${said.trim().split('\n').slice(-3).join(' ')}`)),
    );
  });
  return { child, done };
}

/** The backup as a stream; the promise tells whether it is whole. */
export function dump(url = databaseUrl()): { stream: Readable; done: Promise<void> } {
  const { child, done } = program('pg_dump', ['--format=custom', '--compress=0', '--no-owner'], url);
  return { stream: must(child.stdout), done };
}

/** Writes a backup into a file, which is there whole or not at all. */
export async function backup(file: string, url = databaseUrl()): Promise<{ file: string; bytes: number }> {
  const part = `${file}.part`;
  const dumping = dump(url);
  try {
    await Promise.all([pipeline(dumping.stream, createWriteStream(part)), dumping.done]);
    const handle = await open(part, 'r+');
    try {
      await handle.sync();
    } finally {
      await handle.close();
    }
    await rename(part, file);
  } catch (error) {
    await rm(part, { force: true });
    const code = (error as NodeJS.ErrnoException).code;
    if (code && ['ENOENT', 'EACCES', 'EROFS', 'ENOSPC', 'ENOTDIR', 'EISDIR'].includes(code))
      throw new Problem(
        'backup-write',
        `The backup cannot be written: ${(error as Error).message}`,
        file,
        'Choose a folder that can be written and has room.',
      );
    throw error;
  }
  return { file, bytes: (await stat(file)).size };
}

const invalid = (file: string, why: string): Problem =>
  new Problem(
    'backup-invalid',
    `This is no backup that can be restored: ${why}.`,
    file,
    'Choose a file that “backup” made; nothing has been changed.',
  );

/** Takes the place of all that is there. What was there stays beside it as a database of its own, until the next restore. */
export async function restore(
  file: string,
  migrations: string,
  url = databaseUrl(),
): Promise<{ items: number; versions: number; contents: number; kept: string }> {
  let head: Buffer;
  try {
    const handle = await open(file, 'r');
    try {
      head = (await handle.read(Buffer.alloc(5), 0, 5, 0)).buffer;
    } finally {
      await handle.close();
    }
  } catch {
    throw new Problem('input-missing', 'There is no such file.', file, 'Name the file that “backup” wrote.');
  }
  if (head.toString('latin1') !== MAGIC) throw invalid(file, 'it does not begin as one');
  const target = new URL(url);
  const name = target.pathname.slice(1);
  const mark = randomBytes(4).toString('hex');
  const fresh = `${name}_restoring_${mark}`;
  const kept = `${name}_before_${mark}`;
  const at = (db: string): string => {
    const address = new URL(url);
    address.pathname = `/${db}`;
    return address.toString();
  };
  const quoted = (s: string): string => `"${s.replace(/"/g, '""')}"`;
  const admin = new pg.Client({ connectionString: at('postgres') });
  await admin.connect();
  try {
    await admin.query(`create database ${quoted(fresh)}`);
    try {
      const restoring = program(
        'pg_restore',
        ['--no-owner', '--exit-on-error', '--jobs=2', `--dbname=${fresh}`, file],
        at(fresh),
      );
      must(restoring.child.stdout).resume();
      await restoring.done.catch((error: Error) => {
        throw invalid(file, error.message.slice(0, 300));
      });
      const told = await check(at(fresh), file);
      await migrate(at(fresh), migrations);
      await closePool();
      // nobody may come between: the database is closed, whoever is in it is sent off, and the two change names
      await admin.query(`alter database ${quoted(name)} allow_connections false`);
      try {
        await q.sendOff(admin, [name, fresh]);
        await admin.query(`alter database ${quoted(name)} rename to ${quoted(kept)}`);
        await admin.query(`alter database ${quoted(fresh)} rename to ${quoted(name)}`);
      } catch (error) {
        await admin.query(`alter database ${quoted(name)} allow_connections true`).catch(() => {});
        throw error;
      }
      for (const earlier of await q.databasesLike(admin, `${name}_before_`))
        if (earlier !== kept) await admin.query(`drop database ${quoted(earlier)} with (force)`);
      return { ...told, kept };
    } catch (error) {
      await admin.query(`drop database if exists ${quoted(fresh)} with (force)`);
      throw error;
    }
  } finally {
    await admin.end();
  }
}

/** Whether what was restored is whole: every content is what its hash says (those above 64 MB by their size). */
async function check(url: string, file: string): Promise<q.LibrarySize> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    if (!(await q.hasLibrary(client))) throw invalid(file, 'it is of another database');
    const damaged = await q.damagedContent(client);
    if (damaged !== null) throw invalid(file, `the content ${damaged.slice(0, 12)}… is damaged`);
    return await q.librarySize(client);
  } finally {
    await client.end();
  }
}

/** From the browser: the stream of a backup. */
export async function backupFor(person: Person): Promise<{ stream: Readable; done: Promise<void> }> {
  allow(person, 'backup');
  await transaction((sql) => record(sql, actorOf(person), 'studio', 'backup', 'backup taken'));
  return dump();
}

/** From the browser: a file that was sent is restored. Whoever restores has to sign in again, as the backup knows them. */
export async function restoreFor(
  person: Person,
  body: Readable,
  folder: string,
): Promise<{ items: number; versions: number; contents: number }> {
  allow(person, 'restore');
  const file = join(folder, `restore-${randomBytes(6).toString('hex')}`);
  try {
    await pipeline(body, createWriteStream(file, { mode: 0o600 }));
    const restored = await restore(file, join(process.cwd(), 'db', 'migrations'));
    await transaction((sql) =>
      record(sql, { personId: null, name: person.name }, 'studio', 'backup', 'restored', null, {
        items: restored.items,
        versions: restored.versions,
        contents: restored.contents,
      }),
    );
    return { items: restored.items, versions: restored.versions, contents: restored.contents };
  } finally {
    await rm(file, { force: true });
  }
}
