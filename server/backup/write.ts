/** Makes a backup: the rows of one moment, table by table, as a stream that is never held whole. */
import { createHash, type Hash } from 'node:crypto';
import { Readable, Transform } from 'node:stream';
import pg from 'pg';
import yazl from 'yazl';
import { must } from '@/core/must';
import { appliedMigrations } from '../db/queries';
import { entryOfTable, FORM, MANIFEST, type Manifest, type TableInBackup } from './form';
import * as q from './queries';

/** Passes bytes on and works out their hash. */
export const hashing = (hash: Hash): Transform =>
  new Transform({
    transform(bytes: Buffer, _encoding, done) {
      hash.update(bytes);
      done(null, bytes);
    },
  });

/** Rows as they come; once they have come, what the manifest says of them. */
function rowsOf(client: pg.Client, table: q.Table, told: TableInBackup[]): Readable {
  const hash = createHash('sha256');
  const copy = q.rowsOut(client, table);
  const through = hashing(hash);
  copy.on('error', (error) => through.destroy(error));
  // the archive is told of it; when it is gone already, nobody is
  through.on('error', () => {});
  through.on('end', () => told.push({ ...table, rows: copy.rowCount, sha256: hash.digest('hex') }));
  return copy.pipe(through);
}

async function packed(client: pg.Client, zip: yazl.ZipFile): Promise<void> {
  await q.beginSnapshot(client);
  const tables = await q.tables(client);
  const migrations = await appliedMigrations(client);
  const sequences = await q.sequences(client);
  const told: TableInBackup[] = [];
  // each stream is opened when its turn has come, as a connection gives one answer at a time
  for (const table of tables)
    zip.addReadStreamLazy(entryOfTable(table.name), { compress: false, forceZip64Format: true }, (give) =>
      give(null, rowsOf(client, table, told)),
    );
  zip.addReadStreamLazy(MANIFEST, { compress: false }, (give) => {
    const manifest: Manifest = {
      form: FORM,
      revision: 1,
      madeAt: new Date().toISOString(),
      migrations,
      tables: told,
      sequences,
    };
    give(null, Readable.from([Buffer.from(JSON.stringify(manifest))]));
  });
  zip.end();
}

/**
 * The backup as a stream; the promise tells whether it is whole, and has to be waited for. The stream breaks off where
 * something goes wrong on the way.
 */
export function dump(url: string): { stream: Readable; done: Promise<void> } {
  const client = new pg.Client({ connectionString: url });
  const zip = new yazl.ZipFile();
  const stream = zip.outputStream as Readable;
  const ended = new Promise<void>((yes, no) => {
    zip.on('error', no);
    client.on('error', no);
    stream.on('error', no);
    stream.on('end', yes);
    stream.on('close', () => no(new Error('the backup was broken off')));
  });
  const run = async (): Promise<void> => {
    try {
      await client.connect();
      await packed(client, zip);
      await ended;
    } catch (error) {
      if (!stream.destroyed) stream.destroy(must(error as Error));
      throw error;
    } finally {
      await client.end().catch(() => {});
    }
  };
  ended.catch(() => {});
  return { stream, done: run() };
}
