/**
 * What opening rules do to a frame: of each list, the studio's and every editor's, the rule that a photo such as this frame
 * is begun by, and the picture that it begins with, as far as Etagere can make one. Lists that begin it alike share a picture.
 */
import sharp from 'sharp';
import { bodyOf } from '@/core/frame/body';
import { groupBy } from '@/core/lists';
import { pictureDifference, type PictureFigures } from '@/core/look/picture-difference';
import { begunBy, type Begun as Taken, type OpenedPhoto, type UnderstoodRule } from '@/core/opening/begun';
import { readOwnRules, toCommon } from '@/core/opening/file';
import { settingNames, startSchema, whenWords, type Rule } from '@/core/opening/rule';
import { Problem } from '@/core/problem';
import { recentlyUsed } from '@/core/recently-used';
import { pool, type Sql } from '../db/pool';
import { hindrance } from '../editor-lists/there';
import { listFrames, type FrameRow } from '../frames/service';
import { checked } from '../input';
import { allow, type Person } from '../people/roles';
import { inputOf, pictureOf, pieceOf, resolved, type Opened, type Resolved } from './begun-pictures';
import { databasesOfStudio, helpful, isMatched, type Database } from './lens';
import * as q from './queries';
import { listsAt, type RulesThere } from './service';

type Start = Rule['start'];

/** Who begins the frame in one way. */
export interface Beginner {
  /** "the studio", or a station and its editor */ words: string;
  station: string | null;
  /** which photos the rule is for that was taken; "" where none fits */ rule: string;
}
export interface Beginning {
  start: Start;
  who: Beginner[];
  /** what is done by a calibration, in words; "" where nothing is */ lens: string;
  /** the lens database that it is of; "" where none is */ database: string;
  /** what of it the picture does not show, with why */ notShown: string[];
  /** whether a lens database at these stations would show more */ needsDatabase: boolean;
}
/** Beginnings that give one picture: what sets them apart is nothing that a picture of ours shows. */
export interface Begun {
  beginnings: Beginning[];
  /** from the picture of the studio's own rules; null where this is it */ apart: PictureFigures | null;
}
export interface OnFrame {
  frame: { id: string; name: string };
  /** whether the frame is camera data, which alone shows profiles, curves and offsets */ camera: boolean;
  begun: Begun[];
  /** the lens database that measures its lens, if one that can be rolled out does */ database: {
    version: string;
    title: string;
  } | null;
  /** lists of which nobody can tell what they begin it with */ unsure: { words: string; reason: string }[];
}

async function photoOf(sql: Sql, frame: FrameRow, databases: readonly Database[]): Promise<OpenedPhoto> {
  const lens = (await isMatched(sql, frame, databases)) ? 'matched' : 'not matched';
  return { camera: bodyOf(frame), input: inputOf(frame), lens, iso: frame.iso };
}

const databasesAt = ({ placed, descriptor: { editor, version } }: RulesThere): Database[] =>
  placed
    .filter((row) => row.kind === 'lens-database' && row.editor_id === editor && row.editor_version === version)
    .map(({ sha, title }) => ({ sha, title: title ?? '' }));

/** Where a list looks for calibrations. */
interface Sources {
  databases: readonly Database[];
  /** whether the editor takes lens databases from us */ takesMore: boolean;
}

type Told = ({ who: Omit<Beginner, 'rule'>; begun: Taken } & Sources) | { words: string; reason: string };

async function toldBy(sql: Sql, there: RulesThere, frame: FrameRow): Promise<Told> {
  const words = `${there.station.name}, ${there.descriptor.title}`;
  const reason = hindrance(there, there.path);
  if (reason) return { words, reason };
  try {
    const own = readOwnRules(there.opening, there.path, there.textAt(there.path) ?? '').rules;
    const rules: UnderstoodRule[] = own.map((rule) => toCommon(there.opening, rule));
    const databases = databasesAt(there);
    const photo = await photoOf(sql, frame, databases);
    const takesMore = there.descriptor.accepts.some(({ kind }) => kind === 'lens-database');
    return { who: { words, station: there.station.id }, begun: begunBy(rules, photo), databases, takesMore };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { words, reason: error.message };
  }
}

async function frameOf(person: Person, id: string): Promise<FrameRow> {
  const found = (await listFrames(person)).find((frame) => frame.id === id);
  if (!found) throw new Problem('not-found', 'There is no such frame.', id, 'Choose another frame.');
  return found;
}

/** A list's rule for the frame. */
interface ByOne extends Sources {
  start: Start;
  who: Beginner;
}

/** What sets two lists apart for a frame. */
const keyOf = ({ start, databases, takesMore }: ByOne): string =>
  JSON.stringify([settingNames.map((name) => start[name] ?? ''), databases.map(({ sha }) => sha), takesMore]);

/** Lists that begin the frame alike, and what their rule means. */
interface Begins {
  start: Start;
  who: Beginner[];
  means: Resolved;
}

const FIGURE_WIDTH = 320;

/** What the lists were told to begin the frame with, and those of which nobody can tell. */
function sorted(told: readonly Told[]): { begun: ByOne[]; unsure: OnFrame['unsure'] } {
  const unsure: OnFrame['unsure'] = [];
  const begun: ByOne[] = [];
  for (const one of told) {
    if ('reason' in one) unsure.push(one);
    else if (one.begun.is === 'unsure')
      unsure.push({
        words: one.who.words,
        reason: `the rule that may fit says what is not known here: ${one.begun.unknown.join(', ')}`,
      });
    else {
      const rule = one.begun.is === 'by rule' ? one.begun.rule : null;
      const who = { ...one.who, rule: rule ? whenWords(rule.when) : '' };
      begun.push({ start: rule?.start ?? {}, who, databases: one.databases, takesMore: one.takesMore });
    }
  }
  return { begun, unsure };
}

