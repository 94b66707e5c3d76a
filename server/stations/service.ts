/** Stations: enrolment, what agents are told and what they report, and what a person sees of it. */
import type { BodyOf } from '@/core/api';
import { stationEndpoints } from '@/core/api/stations';
import { must } from '@/core/must';
import { createHash, randomBytes, randomInt } from 'node:crypto';
import { v7 } from 'uuid';
import { listingOf, withoutUnusable } from '@/core/sync/left-out';
import { resolveTemplate } from '@/core/sync/place-templates';
import { enrolSchema, PROTOCOL, reportSchema, type Instructions, type ReportAnswer } from '@/core/sync/protocol';
import { Problem } from '@/core/problem';
import { hex } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { record, type Actor } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { wantedOf } from '../arrivals/queries';
import { checked } from '../input';
import { settleGone } from './station-arrival';
import * as q from './queries';

export type { StationRow } from './queries';

const digest = (s: string): Buffer => createHash('sha256').update(s).digest();
const CODE_MINUTES = 30;
/** No letters or digits that look alike. */
const ALPHABET = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';

export async function makeCode(sql: Sql, stationId: string): Promise<string> {
  const code = Array.from(
    { length: 12 },
    (_, i) => (i && i % 4 === 0 ? '-' : '') + must(ALPHABET[randomInt(ALPHABET.length)]),
  ).join('');
  await q.setCode(sql, stationId, digest(code), CODE_MINUTES);
  return code;
}

/** A new workstation and the one-time code for its agent. */
export async function addStation(
  person: Person,
  input: BodyOf<'POST /api/stations'>,
): Promise<{ id: string; code: string }> {
  allow(person, 'station.enrol');
  const added = checked(stationEndpoints['POST /api/stations'].body, input);
  return transaction(async (sql) => {
    if (await q.stationByName(sql, added.name))
      throw new Problem(
        'station-exists',
        `There is a station called ${added.name} already.`,
        'name',
        'Choose another name.',
      );
    const id = await createStation(sql, actorOf(person), {
      ...added,
      kind: 'workstation',
      hostId: null,
      position: 100,
    });
    return { id, code: await makeCode(sql, id) };
  });
}

export async function createStation(
  sql: Sql,
  actor: Actor,
  station: {
    name: string;
    kind: 'workstation' | 'card';
    system: string;
    person: string;
    hostId: string | null;
    editors: string[];
    position: number;
  },
): Promise<string> {
  const id = v7();
  await q.insertStation(sql, { id, ...station });
  for (const entry of station.editors) {
    const [editor, version] = entry.split('@') as [string, string];
    await q.insertStationEditor(sql, id, editor, version);
  }
  await record(sql, actor, 'station', id, 'added', null, { name: station.name });
  return id;
}

export async function newCode(person: Person, stationId: string): Promise<string> {
  allow(person, 'station.enrol');
  return transaction(async (sql) => {
    if (!(await q.stationById(sql, stationId)))
      throw new Problem('not-found', 'There is no such station.', stationId, 'Go back to Stations.');
    await record(sql, actorOf(person), 'station', stationId, 'code made');
    return makeCode(sql, stationId);
  });
}

/** An agent trades its code for a token of its own; the code is then used up. */
export async function enrol(input: unknown): Promise<{ station: string; name: string; token: string }> {
  const enrolment = checked(enrolSchema, input);
  const token = randomBytes(32).toString('base64url');
  return transaction(async (sql) => {
    const station = await q.takeCode(
      sql,
      digest(enrolment.code.trim().toUpperCase()),
      digest(token),
      enrolment.agentVersion,
    );
    if (!station)
      throw new Problem(
        'enrol-code',
        'This code is wrong, used up, or older than half an hour.',
        'code',
        'Have a new one made on the station’s page.',
      );
    if (station.system !== enrolment.system)
      throw new Problem(
        'enrol-system',
        `The station ${station.name} is a ${station.system} one, and the agent says ${enrolment.system}.`,
        'system',
        'Enrol with the right system, or correct the station.',
      );
    await record(sql, { personId: null, name: `agent of ${station.name}` }, 'station', station.id, 'enrolled', null, {
      host: enrolment.host,
    });
    return { station: station.id, name: station.name, token };
  });
}

export async function stationOfToken(header: string | null): Promise<q.StationRow> {
  const token = /^Bearer ([\w-]{20,100})$/.exec(header ?? '')?.[1];
  const station = token ? await q.stationByToken(pool(), digest(token)) : undefined;
  if (!station)
    throw new Problem(
      'agent-unknown',
      'This agent is not enrolled, or its token was revoked.',
      'authorization',
      'Enrol it again with a new code.',
    );
  return station;
}

