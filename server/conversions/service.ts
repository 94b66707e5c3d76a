/** Conversions of many: begun, changed, started, paused, stopped, made again. Jobs do the work. */
import { v7 } from 'uuid';
import type { BodyOf } from '@/core/api';
import { conversionEndpoints, MOST_AT_ONCE } from '@/core/api/conversions';
import { recipeIn, recipeOf, sameRecipe, usualNaming, usualRecipe, type Recipe } from '@/core/conversion/recipe';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { record } from '../activity/queries';
import { pool, transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { shelfToPutOn } from '../items/create';
import { requestCancel } from '../jobs/queries';
import { addJob, jobLives } from '../jobs/service';
import { actorOf, allow, type Person } from '../people/roles';
import { proofLimits } from '../studio/service';
import { namesOf, recipeOfRow } from './names';
import type { JobPayload } from './planning';
import * as q from './queries';
import { renewed } from './one';
import { toMake } from './running';

export type { ConversionRow, ListedConversion, SourceRow } from './queries';

const notThere = (id: string): Problem =>
  new Problem('not-found', 'There is no such conversion.', id, 'Go back to Conversions.');

export const listConversions = (person: Person): Promise<q.ListedConversion[]> => {
  allow(person, 'view');
  return q.conversions(pool(), 100);
};

/** It, locked until the transaction ends. */
async function held(sql: Sql, id: string): Promise<q.ConversionRow> {
  const conversion = await q.conversionById(sql, id, true);
  if (!conversion) throw notThere(id);
  return conversion;
}

const queue = (sql: Sql, person: Person, kind: 'conversion-plan' | 'conversion', id: string, title: string) =>
  addJob(
    sql,
    kind,
    `${kind === 'conversion' ? 'Convert' : 'Plan the conversion of'} ${title}`,
    { conversion: id } satisfies JobPayload,
    person.id,
  );

type Asked = BodyOf<'POST /api/conversions'>;

async function chosen(
  sql: Sql,
  { items, shelf, pack }: { items: string[]; shelf: string | null; pack: string | null },
) {
  const found: q.Convertible[] = [];
  if (items.length) found.push(...(await q.convertibleItems(sql, items)));
  if (shelf) found.push(...(await q.convertibleOnShelf(sql, shelf)));
  if (pack) found.push(...(await q.convertibleInPack(sql, pack)));
  const once = [...new Map(found.map((one) => [one.version_id, one])).values()];
  if (!once.length)
    throw new Problem(
      'convert-nothing',
      'Nothing of what is chosen can be converted: presets, looks and camera profiles can.',
      'items',
      'Choose others.',
    );
  if (once.length > MOST_AT_ONCE)
    throw new Problem(
      'convert-many',
      `That are ${once.length.toLocaleString('en')} items; at most ${MOST_AT_ONCE.toLocaleString('en')} are converted at once.`,
      'items',
      'Choose a part of them.',
    );
  return once;
}

/** The kind that most of them have. */
function usualKind(found: readonly q.Convertible[]): string {
  const counts = new Map<string, number>();
  for (const { kind } of found) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  return must([...counts].sort(([, a], [, b]) => b - a)[0])[0];
}

const titleFor = (titles: readonly string[]): string =>
  titles.length === 1 ? must(titles[0]) : `${must(titles[0])} and ${titles.length - 1} more`;

async function begin(
  sql: Sql,
  person: Person,
  { title, recipe, again, rows }: { title: string; recipe: Recipe; again: boolean; rows: q.NewRow[] },
): Promise<string> {
  const id = v7();
  const jobId = await queue(sql, person, 'conversion-plan', id, title);
  const naming = usualNaming(recipe);
  await q.insertConversion(sql, { id, title, naming, recipe, again, jobId, personId: person.id });
  await q.insertRows(sql, id, rows);
  await record(sql, actorOf(person), 'conversion', id, 'begun', null, { title, rows: rows.length });
  return id;
}

/** Begins the plan of a conversion and answers with it; a job works it out. Nothing is made before it is started. */
export async function planConversionOf(person: Person, input: Asked): Promise<string> {
  allow(person, 'item.convert');
  const asked = checked(conversionEndpoints['POST /api/conversions'].body, input);
  return transaction(async (sql) => {
    const found = await chosen(sql, asked);
    const recipe = asked.recipe ? recipeOf(asked.recipe) : must(usualRecipe(usualKind(found)));
    return begin(sql, person, {
      title: titleFor(found.map((one) => one.title)),
      recipe,
      again: false,
      rows: found.map((one) => ({ source: one.version_id, again: null, recipe: null })),
    });
  });
}

const nothingToRenew = ([first]: readonly q.StaleResult[]): Problem =>
  first
    ? new Problem(
        'convert-by-hand',
        `${first.title} was made by hand, as in an editor of profiles: there is no recipe by which to make it again.`,
        first.title,
        'Make it there anew.',
      )
    : new Problem(
        'convert-fresh',
        'None of these was made of something that is newer now.',
        'items',
        'Choose what is told as stale.',
      );

/** Begins to make anew what was made of sources that are newer now, each by its own recipe. */
export async function planAgainOf(person: Person, input: BodyOf<'POST /api/conversions/again'>): Promise<string> {
  allow(person, 'item.convert');
  const { items } = checked(conversionEndpoints['POST /api/conversions/again'].body, input);
  return transaction(async (sql) => {
    const found = await q.resultsToRenew(sql, items);
    const stale: (Omit<q.StaleResult, 'recipe'> & { recipe: Recipe })[] = [];
    // what was made of several sources is made again once, however many of them are newer
    for (const one of new Map(found.map((result) => [result.version_id, result])).values()) {
      const recipe = recipeIn(one.recipe);
      if (recipe) stale.push({ ...one, recipe: await renewed(sql, recipe) });
    }
    if (!stale.length) throw nothingToRenew(found);
    return begin(sql, person, {
      title: titleFor(stale.map((one) => one.title)),
      recipe: must(stale[0]).recipe,
      again: true,
      rows: stale.map((one) => ({ source: one.source_version_id, again: one.version_id, recipe: one.recipe })),
    });
  });
}

function refuseUnless(conversion: q.ConversionRow, statuses: readonly q.Status[], remedy: string): void {
  if (!statuses.includes(conversion.status))
    throw new Problem(
      'conversion-state',
      `${conversion.title} is ${stateWords[conversion.status]}.`,
      conversion.title,
      remedy,
    );
}
const stateWords: Record<q.Status, string> = {
  planning: 'being planned',
  planned: 'planned and not started',
  running: 'under way',
  paused: 'paused',
  done: 'done',
  stopped: 'stopped',
};

async function replan(sql: Sql, person: Person, conversion: q.ConversionRow): Promise<void> {
  if (conversion.job_id) await requestCancel(sql, conversion.job_id);
  const jobId = await queue(sql, person, 'conversion-plan', conversion.id, conversion.title);
  await q.setConversion(sql, conversion.id, { status: 'planning', job_id: jobId });
}

/** Another recipe is worked out anew; a name, a shelf and what becomes of names that are borne hold at once. */
export async function changeConversion(
  person: Person,
  id: string,
  input: BodyOf<'PATCH /api/conversions/:id'>,
): Promise<void> {
  allow(person, 'item.convert');
  const { recipe, naming, shelfId, clash } = checked(conversionEndpoints['PATCH /api/conversions/:id'].body, input);
  await transaction(async (sql) => {
    const conversion = await held(sql, id);
    refuseUnless(conversion, ['planning', 'planned'], 'Begin another one.');
    if (shelfId) await shelfToPutOn(sql, shelfId);
    const wanted = recipe && recipeOf(recipe);
    const isOther = wanted && !sameRecipe(wanted, conversion.recipe);
    if (isOther && conversion.again)
      throw new Problem(
        'conversion-again',
        'What is made again keeps the recipe by which it was made.',
        conversion.title,
        'Convert the sources instead.',
      );
    const usual = isOther && conversion.naming === usualNaming(conversion.recipe) ? usualNaming(wanted) : undefined;
    const name = naming ?? usual;
    await q.setConversion(sql, id, {
      ...(name === undefined ? {} : { naming: name || usualNaming(wanted ?? conversion.recipe) }),
      ...(shelfId === undefined ? {} : { shelf_id: shelfId }),
      ...(clash === undefined ? {} : { clash }),
      ...(isOther ? { recipe: wanted } : {}),
    });
    if (isOther) {
      // exceptions were made to the recipe before
      if (wanted.tool !== conversion.recipe.tool) await dropExceptions(sql, id);
      await q.unplanRows(sql, id, null);
      await replan(sql, person, conversion);
    }
    await record(sql, actorOf(person), 'conversion', id, 'changed', null, { title: conversion.title });
  });
}

async function dropExceptions(sql: Sql, id: string): Promise<void> {
  const rows = await q.rowsOf(sql, id);
  await q.setRows(
    sql,
    id,
    rows.map((row) => row.place),
    { recipe: null },
  );
}

/** Leaves rows out or takes them back, names one, or makes some otherwise than the rest. */
export async function changeRows(
  person: Person,
  id: string,
  input: BodyOf<'PATCH /api/conversions/:id/rows'>,
): Promise<void> {
  allow(person, 'item.convert');
  const body = checked(conversionEndpoints['PATCH /api/conversions/:id/rows'].body, input);
  const { places, excluded, title, leave, size } = body;
  await transaction(async (sql) => {
    const conversion = await held(sql, id);
    refuseUnless(conversion, ['planning', 'planned', 'paused'], 'Begin another one.');
    const { recipe } = conversion;
    const otherwise = leave !== undefined || size !== undefined;
    if (otherwise && recipe.tool !== 'bake')
      throw new Problem(
        'conversion-rows',
        'Only tables are made otherwise one by one.',
        conversion.title,
        'Leave the row out.',
      );
    const own =
      otherwise && recipe.tool === 'bake'
        ? { ...recipe, leave: leave ?? recipe.leave, size: size ?? recipe.size }
        : null;
    await q.setRows(sql, id, places, {
      ...(excluded === undefined ? {} : { excluded }),
      ...(title === undefined ? {} : { title: title || null }),
      ...(otherwise ? { recipe: own && !sameRecipe(own, recipe) ? own : null } : {}),
    });
    if (!otherwise) return;
    await q.unplanRows(sql, id, places);
    await replan(sql, person, conversion);
  });
}

/** What stops a start, said before anything is made. */
async function refuseUnready(sql: Sql, conversion: q.ConversionRow): Promise<number> {
  const rows = await q.rowsOf(sql, conversion.id);
  const names = await namesOf(sql, conversion, rows);
  const going = toMake(conversion, rows, names);
  const clashing = going.filter((row) => names.get(row.place)?.clashes);
  const nameless = going.find((row) => !names.get(row.place)?.title);
  if (nameless)
    throw new Problem(
      'conversion-name',
      `What is made of ${nameless.source.title} would have no name.`,
      nameless.source.title,
      'Change the pattern, or name it.',
    );
  if (clashing.length && !conversion.clash)
    throw new Problem(
      'conversion-clash',
      clashing.length === 1
        ? 'One name is borne already where it will stand.'
        : `${clashing.length} names are borne already where they will stand.`,
      conversion.title,
      'Say once what becomes of those: a number behind the name, or left out.',
    );
  if (!going.length)
    throw new Problem(
      'conversion-empty',
      'Nothing is left to be made.',
      conversion.title,
      'Take a row back, or drop it.',
    );
  return going.length;
}

async function start(sql: Sql, person: Person, conversion: q.ConversionRow): Promise<void> {
  const isLeft = conversion.status === 'running' && !(conversion.job_id && (await jobLives(sql, conversion.job_id)));
  if (!isLeft) refuseUnless(conversion, ['planned', 'paused'], 'Wait until every row is worked out.');
  const rows = await refuseUnready(sql, conversion);
  const jobId = await queue(sql, person, 'conversion', conversion.id, conversion.title);
  await q.setConversion(sql, conversion.id, { status: 'running', job_id: jobId });
  await record(sql, actorOf(person), 'conversion', conversion.id, 'started', null, { rows });
}

async function halt(sql: Sql, person: Person, conversion: q.ConversionRow, how: 'paused' | 'stopped'): Promise<void> {
  refuseUnless(conversion, how === 'paused' ? ['running'] : ['running', 'paused'], 'Reload the page.');
  if (conversion.job_id) await requestCancel(sql, conversion.job_id);
  if (how === 'stopped') await q.finishConversion(sql, conversion.id, how);
  else await q.setConversion(sql, conversion.id, { status: how });
  await q.setConversion(sql, conversion.id, { job_id: null });
  await record(sql, actorOf(person), 'conversion', conversion.id, how);
}

async function retry(sql: Sql, person: Person, conversion: q.ConversionRow): Promise<void> {
  refuseUnless(conversion, ['done', 'paused', 'stopped'], 'Wait until it has come to its end.');
  await q.retryFailed(sql, conversion.id);
  await start(sql, person, { ...conversion, status: 'paused' });
}

async function planAnew(sql: Sql, person: Person, conversion: q.ConversionRow): Promise<void> {
  refuseUnless(conversion, ['planning', 'planned'], 'Begin another one.');
  const rows = await q.rowsOf(sql, conversion.id);
  await q.unplanRows(
    sql,
    conversion.id,
    rows.map((row) => row.place),
  );
  await replan(sql, person, conversion);
}

async function drop(sql: Sql, person: Person, conversion: q.ConversionRow): Promise<void> {
  refuseUnless(conversion, ['planning', 'planned'], 'Stop it instead; what was made stays.');
  if (conversion.job_id) await requestCancel(sql, conversion.job_id);
  await q.deleteConversion(sql, conversion.id);
  await record(sql, actorOf(person), 'conversion', conversion.id, 'dropped', null, { title: conversion.title });
}

const verbs = {
  start,
  pause: (sql: Sql, person: Person, conversion: q.ConversionRow) => halt(sql, person, conversion, 'paused'),
  stop: (sql: Sql, person: Person, conversion: q.ConversionRow) => halt(sql, person, conversion, 'stopped'),
  retry,
  plan: planAnew,
  drop,
} as const;

export async function moveConversion(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/conversions/:id'>,
): Promise<void> {
  allow(person, 'item.convert');
  const { verb } = checked(conversionEndpoints['POST /api/conversions/:id'].body, input);
  await transaction(async (sql) => verbs[verb](sql, person, await held(sql, id)));
}

export interface RowView extends q.SourceRow {
  name: string;
  clashes: boolean;
  /** the recipe that holds for it */ by: Recipe;
}
export interface ConversionView {
  conversion: q.ConversionRow;
  rows: RowView[];
  thresholds: { mean: number; max: number };
}

export async function conversionFor(person: Person, id: string): Promise<ConversionView> {
  allow(person, 'view');
  const sql = pool();
  const conversion = isUuid(id) ? await q.conversionById(sql, id) : undefined;
  if (!conversion) throw notThere(id);
  const [rows, thresholds] = await Promise.all([q.rowsOf(sql, id), proofLimits(sql)]);
  const names = await namesOf(sql, conversion, rows);
  return {
    conversion,
    thresholds,
    rows: rows.map((row) => ({
      ...row,
      name: row.made_title ?? must(names.get(row.place)).title,
      clashes: must(names.get(row.place)).clashes,
      by: recipeOfRow(conversion, row),
    })),
  };
}
