/**
 * Backup and restore of everything, contents included, as rows of one moment (`form.ts`), made while people work. Restoring
 * builds a database beside the one in use, checks it, brings it up to date, and then changes places with it in one step.
 */
import { randomBytes } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { open, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { migrate } from '../db/migrate';
import { closePool, databaseUrl, transaction } from '../db/pool';
import { actorOf, allow, type Person } from '../people/roles';
import * as q from './queries';
import { invalid, lastMigration, loadRows, openBackup, type OpenBackup } from './read';
import { dump } from './write';

const cannotBeWritten = new Set(['ENOENT', 'EACCES', 'EROFS', 'ENOSPC', 'ENOTDIR', 'EISDIR']);

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
    if (cannotBeWritten.has((error as NodeJS.ErrnoException).code ?? ''))
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

const nameIn = (url: string): string => decodeURIComponent(new URL(url).pathname.slice(1));
const at = (url: string, database: string): string => {
  const address = new URL(url);
  address.pathname = `/${encodeURIComponent(database)}`;
  return address.toString();
};

async function connected<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  // a connection that is ended from outside fails the statement that waits; by itself it must not end the process
  client.on('error', () => {});
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end().catch(() => {});
  }
}

/** Fills a database that has just been made, and looks whether it is whole: every content is what its hash says. */
async function fill(url: string, backup: OpenBackup, file: string, migrations: string): Promise<q.LibrarySize> {
  await migrate(url, migrations, await lastMigration(backup, file, migrations));
  const size = await connected(url, async (client) => {
    await loadRows(client, backup, file);
    const damaged = await q.damagedContent(client);
    if (damaged !== null) throw invalid(file, `the content ${damaged.slice(0, 12)}… is damaged`);
    await client.query('analyze');
    return q.librarySize(client);
  });
  await migrate(url, migrations);
  return size;
}

const MOST_TRIES = 3;
/** PostgreSQL's object_in_use; it has waited five seconds by then. */
const IN_USE = '55006';

/**
 * The two databases change places in one transaction: whatever is killed meanwhile, one of them bears the name. Whoever
 * works in them is sent off, and may be back before the lock is: then it is tried again.
 */
async function changePlaces(admin: pg.Client, name: string, fresh: string, kept: string): Promise<void> {
  for (let tried = 1; ; tried++) {
    await admin.query('begin');
    try {
      await q.sendOff(admin, [name, fresh]);
      await q.renameDatabase(admin, name, kept);
      await q.renameDatabase(admin, fresh, name);
      await admin.query('commit');
      return;
    } catch (error) {
      await admin.query('rollback');
      if ((error as { code?: string }).code !== IN_USE) throw error;
      if (tried === MOST_TRIES)
        throw new Problem(
          'restore-in-use',
          'The database is held open by somebody who cannot be sent off.',
          name,
          'End what else works in it, such as bin/db psql; nothing has been changed.',
        );
      await wait(200 * tried);
    }
  }
}

/** How databases are called that stand beside the one in use. */
export const restoringBeginning = (name: string): string => `${name}_restoring_`;
export const keptBeginning = (name: string): string => `${name}_before_`;

export interface Restored extends q.LibrarySize {
  /** what was in use before, as a database beside it */ kept: string;
}

/** Takes the place of all that is there. What was there stays beside it as a database of its own, until a person drops it. */
export async function restore(file: string, migrations: string, url = databaseUrl()): Promise<Restored> {
  const backup = await openBackup(file);
  const name = nameIn(url);
  const mark = randomBytes(4).toString('hex');
  const fresh = restoringBeginning(name) + mark;
  const kept = keptBeginning(name) + mark;
  try {
    return await connected(at(url, 'postgres'), async (admin) => {
      await q.makeDatabase(admin, fresh);
      try {
        const size = await fill(at(url, fresh), backup, file, migrations);
        await closePool();
        await changePlaces(admin, name, fresh, kept);
        return { ...size, kept };
      } catch (error) {
        await q.dropDatabase(admin, fresh);
        throw error;
      }
    });
  } finally {
    backup.zip.close();
  }
}

/** Databases that restores have put aside. */
export const keptDatabases = (url = databaseUrl()): Promise<{ name: string; bytes: number }[]> =>
  connected(at(url, 'postgres'), (admin) => q.databasesLike(admin, keptBeginning(nameIn(url))));

/** Drops one that was put aside; the one in use is none of them. */
export async function dropKept(name: string, url = databaseUrl()): Promise<void> {
  if (!(await keptDatabases(url)).some((kept) => kept.name === name))
    throw new Problem(
      'not-found',
      'No restore has put a database of that name aside.',
      name,
      'List them by “db kept”.',
    );
  await connected(at(url, 'postgres'), (admin) => q.dropDatabase(admin, name));
}

export async function keptFor(person: Person): Promise<{ name: string; bytes: number }[]> {
  allow(person, 'backup');
  return keptDatabases();
}
export async function dropKeptFor(person: Person, name: string): Promise<void> {
  allow(person, 'restore');
  await dropKept(name);
  await transaction((sql) => record(sql, actorOf(person), 'studio', 'backup', 'dropped', null, { name }));
}

/** From the browser: the stream of a backup. */
export async function backupFor(person: Person): Promise<{ stream: Readable; done: Promise<void> }> {
  allow(person, 'backup');
  await transaction((sql) => record(sql, actorOf(person), 'studio', 'backup', 'backup taken'));
  return dump(databaseUrl());
}

/** From the browser: a file that was sent is restored. Everyone has to sign in again, as the backup knows them. */
export async function restoreFor(person: Person, body: Readable, folder: string): Promise<q.LibrarySize> {
  allow(person, 'restore');
  const file = join(folder, `restore-${randomBytes(6).toString('hex')}`);
  try {
    await pipeline(body, createWriteStream(file, { mode: 0o600 }));
    const { items, versions, contents } = await restore(file, join(process.cwd(), 'db', 'migrations'));
    const size = { items, versions, contents };
    await transaction((sql) =>
      record(sql, { personId: null, name: person.name }, 'studio', 'backup', 'restored', null, size),
    );
    return size;
  } finally {
    await rm(file, { force: true });
  }
}
