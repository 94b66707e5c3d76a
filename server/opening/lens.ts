/** Which calibration a frame is begun with, and what it would do to it. */
import type { CalibratedLens } from '@/core/lens/calibrated';
import { lensName } from '@/core/lens/name';
import { correctionOf, type PhotoTaken } from '@/core/lens/correction';
import { cropOf } from '@/core/lens/sensor';
import { farthestMove, zoomToFill } from '@/core/lens/warp';
import { settings, type Rule } from '@/core/opening/rule';
import { recentlyUsed } from '@/core/recently-used';
import { bearer, bears, cameraForm, lensForm } from '@/core/records/names';
import type { Sql } from '../db/pool';
import type { FrameRow } from '../frames/service';
import { calibrationsOf } from '../gear/calibrations';
import { cameras, databasesHeld } from '../gear/queries';

/** A lens database that a list of rules can take calibrations from. */
export interface Database {
  title: string;
  sha: string;
}
/** One that the studio holds. */
export interface Held extends Database {
  version: string;
  /** whether it can be rolled out */ approved: boolean;
}

export const databasesOfStudio = async (sql: Sql): Promise<Held[]> =>
  (await databasesHeld(sql)).map(({ sha256, ...row }) => ({ ...row, sha: sha256.toString('hex') }));

/** The first of them that can be rolled out and corrects a frame; null where none does. */
export async function helpful(sql: Sql, frame: FrameRow, held: readonly Held[]): Promise<Held | null> {
  for (const one of held) {
    if (one.approved && (await lensBegun(sql, { lens: 'matched' }, frame, [one])).is === 'corrected') return one;
  }
  return null;
}

interface Calibrated {
  database: Database;
  release: string;
  lens: CalibratedLens;
}

/** Lenses found by a database and a name: a fleet asks for the same one a thousand times. */
const known = recentlyUsed<{ lens: CalibratedLens | null; release: string }>(500);

const lensIn = (sql: Sql, sha: string, name: string) =>
  known(`${sha} ${name}`, async () => {
    const named = bearer(lensForm);
    const held = await calibrationsOf(sql, Buffer.from(sha, 'hex'));
    const lens = held?.lenses.find((one) => named({ maker: one.maker, model: one.model, names: one.aliases }, [name]));
    return { lens: lens ?? null, release: held?.release ?? '' };
  });

/** The first of the databases that measures a lens of this name. */
async function calibratedAs(sql: Sql, name: string, databases: readonly Database[]): Promise<Calibrated | null> {
  if (!name) return null;
  for (const database of databases) {
    const { lens, release } = await lensIn(sql, database.sha, name);
    if (lens) return { database, release, lens };
  }
  return null;
}

export const isMatched = async (sql: Sql, frame: FrameRow, databases: readonly Database[]): Promise<boolean> =>
  (await calibratedAs(sql, frame.lens, databases)) !== null;

/** What is computed with; in it stands all that the picture depends on. */
export interface LensAsked {
  lens: CalibratedLens;
  taken: PhotoTaken;
}
export type LensBegun =
  | {
      is: 'corrected';
      asked: LensAsked;
      /** what is done, in words */ words: string;
      /** where it was found */ sha: string;
    }
  | { is: 'not corrected' }
  | { is: 'not shown'; why: string; /** whether a lens database there would help */ missing: boolean };

async function takenBy(sql: Sql, frame: FrameRow): Promise<PhotoTaken> {
  const body = (await cameras(sql)).find((camera) => bears(camera, cameraForm, frame.camera));
  return {
    crop: body ? cropOf(body.sensor_width, body.sensor_height) : null,
    focal: positive(frame.focal),
    aperture: positive(frame.aperture),
    distance: null,
  };
}

/** A file may say of a lens that cannot tell that it was at 0. */
const positive = (value: number | null): number | null => (value !== null && value > 0 ? value : null);

/** What a start says of the lens, for camera data. */
export async function lensBegun(
  sql: Sql,
  start: Rule['start'],
  frame: FrameRow,
  databases: readonly Database[],
): Promise<LensBegun> {
  const said = start.lens;
  if (!said || said === 'none') return { is: 'not corrected' };
  const refuse = (reason: string, missing = false): LensBegun => ({
    is: 'not shown',
    missing,
    why: `${settings.lens.label.toLowerCase()}: ${said} (${reason})`,
  });
  if (said === 'last used') return refuse('which lens that was, the editor alone knows');
  const name = said === 'matched' ? frame.lens : said;
  if (!name) return refuse('the photo does not say its lens');
  const found = await calibratedAs(sql, name, databases);
  if (!found) return refuse(`none of our lens databases there measures the ${name}`, said === 'matched');
  const asked = { lens: found.lens, taken: await takenBy(sql, frame) };
  const told = correctionOf(asked.lens, asked.taken);
  if (told.is === 'unknown') return refuse(told.why);
  const move = farthestMove(told.correction, zoomToFill(told.correction, frame.width, frame.height));
  const pixels = (move * Math.hypot(frame.width, frame.height)) / 2;
  const of = [found.database.title, found.release].filter(Boolean).join(' ');
  const words = [
    `${lensName(asked.lens)}, by ${of}`,
    `places move by up to ${pixels < 10 ? pixels.toFixed(1) : Math.round(pixels)} of ${frame.width} pixels`,
    ...told.left.map((one) => `not corrected: ${one}`),
  ].join('; ');
  return { is: 'corrected', asked, words, sha: found.database.sha };
}
