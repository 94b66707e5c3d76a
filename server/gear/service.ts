/** The studio's own cameras and lenses: what covers them, what does not, and what was asked for. */
import { gearEndpoints } from '@/core/api/gear';
import { must } from '@/core/must';
import { v7 } from 'uuid';
import {
  cameraCoverage,
  isMet,
  lensCoverage,
  unlisted,
  type Camera,
  type CameraLine,
  type LensLine,
} from '@/core/records/coverage';
import { cropOf } from '@/core/lens/sensor';
import { explainPhotos, type PhotoGroup, type PhotoSeen } from '@/core/records/photos';
import { editorKey } from '@/core/editor/descriptor';
import { Problem } from '@/core/problem';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { calibrationsOf } from './calibrations';
import * as q from './queries';

export type { CameraRow, LensRow, RequestRow, RequestState } from './queries';
export type { CameraLine, LensLine, PhotoGroup };

const unknown = (what: string, id: string): Problem =>
  new Problem('not-found', `There is no such ${what}.`, id, 'Reload the page; somebody may have taken it away.');
const cameraOf = (camera: q.CameraRow): Camera => ({
  id: camera.id,
  maker: camera.maker,
  model: camera.model,
  names: camera.names,
  conversion: camera.conversion,
  serials: camera.serials,
  mount: camera.mount,
  crop: cropOf(camera.sensor_width, camera.sensor_height),
});

const editorsOf = async (sql: Sql) =>
  (await q.editorsHere(sql)).map(({ descriptor, stations }) => ({
    key: editorKey(descriptor),
    editor: descriptor.editor,
    title: descriptor.title,
    cameras: descriptor.cameras ?? null,
    stations,
  }));

export interface Coverage {
  cameras: (CameraLine & { row: q.CameraRow })[];
  lenses: LensLine[];
  editors: { key: string; title: string; stations: number }[];
  unlisted: ReturnType<typeof unlisted>;
  /** whom one can ask */ suppliers: string[];
  requests: (q.RequestRow & { /** what it asks for is held since, or no longer missing */ met: boolean })[];
}

export async function coverage(person: Person): Promise<Coverage> {
  allow(person, 'view');
  const sql = pool();
  const [rows, lenses, profiles, held, editors, seen, requests, suppliers] = await Promise.all([
    q.cameras(sql),
    q.lenses(sql),
    q.profilesHeld(sql),
    q.databasesHeld(sql),
    editorsOf(sql),
    q.seenOnFrames(sql),
    q.requests(sql),
    q.suppliers(sql),
  ]);
  const read = (
    await Promise.all(
      held.map(async (h) => ({ item: h.item, title: h.title, found: await calibrationsOf(sql, h.sha256) })),
    )
  ).filter((h) => h.found);
  const cameras = rows.map(cameraOf);
  const lines = cameraCoverage(cameras, profiles, editors).map((cameraLine) => ({
    ...cameraLine,
    row: must(rows.find((r) => r.id === cameraLine.camera.id)),
  }));
  const lensLines = lensCoverage(
    lenses,
    cameras,
    read.map((h) => ({ item: h.item, title: h.title, ...must(h.found) })),
  );
  return {
    cameras: lines,
    lenses: lensLines,
    editors: editors.map(({ key, title, stations }) => ({ key, title, stations })),
    unlisted: unlisted(
      seen.map((s) => ({ ...s, maker: s.camera.split(' ')[0] ?? '' })),
      cameras,
      lenses,
    ),
    suppliers: [...suppliers, ...new Set(editors.map((e) => e.title))],
    requests: requests.map((request) => ({
      ...request,
      met:
        !['fulfilled', 'declined'].includes(request.state) &&
        isMet(
          { camera: request.camera_id, lens: request.lens_id, wanted: request.wanted, askedOf: request.asked_of },
          lines,
          lensLines,
        ),
    })),
  };
}

/** The two lists are kept alike: one table of how each is found, written and told. */
const kinds = {
  camera: {
    subject: 'camera',
    schema: gearEndpoints['POST /api/gear/cameras'].body,
    byId: q.cameraById,
    same: q.sameCamera,
    insert: q.insertCamera,
    update: q.updateCamera,
    remove: q.removeCamera,
    nameOf: (c: q.CameraRow) => [c.model, c.conversion].filter(Boolean).join(', '),
  },
  lens: {
    subject: 'lens',
    schema: gearEndpoints['POST /api/gear/lenses'].body,
    byId: q.lensById,
    same: q.sameLens,
    insert: q.insertLens,
    update: q.updateLens,
    remove: q.removeLens,
    nameOf: (l: q.LensRow) => l.model,
  },
} as const;
type GearKind = keyof typeof kinds;
type Row = q.CameraRow & q.LensRow;
interface Kind {
  subject: 'camera' | 'lens';
  schema: (typeof gearEndpoints)['POST /api/gear/cameras']['body'];
  byId: (sql: Sql, id: string) => Promise<Row | undefined>;
  same: (sql: Sql, r: Row, but: string) => Promise<boolean>;
  insert: (sql: Sql, r: Row) => Promise<unknown>;
  update: (sql: Sql, r: Row) => Promise<unknown>;
  remove: (sql: Sql, id: string) => Promise<Row | undefined>;
  nameOf: (r: Row) => string;
}

