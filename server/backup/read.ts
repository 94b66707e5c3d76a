/** Reads a backup into a database that has just been made. All that is done with it is told by our own schema. */
import { createHash } from 'node:crypto';
import { open } from 'node:fs/promises';
import { text } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import pg from 'pg';
import { ValidationError } from 'yup';
import yauzl from 'yauzl';
import { Problem } from '@/core/problem';
import { migrationsIn } from '../db/migrate';
import { entryOfTable, MANIFEST, manifestSchema, MOST_MANIFEST_BYTES, type Manifest, type TableInBackup } from './form';
import * as q from './queries';
import { hashing } from './write';

/** A backup whose manifest has been read. */
export interface OpenBackup {
  zip: yauzl.ZipFile;
  entries: ReadonlyMap<string, yauzl.Entry>;
  manifest: Manifest;
}

export const invalid = (file: string, why: string): Problem =>
  new Problem(
    'backup-invalid',
    `This is no backup that can be restored: ${why}.`,
    file,
    'Choose a file that “backup” made; nothing has been changed.',
  );

/** More entries than any library has tables. */
const MOST_ENTRIES = 1000;

async function entriesOf(zip: yauzl.ZipFile): Promise<Map<string, yauzl.Entry>> {
  const entries = new Map<string, yauzl.Entry>();
  for await (const entry of zip.eachEntry()) {
    entries.set(entry.fileName, entry);
    if (entries.size > MOST_ENTRIES) throw new Error('it holds too many entries');
  }
  return entries;
}

const wordsOf = (error: unknown): string => {
  if (error instanceof ValidationError) return `its list of contents is not of our form (${error.errors[0] ?? ''})`;
  return error instanceof Error ? error.message.slice(0, 300) : 'it cannot be read';
};

async function manifestOf(zip: yauzl.ZipFile, entries: ReadonlyMap<string, yauzl.Entry>): Promise<Manifest> {
  const entry = entries.get(MANIFEST);
  if (!entry) throw new Error('it has no list of contents');
  if (entry.uncompressedSize > MOST_MANIFEST_BYTES) throw new Error('its list of contents is too long');
  return manifestSchema.validateSync(JSON.parse(await text(await zip.openReadStreamPromise(entry))), { strict: true });
}

/** Throws a Problem for a file that is not there, and for one that is no backup of ours. */
export async function openBackup(file: string): Promise<OpenBackup> {
  const handle = await open(file, 'r').catch(() => {
    throw new Problem('input-missing', 'There is no such file.', file, 'Name the file that “backup” wrote.');
  });
  await handle.close();
  let zip: yauzl.ZipFile | null = null;
  try {
    zip = await yauzl.openPromise(file, { autoClose: false });
    const entries = await entriesOf(zip);
    return { zip, entries, manifest: await manifestOf(zip, entries) };
  } catch (error) {
    zip?.close();
    throw invalid(file, wordsOf(error));
  }
}

/**
 * The last migration that the backup's tables were made by. All of them have to be ours, as they are: else the tables
 * would be others than the rows were taken from.
 */
export async function lastMigration({ manifest }: OpenBackup, file: string, folder: string): Promise<string> {
  const ours = await migrationsIn(folder);
  manifest.migrations.forEach((migration, place) => {
    const own = ours[place];
    if (!own) throw invalid(file, 'it was made by a newer version of Etagere');
    if (own.name !== migration.name || own.sha256 !== migration.sha256)
      throw invalid(file, `it was made by a version of Etagere with another ${migration.name}`);
  });
  const last = manifest.migrations.at(-1);
  if (!last) throw invalid(file, 'it does not say by which version it was made');
  return last.name;
}

const sameColumns = (one: readonly string[], other: readonly string[]): boolean =>
  one.length === other.length && one.every((column) => other.includes(column));

/** The rows of one table, which have to be those that the manifest tells of. */
async function loadTable(client: pg.Client, backup: OpenBackup, told: TableInBackup): Promise<void> {
  const entry = backup.entries.get(entryOfTable(told.name));
  if (!entry) throw new Error(`the rows of ${told.name} are missing`);
  const hash = createHash('sha256');
  const copy = q.rowsIn(client, told);
  // what breaks off is told by the pipeline; its end is told once more when the connection is closed
  copy.on('error', () => {});
  await pipeline(await backup.zip.openReadStreamPromise(entry), hashing(hash), copy);
  if (hash.digest('hex') !== told.sha256) throw new Error(`the rows of ${told.name} are damaged`);
  if (copy.rowCount !== told.rows) throw new Error(`of ${told.name}, ${copy.rowCount} rows came and not ${told.rows}`);
}

/**
 * @param client of a database that has our tables as the backup's migrations make them, and no row
 * Throws a Problem where rows are missing, damaged, or refer to nothing; the database is of no use then.
 */
export async function loadRows(client: pg.Client, backup: OpenBackup, file: string): Promise<void> {
  const tables = await q.tables(client);
  const told = new Map(backup.manifest.tables.map((table) => [table.name, table]));
  const keys = await q.foreignKeys(client);
  try {
    for (const key of keys) await q.dropForeignKey(client, key);
    await q.emptyTables(client, tables);
    for (const table of tables) {
      const inBackup = told.get(table.name);
      if (!inBackup || !sameColumns(inBackup.columns, table.columns))
        throw new Error(`it does not tell of ${table.name} as this version has it`);
      await q.setTriggers(client, table, false);
      await loadTable(client, backup, inBackup);
    }
    for (const key of keys) await q.addForeignKey(client, key);
    for (const table of tables) await q.setTriggers(client, table, true);
    const counters = new Map(backup.manifest.sequences.map(({ name, last }) => [name, last]));
    for (const { name } of await q.sequences(client)) await q.setSequence(client, name, counters.get(name) ?? 0);
    await q.settleRows(client);
  } catch (error) {
    throw invalid(file, wordsOf(error));
  }
}