/** A station and the cards in its reader. */
async function family(sql: Sql, station: q.StationRow): Promise<q.StationRow[]> {
  return (await q.stations(sql)).filter((s) => s.id === station.id || s.host_id === station.id);
}

export const listingKey = (stationId: string, editor: { editor_id: string; editor_version: string }): string =>
  `${stationId.slice(-8)}/${editor.editor_id}@${editor.editor_version}`;

export async function instructionsFor(station: q.StationRow): Promise<Instructions> {
  const sql = pool();
  const members = await family(sql, station);
  const editors = await q.stationEditors(
    sql,
    members.map((m) => m.id),
  );
  const places = new Map<string, string>();
  const listings: Instructions['listings'] = [];
  const indexes = new Set<string>();
  for (const stationEditor of editors) {
    for (const [name, paths] of Object.entries(stationEditor.descriptor.places)) {
      const text = paths[station.system];
      if (text)
        places.set(
          resolveTemplate(text, station.system),
          `${stationEditor.editor_id}@${stationEditor.editor_version}/${name}`,
        );
    }
    for (const accepts of stationEditor.descriptor.accepts) {
      const text = accepts.index?.path[station.system];
      if (text) indexes.add(resolveTemplate(text, station.system));
    }
    const line = stationEditor.descriptor.listing[station.system];
    if (line)
      listings.push({
        editor: listingKey(stationEditor.station_id, stationEditor),
        path: resolveTemplate(line, station.system),
      });
  }
  return {
    protocol: PROTOCOL,
    station: station.name,
    places: [...places].map(([path, id]) => ({ id, path })),
    listings,
    indexes: [...indexes],
    wanted: (await wantedOf(sql, station.id)).map((w) => ({ path: w.path, sha256: hex(w.sha256), size: w.size })),
    everySeconds: Number(process.env.ETAGERE_AGENT_SECONDS ?? 30),
  };
}

/** Takes a report. Unchanged files come as a digest alone; `need: files` asks for the whole inventory. */
export async function takeReport(station: q.StationRow, input: unknown): Promise<ReportAnswer> {
  const { report: usable, leftOut } = withoutUnusable(input);
  const report = checked(reportSchema, usable);
  const sql = pool();
  if (report.files === null && report.digest !== station.digest) {
    await q.touchStation(sql, station.id, report.agentVersion);
    return { need: 'files' };
  }
  const members = await family(sql, station);
  const editors = await q.stationEditors(
    sql,
    members.map((m) => m.id),
  );
  const actor = { personId: null, name: `agent of ${station.name}` };
  await transaction(async (tx) => {
    await q.touchStation(tx, station.id, report.agentVersion);
    if (report.files) {
      const changed = await q.replaceInventory(
        tx,
        station.id,
        report.files.map((f) => f.path),
        report.files.map((f) => f.size),
        report.files.map((f) => f.sha256),
      );
      await q.setDigest(tx, station.id, report.digest, leftOut);
      await settleGone(tx, station.id);
      if (changed) await record(tx, actor, 'station', station.id, 'files changed', null, { files: changed });
    }
    await q.replaceIndexes(
      tx,
      station.id,
      report.indexes.map((i) => i.path),
      report.indexes.map((i) => i.text),
    );
    for (const listingReport of report.listings) {
      const stationEditor = editors.find((x) => listingKey(x.station_id, x) === listingReport.editor);
      if (!stationEditor) continue;
      const listing = listingOf(listingReport.text, listingReport.at);
      const at = listing?.at ?? null;
      if (
        stationEditor.running === listingReport.running &&
        (at === null || stationEditor.listed_at?.toISOString() === new Date(at).toISOString())
      )
        continue;
      await q.updateListing(
        tx,
        stationEditor.station_id,
        stationEditor.editor_id,
        stationEditor.editor_version,
        listingReport.running,
        listing,
        at,
      );
      await record(
        tx,
        actor,
        'station',
        stationEditor.station_id,
        listingReport.running ? 'editor reports' : 'editor quit',
        null,
        {
          editor: stationEditor.descriptor.title,
          listed: listing?.listed.length ?? 0,
        },
      );
    }
  });
  // a plan that it goes on with though nothing of it waits here: unknown, as after a restore, or left out by a person
  const isOver = report.waiting !== null && !(await q.hasStepsOf(sql, station.id, report.waiting));
  return { need: null, ...(isOver ? { drop: true } : {}) };
}