/** Adds a camera or a lens, or changes one where an id is given. */
export async function keepGear(
  person: Person,
  kind: GearKind,
  id: string | null,
  input: unknown,
): Promise<{ id: string }> {
  allow(person, 'gear.edit');
  const list = kinds[kind] as unknown as Kind;
  const value = checked(list.schema, input) as Omit<Row, 'id'>;
  const row = { ...value, id: id ?? v7() } as Row;
  await transaction(async (sql) => {
    const before = id ? await list.byId(sql, id) : null;
    if (id && !before) throw unknown(kind, id);
    if (await list.same(sql, row, row.id))
      throw new Problem(
        'gear-listed',
        `${list.nameOf(row)} is listed already.`,
        list.nameOf(row),
        kind === 'camera'
          ? 'Add its serial to that line, or name the conversion that sets it apart.'
          : 'Add its other names to that line, or name the mount that sets it apart.',
      );
    await (before ? list.update(sql, row) : list.insert(sql, row));
    await record(sql, actorOf(person), list.subject, row.id, before ? 'changed' : 'listed', before ?? null, {
      name: list.nameOf(row),
      ...value,
    });
  });
  return { id: row.id };
}

export async function removeGear(person: Person, kind: GearKind, id: string): Promise<void> {
  allow(person, 'gear.edit');
  const list = kinds[kind] as unknown as Kind;
  await transaction(async (sql) => {
    const gone = await list.remove(sql, id);
    if (!gone) throw unknown(kind, id);
    await record(sql, actorOf(person), list.subject, id, 'taken off the list', gone, { name: list.nameOf(gone) });
  });
}

/** Lists what the frames' files name and the list does not have. */
export async function listSeen(person: Person): Promise<{ cameras: number; lenses: number }> {
  allow(person, 'gear.edit');
  const { unlisted: missing } = await coverage(person);
  for (const c of missing.cameras) await keepGear(person, 'camera', null, c);
  for (const l of missing.lenses) await keepGear(person, 'lens', null, l);
  return { cameras: missing.cameras.length, lenses: missing.lenses.length };
}

/** Notes that something is missing. The same is not asked twice while it is open. */
export async function askFor(person: Person, input: unknown): Promise<{ id: string }> {
  allow(person, 'gear.ask');
  const request = checked(gearEndpoints['POST /api/gear/requests'].body, input);
  const id = v7();
  await transaction(async (sql) => {
    if (request.camera && !(await q.cameraById(sql, request.camera))) throw unknown('camera', request.camera);
    if (request.lens && !(await q.lensById(sql, request.lens))) throw unknown('lens', request.lens);
    if (await q.openRequest(sql, request.about, request.wanted))
      throw new Problem(
        'request-open',
        `A ${request.wanted} for the ${request.about} is asked for already.`,
        request.about,
        'Look at the requests below; add what you know to its note.',
      );
    await q.insertRequest(sql, {
      id,
      cameraId: request.camera,
      lensId: request.lens,
      about: request.about,
      wanted: request.wanted,
      askedOf: request.askedOf,
      note: request.note,
      person: person.id,
    });
    await record(sql, actorOf(person), 'request', id, 'asked for', null, {
      name: request.about,
      wanted: request.wanted,
      'asked of': request.askedOf,
    });
  });
  return { id };
}

/** Where a request stands; what is not given stays. */
export async function trackRequest(person: Person, id: string, input: unknown): Promise<void> {
  allow(person, 'gear.edit');
  const settled = checked(gearEndpoints['PATCH /api/gear/requests/:id'].body, input);
  await transaction(async (sql) => {
    const before = await q.requestById(sql, id);
    if (!before) throw unknown('request', id);
    const after = {
      state: settled.state,
      note: settled.note ?? before.note,
      asked_of: settled.askedOf ?? before.asked_of,
    };
    await q.settleRequest(sql, id, after.state, after.note, after.asked_of);
    await record(
      sql,
      actorOf(person),
      'request',
      id,
      after.state === before.state ? 'noted' : after.state,
      { state: before.state, note: before.note, 'asked of': before.asked_of },
      { name: before.about, state: after.state, note: after.note, 'asked of': after.asked_of },
    );
  });
}

/** Why photos do not show in an editor, from what their files say; nothing of them is kept. */
export async function explain(person: Person, input: unknown): Promise<PhotoGroup[]> {
  allow(person, 'view');
  const { photos } = checked(gearEndpoints['POST /api/gear/photos'].body, input);
  const sql = pool();
  const [editors, own] = await Promise.all([editorsOf(sql), q.cameras(sql)]);
  return explainPhotos(photos as PhotoSeen[], editors, own);
}
