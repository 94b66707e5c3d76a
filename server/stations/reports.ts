/** What agents report. Most reports say that nothing has changed: those cost two statements. */
import { isDeepStrictEqual } from 'node:util';
import { seeRun } from '@/core/sync/agent-runs';
import { listingOf, withoutUnusable } from '@/core/sync/left-out';
import { reportSchema, type Listing, type ListingReport, type Report, type ReportAnswer } from '@/core/sync/protocol';
import { record, type Actor } from '../activity/queries';
import { pool, transaction, type Sql } from '../db/pool';
import { checked } from '../input';
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
  files: NonNullable<Report['files']>,
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
  if (!doubled && isDeepStrictEqual(runs, station.agent_runs)) {
    await q.touchStation(sql, station.id, report.agentVersion);
    return;
  }
  await q.touchWithRuns(sql, station.id, report.agentVersion, runs, doubled);
  if (doubled && !station.doubled)
    await record(sql, actor, 'station', station.id, 'two agents', null, { hosts: doubled.hosts });
}

/** Takes a report. Unchanged files come as a digest alone; `need: files` asks for the whole inventory. */
export async function takeReport(station: q.StationRow, input: unknown): Promise<ReportAnswer> {
  const { report: usable, leftOut } = withoutUnusable(input);
  const report = checked(reportSchema, usable) as Report;
  const sql = pool();
  const actor = { personId: null, name: `agent of ${station.name}` };
  if (report.files === null && report.digest !== station.digest) {
    await touch(sql, actor, station, report);
    return { need: 'files' };
  }
  const editors = report.listings.length ? await q.reportingEditors(sql, station.id) : [];
  const changed = changedEditors(editors, report.listings);
  const { files, indexes } = report;
  if (!files && !changed.length && !indexes.length) await touch(sql, actor, station, report);
  else
    await transaction(async (tx) => {
      await touch(tx, actor, station, report);
      if (files) {
        await takeFiles(tx, actor, station, files);
        await q.setDigest(tx, station.id, report.digest, leftOut);
      }
      if (files || indexes.length) await takeIndexes(tx, station, indexes);
      for (const one of changed) await takeEditor(tx, actor, one);
    });
  // a plan that it goes on with though nothing of it waits here: unknown, as after a restore, or left out by a person
  const isOver = report.waiting !== null && !(await q.hasStepsOf(sql, station.id, report.waiting));
  return { need: null, ...(isOver ? { drop: true } : {}) };
}
