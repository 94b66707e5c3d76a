/** What an editor made of a picture comes back: held against ours, and told. */
import sharp from 'sharp';
import { Problem } from '@/core/problem';
import { sightingWords, verdictOf } from '@/core/records/sighting';
import { MOST_PICTURE, pictureFaultSchema } from '@/core/sync/protocol';
import { isUuid } from '@/core/uuid';
import { record, type Actor } from '../activity/queries';
import { getBlob, putBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { descriptorOf } from '../editors/queries';
import { checked } from '../input';
import { tableSource } from '../items/service';
import { versionById } from '../items/queries';
import { actorOf, allow, type Person } from '../people/roles';
import type { StationRow } from '../stations/queries';
import { notShownOf } from '../references/service';
import { proofLimits } from '../studio/service';
import { compute } from '../threads/computing';
import { pixelsOf } from './pictures';
import * as q from './queries';
import { sightingFor, unknownSighting } from './service';

export { MOST_PICTURE };

/** Throws a Problem for a picture that cannot be compared. */
async function answerOf(sql: Sql, sighting: q.SightingRow, bytes: Buffer): Promise<q.Answer> {
  const version = await versionById(sql, sighting.version_id);
  if (!version) throw unknownSighting(sighting.id);
  const [given, back] = [
    await pixelsOf(await getBlob(sighting.picture_sha256, sql), sighting.frame),
    await pixelsOf(bytes, sighting.title),
  ];
  if (given.width !== back.width || given.height !== back.height)
    throw new Problem(
      'picture-size',
      `The picture came back with ${back.width} × ${back.height} pixels; ${given.width} × ${given.height} were given.`,
      sighting.title,
      'Export the whole picture at its own size, without a crop.',
    );
  const source = await tableSource(version, sql);
  const figures = await compute('seen', { source, given: given.data, back: back.data });
  const state = verdictOf(figures, await proofLimits(sql));
  const editor = await editorOf(sql, sighting);
  const reason = sightingWords(state, figures, {
    editor,
    frame: sighting.frame,
    notShown: notShownOf(version.kind, version.facts),
  });
  return { state, reason, figures, result: null };
}

const happened = {
  seen: 'seen working',
  differs: 'seen otherwise',
  unclear: 'not seen',
  failed: 'not seen',
} as const satisfies Record<q.Answer['state'], string>;

const editorOf = async (sql: Sql, { editor_id, editor_version }: q.SightingRow): Promise<string> =>
  (await descriptorOf(sql, editor_id, editor_version))?.title ?? editor_id;

/** Whether it was still asked for. */
async function keep(actor: Actor, sighting: q.SightingRow, answer: q.Answer, bytes: Buffer | null): Promise<boolean> {
  return transaction(async (sql) => {
    const result = bytes && (await putBlob(sql, bytes));
    if (!(await q.answerSighting(sql, sighting.id, { ...answer, result }))) return false;
    const said = { item: sighting.title, editor: await editorOf(sql, sighting) };
    await record(sql, actor, 'station', sighting.station_id, happened[answer.state], null, said);
    return true;
  });
}

/** Kept so that what comes back can be looked at, whatever format it came in. */
const asPng = (bytes: Buffer): Promise<Buffer> => sharp(bytes).withMetadata().png({ compressionLevel: 6 }).toBuffer();

/** What a person exported from the editor. Nothing is kept of what cannot be compared. */
export async function takeExport(
  person: Person,
  id: string,
  bytes: Uint8Array,
): Promise<{ state: string; reason: string }> {
  allow(person, 'sighting.ask');
  const sighting = await sightingFor(person, id);
  if (sighting.state !== 'asked') throw unknownSighting(id);
  const picture = Buffer.from(bytes);
  const answer = await answerOf(pool(), sighting, picture);
  if (!(await keep(actorOf(person), sighting, answer, await asPng(picture)))) throw unknownSighting(id);
  return { state: answer.state, reason: answer.reason };
}

/** Of an agent: what is asked of an editor at its station; nothing where it is asked no longer. */
async function askedOf(agent: StationRow, id: string): Promise<q.SightingRow | null> {
  const sighting = isUuid(id) ? await q.sightingById(pool(), id) : undefined;
  return sighting?.station_id === agent.id && sighting.by === 'editor' && sighting.state === 'asked' ? sighting : null;
}

const actorAt = ({ name }: StationRow): Actor => ({ personId: null, name });

/** What an editor made, as its agent sends it. What is not asked for any more is passed over. */
export async function takePicture(agent: StationRow, id: string, bytes: Uint8Array): Promise<void> {
  const sighting = await askedOf(agent, id);
  if (!sighting) return;
  const picture = Buffer.from(bytes);
  try {
    await keep(actorAt(agent), sighting, await answerOf(pool(), sighting, picture), picture);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    await keep(actorAt(agent), sighting, failed(error.message), null);
  }
}

/** An editor made none, and says why. */
export async function takePictureFault(agent: StationRow, id: string, input: unknown): Promise<void> {
  const { message } = checked(pictureFaultSchema, input);
  const sighting = await askedOf(agent, id);
  if (sighting) await keep(actorAt(agent), sighting, failed(message), null);
}

const failed = (reason: string): q.Answer => ({ state: 'failed', reason, figures: null, result: null });