/** What the rules mean for the frame, worked out once for all lists that begin it alike. */
async function meanings(sql: Sql, frame: FrameRow, begun: readonly ByOne[]): Promise<Begins[]> {
  const begins: Begins[] = [];
  for (const alike of groupBy(begun, keyOf).values()) {
    const [first] = alike;
    if (!first) continue;
    const means = await resolved(sql, first.start, frame, first.databases);
    begins.push({
      start: first.start,
      who: alike.map(({ who }) => who),
      means: { ...means, needsDatabase: means.needsDatabase && first.takesMore },
    });
  }
  return begins;
}

/** What each list of opening rules has this frame begun with, the studio's first. */
export async function openingOnFrame(person: Person, frameId: string): Promise<OnFrame> {
  const frame = await frameOf(person, frameId);
  const sql = pool();
  const { rules } = await q.studioRules(sql);
  const databases = await databasesOfStudio(sql);
  const photo = await photoOf(sql, frame, databases);
  const known = rules.map((rule) => ({ rule, isWhole: true, unknown: [] }));
  const studio = { words: 'the studio', station: null };
  const told: Told[] = [{ who: studio, begun: begunBy(known, photo), databases, takesMore: false }];
  for (const there of await listsAt(sql, null)) told.push(await toldBy(sql, there, frame));
  const { begun, unsure } = sorted(told);
  const helps = await helpful(sql, frame, databases);
  return {
    frame: { id: frame.id, name: frame.name },
    camera: photo.input === 'camera data',
    begun: await pictured(person, frame, await meanings(sql, frame, begun)),
    database: helps && { version: helps.version, title: helps.title },
    unsure,
  };
}

/** Small ones, of which figures are made; those that were looked at last. */
const small = recentlyUsed<Opened>(32);

/** @param begins the first has the studio's own rules */
async function pictured(person: Person, frame: FrameRow, begins: readonly Begins[]): Promise<Begun[]> {
  const byPicture = new Map<string, Begun>();
  let studio: Opened | null = null;
  for (const { start, who, means } of begins) {
    const { tag, make } = await pictureOf(person, frame, start, means, FIGURE_WIDTH);
    const picture = await small(tag, make);
    const apart = studio && pictureDifference(picture.data, studio.data);
    studio ??= picture;
    const known: Begun = byPicture.get(tag) ?? {
      beginnings: [],
      apart: apart && { mean: apart.mean, p95: apart.p95, max: apart.max },
    };
    byPicture.set(tag, known);
    addBeginning(known.beginnings, {
      start,
      who,
      lens: means.lensWords,
      database: means.database,
      notShown: means.notShown,
      needsDatabase: means.needsDatabase,
    });
  }
  return [...byPicture.values()];
}

/** What reads alike is told once, whichever lens databases it came from. */
function addBeginning(beginnings: Beginning[], beginning: Beginning): void {
  const wordsOf = ({ start, lens, notShown, needsDatabase }: Beginning): string =>
    JSON.stringify([start, lens, notShown, needsDatabase]);
  const alike = beginnings.find((one) => wordsOf(one) === wordsOf(beginning));
  if (alike) alike.who.push(...beginning.who);
  else beginnings.push(beginning);
}

const WIDTH = 900;

interface PictureAsked {
  /** as a rule has it */ start: unknown;
  /** the lens database that is asked, by its SHA-256; "" for none: then no lens is corrected */ database?: string;
  /** a piece of it at full size, instead of the whole */ piece?: boolean;
}

/** The frame as a start begins it, as PNG; the tag says what the picture depends on. */
export async function openedPicture(
  person: Person,
  frameId: string,
  { start: input, database = '', piece = false }: PictureAsked,
): Promise<{ tag: string; make: () => Promise<Buffer> }> {
  allow(person, 'view');
  const frame = await frameOf(person, frameId);
  const start = isEmpty(input) ? {} : (checked(startSchema, input) as Start);
  const databases = database ? [{ sha: await databaseKnown(pool(), database), title: '' }] : [];
  const means = await resolved(pool(), start, frame, databases);
  const { tag, make } = piece
    ? await pieceOf(frame, start, means)
    : await pictureOf(person, frame, start, means, WIDTH);
  return {
    tag,
    make: async () => {
      const { data, width, height } = await make();
      return sharp(data, { raw: { width, height, channels: 4 } })
        .removeAlpha()
        .png({ compressionLevel: 6 })
        .toBuffer();
    },
  };
}

/** One that lies at a station may be older than what is held; what is no lens database of ours is refused. */
async function databaseKnown(sql: Sql, sha: string): Promise<string> {
  if (/^[0-9a-f]{64}$/.test(sha) && (await q.isLensDatabase(sql, Buffer.from(sha, 'hex')))) return sha;
  throw new Problem('not-found', 'There is no such lens database.', 'database', 'Reload the page.');
}

/** That no rule fits is a beginning too: the schema of rules asks for at least one thing. */
const isEmpty = (input: unknown): boolean =>
  typeof input === 'object' && input !== null && Object.keys(input).length === 0;
