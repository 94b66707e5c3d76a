/** A station's inventory as a source: what lies there and is not ours comes as an arrival; the files stay where they are. */
import { v7 } from 'uuid';
import { leftBehind } from '@/core/pack/entry-rules';
import { MOST_CONTENT } from '@/core/sync/protocol';
import { resolveTemplate } from '@/core/sync/place-templates';
import { Problem } from '@/core/problem';
import { hex, putBlob, sha256 } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import * as packs from '../arrivals/queries';
import { beginReading } from '../arrivals/uploads';
import { actorOf, allow, type Person } from '../people/roles';
import * as q from './queries';

export { MOST_CONTENT };

async function found(
  sql: Sql,
  stationId: string,
): Promise<{ station: q.StationRow; agentId: string; files: Awaited<ReturnType<typeof packs.foundAt>> }> {
  const station = (await q.stations(sql)).find((s) => s.id === stationId);
  if (!station) throw new Problem('not-found', 'There is no such station.', stationId, 'Go back to Stations.');
  const agentId = station.host_id ?? station.id;
  const editors = await q.stationEditors(sql, [station.id]);
  const prefixes = editors.flatMap((stationEditor) =>
    Object.values(stationEditor.descriptor.places).flatMap((templates) => {
      const at = templates[station.system];
      return at ? [`${resolveTemplate(at, station.system)}/`] : [];
    }),
  );
  const files = prefixes.length
    ? (await packs.foundAt(sql, agentId, station.id, [...new Set(prefixes)])).filter(
        (f) => f.size > 0 && f.size <= MOST_CONTENT && !leftBehind(f.path),
      )
    : [];
  return { station, agentId, files };
}

/** How many files lie in a station's places that Etagere did not put there. */
export async function foundCount(person: Person, stationId: string): Promise<number> {
  allow(person, 'view');
  return (await found(pool(), stationId)).files.length;
}

export async function takeInFound(person: Person, stationId: string): Promise<{ arrival: string }> {
  allow(person, 'arrival.make');
  return transaction(async (sql) => {
    const { station, agentId, files } = await found(sql, stationId);
    if (!files.length)
      throw new Problem(
        'found-nothing',
        `Nothing lies on ${station.name} that Etagere did not put there.`,
        station.name,
        'Look again after its agent has reported.',
      );
    return takeIn(sql, person, station, agentId, files);
  });
}

/** Takes in what lies at these paths, be it ours or not: what was changed there, to be made a new version. */
export async function takeInAt(
  sql: Sql,
  person: Person,
  station: q.StationRow,
  paths: readonly string[],
): Promise<{ arrival: string }> {
  allow(person, 'arrival.make');
  const agentId = station.host_id ?? station.id;
  const files = (await q.lyingAtPaths(sql, agentId, paths)).filter(({ size }) => size > 0 && size <= MOST_CONTENT);
  if (!files.length)
    throw new Problem(
      'found-nothing',
      `None of these files lies on ${station.name} now.`,
      station.name,
      'Reload the page, and look again.',
    );
  return takeIn(sql, person, station, agentId, files);
}

type Found = Awaited<ReturnType<typeof packs.foundAt>>;

async function takeIn(
  sql: Sql,
  person: Person,
  station: q.StationRow,
  agentId: string,
  files: Found,
): Promise<{ arrival: string }> {
  const id = v7();
  await packs.insertArrival(sql, { id, name: `Found on ${station.name}`, personId: person.id, stationId: agentId });
  await packs.insertFiles(
    sql,
    id,
    files.map((f) => f.path),
    files.map((f) => f.size),
    files.map(() => null),
    files.map((f) => (f.here ? f.sha256 : null)),
  );
  await record(sql, actorOf(person), 'arrival', id, 'announced', null, {
    name: `Found on ${station.name}`,
    files: files.length,
  });
  await beginReading(sql, id, person);
  return { arrival: id };
}

/** A content that an agent sends: taken only where it is asked for, and is what it says. */
export async function takeContent(station: q.StationRow, sha: string, path: string, bytes: Buffer): Promise<void> {
  const wanted =
    (await packs.wantedOf(pool(), station.id, 5000)).find((w) => w.path === path && hex(w.sha256) === sha) ??
    (await packs.wantedOf(pool(), station.id, 5000)).find((w) => hex(w.sha256) === sha);
  if (!wanted) throw new Problem('not-found', 'Nobody asked for this content.', path, 'Report first.');
  if (hex(sha256(bytes)) !== sha)
    throw new Problem(
      'content-differs',
      'The content is not what its hash says.',
      path,
      'Report again, and send it anew.',
    );
  await transaction(async (sql) => {
    await packs.contentSent(sql, station.id, path, await putBlob(sql, bytes));
    for (const id of await packs.arrivingFrom(sql, station.id)) await beginReading(sql, id, null);
  });
}

/** Files that are gone from the station since are no longer waited for. */
export async function settleGone(sql: Sql, stationId: string): Promise<void> {
  for (const id of await packs.arrivingFrom(sql, stationId)) {
    await packs.dropGone(sql, id, stationId);
    await beginReading(sql, id, null);
  }
}
