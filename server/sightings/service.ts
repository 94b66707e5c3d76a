/** Seen working: editors are asked for a picture with an item on, or people export one, and it is held against our rendering. */
import { v7 } from 'uuid';
import type { AnswerOf, BodyOf } from '@/core/api';
import { sightingEndpoints } from '@/core/api/sightings';
import { askNames, askText, PICTURE_ENDING } from '@/core/editor/renders';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import { resolveTemplate } from '@/core/sync/place-templates';
import type { PicturesAsked } from '@/core/sync/protocol';
import { isUuid } from '@/core/uuid';
import { record } from '../activity/queries';
import { hex, putBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { framePicture } from '../frames/service';
import { checked } from '../input';
import { versionById } from '../items/queries';
import { actorOf, allow, type Person } from '../people/roles';
import * as stations from '../stations/queries';
import { stationFor, stationView, type PlaceRow } from '../stations/views';
import { whyNot } from './askable';
import * as q from './queries';

export type { SightingRow } from './queries';

/** Pictures are asked for at this width: enough for every color of a frame, little to send. */
const WIDTH = 900;

export const unknownSighting = (id: string): Problem =>
  new Problem(
    'not-found',
    'Nobody asks for this picture any more.',
    id,
    'Reload the page; it may have been asked for anew, or given up.',
  );

export async function sightingFor(person: Person, id: string): Promise<q.SightingRow> {
  allow(person, 'view');
  const found = isUuid(id) ? await q.sightingById(pool(), id) : undefined;
  if (!found) throw unknownSighting(id);
  return found;
}

/** The newest of what lies at these stations, by station, path and content. */
export async function sightingsAt(
  person: Person,
  ids: readonly string[],
): Promise<(station: string, placed: { path: string; base: string | null }) => q.SightingRow | undefined> {
  allow(person, 'view');
  const found = new Map(
    (await q.newestSightings(pool(), ids)).map((one) => [`${one.station_id} ${one.path} ${one.sha}`, one]),
  );
  return (station, { path, base }) => found.get(`${station} ${path} ${base}`);
}

type Ask = Omit<q.NewSighting, 'id' | 'frameId' | 'picture' | 'personId'> & { title: string };

/** What is asked for of a file; a reason where it cannot be. */
async function askOf(
  sql: Sql,
  here: { station: stations.StationRow; editors: readonly stations.StationEditorRow[]; agent: string | null },
  placed: stations.PlacementRow | undefined,
  row: PlaceRow | undefined,
  by: 'editor' | 'person',
): Promise<Ask | string> {
  const version = placed?.version_id ? await versionById(sql, placed.version_id) : undefined;
  const editor = here.editors.find(
    (one) => one.editor_id === placed?.editor_id && one.editor_version === placed.editor_version,
  );
  if (!placed || !row || !version || !editor) return 'nothing of ours lies there';
  const { input } = version.scope as { input?: string | null };
  const { descriptor } = editor;
  const reason = whyNot({ by, kind: version.kind, input, state: row.state, descriptor, agent: here.agent });
  if (reason) return reason;
  return {
    title: version.title,
    stationId: here.station.id,
    path: placed.path,
    sha: placed.sha,
    editorId: placed.editor_id,
    editorVersion: placed.editor_version,
    versionId: version.id,
    by,
  };
}

/** Asks for a picture of a frame with each of these files on. What cannot be asked for is told with its reason. */
export async function askForPictures(
  person: Person,
  stationId: string,
  input: BodyOf<'POST /api/stations/:id/sightings'>,
): Promise<AnswerOf<'POST /api/stations/:id/sightings'>> {
  allow(person, 'sighting.ask');
  const asked = checked(sightingEndpoints['POST /api/stations/:id/sightings'].body, input);
  const station = await stationFor(person, stationId);
  const [view, png] = await Promise.all([stationView(person, station.id), framePicture(person, asked.frame, WIDTH)]);
  return transaction(async (sql) => {
    const placements = await stations.placements(sql, [station.id]);
    const editors = await stations.stationEditors(sql, [station.id]);
    const here = { station, editors, agent: station.host_id ? null : station.agent_version };
    const answer: AnswerOf<'POST /api/stations/:id/sightings'> = { asked: [], left: [] };
    const picture = await putBlob(sql, png);
    for (const path of new Set(asked.paths)) {
      const placed = placements.find((one) => one.path === path);
      const row = view.rows.find((one) => one.path === path);
      const ask = await askOf(sql, here, placed, row, asked.by);
      if (typeof ask === 'string') {
        answer.left.push({ path, title: placed?.title ?? '', reason: ask });
        continue;
      }
      const id = v7();
      await q.insertSighting(sql, { ...ask, id, frameId: asked.frame, picture, personId: person.id });
      answer.asked.push({ id, path });
    }
    if (answer.asked.length)
      await record(sql, actorOf(person), 'station', station.id, 'pictures asked for', null, {
        items: answer.asked.length,
      });
    return answer;
  });
}

/** Gives up what nobody has answered. */
export async function giveUpSighting(person: Person, id: string): Promise<void> {
  allow(person, 'sighting.ask');
  if (!isUuid(id) || !(await q.deleteAsked(pool(), id))) throw unknownSighting(id);
}

/** An agent is told of so many at a time. */
const MOST_TOLD = 50;

/** Where the editors of a station are asked for pictures, and which: what an agent needs to know. */
export async function picturesAskedAt(
  sql: Sql,
  station: stations.StationRow,
  editors: readonly stations.StationEditorRow[],
): Promise<PicturesAsked[]> {
  const own = editors.filter((one) => one.station_id === station.id && one.descriptor.renders?.folder[station.system]);
  if (!own.length) return [];
  const asked = await q.askedAt(sql, station.id, MOST_TOLD);
  return own.map(({ descriptor, editor_id, editor_version }) => {
    const renders = must(descriptor.renders);
    const of = asked.filter((one) => one.editor_id === editor_id && one.editor_version === editor_version);
    return {
      folder: resolveTemplate(must(renders.folder[station.system]), station.system),
      endings: {
        picture: PICTURE_ENDING,
        ask: renders.ask.extension,
        result: renders.result,
        fault: renders.fault,
      },
      asked: of.map((one) => ({
        id: one.id,
        sha256: hex(one.picture_sha256),
        size: one.picture_size,
        text: askText(renders, askNames(renders, one.id), one),
      })),
    };
  });
}
