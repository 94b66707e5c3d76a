/** What agents report. Most reports say that nothing has changed: those cost two statements. */
import { isDeepStrictEqual } from 'node:util';
import { seeRun } from '@/core/sync/agent-runs';
import { listingChange } from '@/core/sync/listing-change';
import { leftOutOf, listingOf, withoutUnusable, type LeftOut } from '@/core/sync/left-out';
import {
  filesPartSchema,
  MOST_FILES,
  reportSchema,
  type FilesPart,
  type InventoryFile,
  type Listing,
  type ListingReport,
  type Report,
  type ReportAnswer,
} from '@/core/sync/protocol';
import { record, type Actor } from '../activity/queries';
import { pool, transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { insertListingChange, listingBefore } from './listing-queries';
import { listingKey } from './listing-key';
import * as q from './queries';
import { settleGone } from './station-arrival';

/** An editor whose list has come anew, or that was launched or quit. */
interface ChangedEditor {
  editor: q.ReportingEditor;
  running: boolean;
  listing: Listing | null;
  at: string | null;
}

function changedEditors(editors: readonly q.ReportingEditor[], reports: readonly ListingReport[]): ChangedEditor[] {
  return reports.flatMap(({ editor: key, text, running, at: written }) => {
    const editor = editors.find((one) => listingKey(one.station_id, one) === key);
    if (!editor) return [];
    const listing = listingOf(text, written);
    const at = listing?.at ?? null;
    const isSame =
      editor.running === running && (at === null || editor.listed_at?.toISOString() === new Date(at).toISOString());
    return isSame ? [] : [{ editor, running, listing, at }];
  });
}

async function takeEditor(sql: Sql, actor: Actor, { editor, running, listing, at }: ChangedEditor): Promise<void> {
  const { station_id, editor_id, editor_version, title } = editor;
  const before = listing && (await listingBefore(sql, editor));
  const change = before && listingChange(before, listing);
  if (change) await insertListingChange(sql, editor, change);
  await q.updateListing(sql, station_id, editor_id, editor_version, running, listing, at);
  await record(sql, actor, 'station', station_id, running ? 'editor reports' : 'editor quit', null, {
    editor: title,
    listed: listing?.listed.length ?? 0,
  });
}

async function takeFiles(
  sql: Sql,
  actor: Actor,
  station: q.StationRow,
  files: readonly InventoryFile[],
): Promise<void> {
  const changed = await q.replaceInventory(
    sql,
    station.id,
    files.map((file) => file.path),
    files.map((file) => file.size),
    files.map((file) => file.sha256),
  );
  await settleGone(sql, station.id);
  if (changed) await record(sql, actor, 'station', station.id, 'files changed', null, { files: changed });
}

/** Whether the editors' own indexes and lists say anything else than they did. */
async function areNew(sql: Sql, station: q.StationRow, indexes: Report['indexes']): Promise<boolean> {
  if (!indexes.length) return false;
  const known = new Map((await q.indexesOf(sql, station.id)).map(({ path, text }) => [path, text]));
  return known.size !== indexes.length || indexes.some(({ path, text }) => known.get(path) !== text);
}

const takeIndexes = (sql: Sql, station: q.StationRow, indexes: Report['indexes']): Promise<void> =>
  q.replaceIndexes(
    sql,
    station.id,
    indexes.map((index) => index.path),
    indexes.map((index) => index.text),
  );

/** That the agent is there, and whether it is the only one with the token. */
async function touch(sql: Sql, actor: Actor, station: q.StationRow, report: Report): Promise<void> {
  const { runs, doubled } = report.run
    ? seeRun(station.agent_runs, { run: report.run, host: report.host ?? '' }, new Date())
    : { runs: station.agent_runs, doubled: null };
  const said = { version: report.agentVersion, updateFault: report.updateFault ?? '' };
  if (!doubled && isDeepStrictEqual(runs, station.agent_runs)) {
    await q.touchStation(sql, station.id, said);
    return;
  }
  await q.touchWithRuns(sql, station.id, said, runs, doubled);
  if (doubled && !station.doubled)
    await record(sql, actor, 'station', station.id, 'two agents', null, { hosts: doubled.hosts });
}

/** Editors that were installed there, or are gone; agents of old do not tell. */
async function takeFound(sql: Sql, actor: Actor, station: q.StationRow, found: readonly string[]): Promise<void> {
  await q.setFound(sql, station.id, found);
  await record(sql, actor, 'station', station.id, 'editors found', null, { editors: found.length });
}

interface Told {
  files: readonly InventoryFile[];
  leftOut: LeftOut;
}

/** Keeps a part of the files until the report that it belongs to is there. Parts of another state are over. */
export async function takeFilesPart(station: q.StationRow, input: unknown): Promise<void> {
  const { report: usable, leftOut } = withoutUnusable(input);
  const { digest, part, files } = checked(filesPartSchema, usable) as FilesPart;
  await transaction(async (sql) => {
    await q.dropOtherParts(sql, station.id, digest);
    await q.keepPart(sql, station.id, { digest, part, files, leftOut });
  });
}

/** What the parts say together; null where one of them is missing. */
async function filesOfParts(sql: Sql, station: q.StationRow, digest: string, count: number): Promise<Told | null> {
  const parts = await q.partsOf(sql, station.id, digest, count);
  if (parts.length < count) return null;
  const files = parts.flatMap((part) => part.files);
  const beyond: LeftOut = {
    count: Math.max(0, files.length - MOST_FILES),
    examples: files.slice(MOST_FILES, MOST_FILES + 20).map((file) => file.path),
  };
  return { files: files.slice(0, MOST_FILES), leftOut: leftOutOf([...parts.map((part) => part.left_out), beyond]) };
}

/** The files as they came with the report or ahead of it; null where they did not change, or did not come. */
async function filesOf(sql: Sql, station: q.StationRow, report: Report, leftOut: LeftOut): Promise<Told | null> {
  if (report.files) return { files: report.files, leftOut };
  if (report.digest === station.digest || !report.parts) return null;
  return filesOfParts(sql, station, report.digest, report.parts);
}

/**
 * Takes a report. Unchanged files come as a digest alone; `need: files` asks for the whole inventory, which comes with
 * the next report or, where it is large, in parts ahead of it.
 */
export async function takeReport(station: q.StationRow, input: unknown): Promise<ReportAnswer> {
  const { report: usable, leftOut } = withoutUnusable(input);
  const report = checked(reportSchema, usable) as Report;
  const sql = pool();
  const actor = { personId: null, name: `agent of ${station.name}` };
  const told = await filesOf(sql, station, report, leftOut);
  if (!told && report.digest !== station.digest) {
    await touch(sql, actor, station, report);
    return { need: 'files' };
  }
  const editors = report.listings.length ? await q.reportingEditors(sql, station.id) : [];
  const changed = changedEditors(editors, report.listings);
  const { indexes } = report;
  const fresh = await areNew(sql, station, indexes);
  const isFoundAnew = report.found !== undefined && !isDeepStrictEqual(report.found, station.found);
  if (!told && !changed.length && !fresh && !isFoundAnew) await touch(sql, actor, station, report);
  else
    await transaction(async (tx) => {
      await touch(tx, actor, station, report);
      if (told) {
        await takeFiles(tx, actor, station, told.files);
        await q.setDigest(tx, station.id, report.digest, told.leftOut);
        await q.dropParts(tx, station.id);
      }
      if (told || fresh) await takeIndexes(tx, station, indexes);
      if (isFoundAnew) await takeFound(tx, actor, station, report.found ?? []);
      for (const one of changed) await takeEditor(tx, actor, one);
    });
  // a plan that it goes on with though nothing of it waits here: unknown, as after a restore, or left out by a person
  const isOver = report.waiting !== null && !(await q.hasStepsOf(sql, station.id, report.waiting));
  return { need: null, ...(isOver ? { drop: true } : {}) };
}
