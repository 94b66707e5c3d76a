/** The job that carries a conversion through: one row after the other is made, each in a transaction of its own. */
import { inParallel } from '@/core/parallel';
import { record } from '../activity/queries';
import { pool, transaction } from '../db/pool';
import { checked } from '../input';
import { Cancelled, type GivenUp, type JobContext } from '../jobs/service';
import { actorOf, type Person } from '../people/roles';
import { threadsInUse } from '../threads/computing';
import { keep, usualKeeping, type Keeping } from './keep';
import { make, type Made, type Source } from './makers';
import { namesOf, recipeOfRow, type Named } from './names';
import { allowMaking, sourceFor, sourcesFor } from './one';
import { jobPayload, personOfJob, toldOf } from './planning';
import * as q from './queries';

function keepingOf(made: Made, source: Source, row: q.SourceRow, { title, shelfId }: Named): Keeping {
  if (row.again) return { as: 'version', itemId: row.again.item_id, variant: row.again.variant };
  return usualKeeping(made, source, title, shelfId);
}

/** Rows that are made: planned, not left out, and not without a name of their own where that was asked. */
export const toMake = (
  conversion: Pick<q.ConversionRow, 'clash'>,
  rows: readonly q.SourceRow[],
  names: ReadonlyMap<number, Named>,
): q.SourceRow[] =>
  rows.filter(
    (row) =>
      row.status === 'planned' && !row.excluded && !(conversion.clash === 'leave' && names.get(row.place)?.clashes),
  );

async function makeRow(
  person: Person,
  conversion: q.ConversionRow,
  jobId: string,
  row: q.SourceRow,
  name: Named,
): Promise<void> {
  const at = { conversionId: conversion.id, jobId, place: row.place };
  const recipe = recipeOfRow(conversion, row);
  const source = await sourcesFor(person, recipe, await sourceFor(person, row.source_version_id));
  await allowMaking(person, source);
  const made = await make(recipe, source, name.title);
  await transaction(async (sql) => {
    const kept = await keep(sql, person, recipe, made, source, keepingOf(made, source, row, name));
    const { outcome } = made;
    const settled = await q.settleRow(sql, at, { status: 'made', outcome, madeVersionId: kept.versionId });
    // stopped meanwhile, or given to another job: what was made with it is not kept
    if (!settled) throw new Cancelled();
  });
}

/** Run again after a kill, it goes on with the rows that are not made: none is made twice. */
export async function runConversion({ id, payload, personId, progress }: JobContext): Promise<{ made: number }> {
  const { conversion: conversionId } = checked(jobPayload, payload);
  const person = await personOfJob(personId);
  const conversion = await q.conversionById(pool(), conversionId);
  if (conversion?.job_id !== id || conversion.status !== 'running') throw new Cancelled();
  const rows = await q.rowsOf(pool(), conversionId);
  const names = await namesOf(pool(), conversion, rows);
  const waiting = toMake(conversion, rows, names);
  const before = rows.filter((row) => row.status === 'made').length;
  let done = before;
  const all = before + waiting.length;
  await inParallel(waiting, threadsInUse(), async (row) => {
    const name = names.get(row.place);
    if (!name) return;
    const at = { conversionId, jobId: id, place: row.place };
    await makeRow(person, conversion, id, row, name).catch(async (error: unknown) => {
      if (!(await q.settleRow(pool(), at, { status: 'failed', problem: toldOf(error) }))) throw new Cancelled();
    });
    await progress(++done / all, `${done} of ${all}`);
  });
  return finish(person, conversionId, id);
}

const finish = (person: Person, id: string, jobId: string): Promise<{ made: number }> =>
  transaction(async (sql) => {
    const now = await q.conversionById(sql, id, true);
    if (now?.job_id !== jobId || now.status !== 'running') throw new Cancelled();
    const rows = await q.rowsOf(sql, id);
    const count = (status: q.RowStatus): number => rows.filter((row) => row.status === status).length;
    await q.finishConversion(sql, id, 'done');
    await record(sql, actorOf(person), 'conversion', id, 'done', null, {
      made: count('made'),
      failed: count('failed'),
    });
    return { made: count('made') };
  });

/** Nobody goes on with it: it waits to be started again. */
export const giveUpConversion: GivenUp = async (sql, payload) => {
  const { conversion: id } = checked(jobPayload, payload);
  const conversion = await q.conversionById(sql, id, true);
  if (conversion?.status === 'running') await q.setConversion(sql, id, { status: 'paused' });
};
