/** What a start of an opening rule means for a frame, and the pictures that come of it. */
import { createHash } from 'node:crypto';
import { serialize } from 'node:v8';
import { STAGES } from '@/core/camera/stages';
import { bodyOf } from '@/core/frame/body';
import type { NoiseTaken } from '@/core/frame/noise';
import { notShownOf, type OpenedPhoto } from '@/core/opening/begun';
import { settings, type Rule } from '@/core/opening/rule';
import { Problem } from '@/core/problem';
import { getBlob } from '../blobs/service';
import { pool, type Sql } from '../db/pool';
import { cameraDataOf } from '../frames/queries';
import { framePicture, type FrameRow } from '../frames/service';
import { versionById } from '../items/queries';
import { tableSource } from '../items/service';
import type { Person } from '../people/roles';
import { pixelsOf } from '../sightings/pictures';
import { compute } from '../threads/computing';
import type { TableSource } from '../threads/tasks';
import { lensBegun, type Database, type LensAsked } from './lens';
import * as q from './queries';

type Start = Rule['start'];

export const inputOf = (frame: FrameRow): OpenedPhoto['input'] => {
  if (frame.file_kind === 'camera data') return 'camera data';
  return frame.dynamic_range === 'HDR' ? 'rendered HDR' : 'rendered SDR';
};

/** What a start lays over a picture, in the order in which it acts. */
const LAID = ['preset', 'look'] as const;

export interface Resolved {
  /** of a camera profile */ profile: string | null;
  /** versions of presets and looks */ layers: string[];
  lens: LensAsked | null;
  /** what is done by a calibration, in words; "" without one */ lensWords: string;
  /** the lens database that it is of; "" without one */ database: string;
  /** whether a lens database there would show more */ needsDatabase: boolean;
  notShown: string[];
}

/** The items that the names in a start mean; a name that means none, or several, is told as not shown. */
export async function resolved(
  sql: Sql,
  start: Start,
  frame: FrameRow,
  databases: readonly Database[],
): Promise<Resolved> {
  const input = inputOf(frame);
  const out: Resolved = {
    profile: null,
    layers: [],
    lens: null,
    lensWords: '',
    database: '',
    needsDatabase: false,
    notShown: notShownOf(start, input).map((words) => `${words} (this frame is no camera data)`),
  };
  const named = async (kind: q.NamedKind, name: string | undefined): Promise<string | null> => {
    if (!name) return null;
    const meant = await q.itemsNamed(sql, kind, name);
    const body = bodyOf(frame);
    const fitting = kind === 'camera-profile' ? meant.filter(({ cameras }) => cameras.includes(body)) : meant;
    const [one, other] = fitting;
    if (one && !other && (kind !== 'camera-profile' || one.format === 'dcp')) return one.version;
    const setting = settings[kind === 'camera-profile' ? 'profile' : kind].label.toLowerCase();
    const forBody = kind === 'camera-profile' ? ` for the ${body || 'camera of this frame'}` : '';
    if (one && !other) {
      out.notShown.push(`${setting}: ${name} (frames are developed by DNG profiles alone here)`);
      return null;
    }
    const reason = other ? `${fitting.length} items may be meant` : `nothing of that name is held${forBody}`;
    out.notShown.push(`${setting}: ${name} (${reason})`);
    return null;
  };
  if (input === 'camera data') {
    out.profile = await named('camera-profile', start.profile);
    await resolveLens(sql, start, frame, databases, out);
  }
  for (const kind of LAID) {
    const version = await named(kind, start[kind]);
    if (version) out.layers.push(version);
  }
  return out;
}

async function resolveLens(
  sql: Sql,
  start: Start,
  frame: FrameRow,
  databases: readonly Database[],
  out: Resolved,
): Promise<void> {
  const lens = await lensBegun(sql, start, frame, databases);
  if (lens.is === 'not shown') {
    out.notShown.push(lens.why);
    out.needsDatabase = lens.missing;
  }
  if (lens.is !== 'corrected') return;
  out.lens = lens.asked;
  out.lensWords = lens.words;
  out.database = lens.sha;
}

export interface Opened {
  data: Uint8Array;
  width: number;
  height: number;
}
/** A picture that is made when it is looked at; its tag says all that it depends on. */
export interface Picture {
  tag: string;
  make: () => Promise<Opened>;
}

async function layersOf(sql: Sql, versions: readonly string[]): Promise<TableSource[]> {
  const sources: TableSource[] = [];
  for (const id of versions) {
    const version = await versionById(sql, id);
    if (version) sources.push(await tableSource(version, sql));
  }
  return sources;
}

/** How camera data is developed by a start. */
async function developingBy(sql: Sql, start: Start, profile: string | null) {
  const by = profile ? await versionById(sql, profile) : undefined;
  return {
    ...(by ? { profile: await getBlob(by.sha256, sql) } : {}),
    stages: start.curve === 'none' ? STAGES.filter((stage) => stage !== 'curve') : STAGES,
    byBaseline: start.exposure !== undefined && start.exposure !== 'ignored',
  };
}

const noiseOf = ({ noise }: Start): NoiseTaken | null =>
  noise === 'color' || noise === 'color and luminance' ? noise : null;

const tagOf = (...parts: unknown[]): string => createHash('sha256').update(serialize(parts)).digest('hex').slice(0, 40);

/** The whole frame. What is done to noise is not seen at its size, but sets two pictures apart: each has its own piece. */
export async function pictureOf(
  person: Person,
  frame: FrameRow,
  start: Start,
  means: Resolved,
  width: number,
): Promise<Picture> {
  const sql = pool();
  const layers = await layersOf(sql, means.layers);
  const data = (await cameraDataOf(sql, frame.id))?.camera_data;
  if (!data)
    return {
      tag: tagOf(frame.id, width, layers),
      make: async () => {
        const { data: pixels, ...size } = await pixelsOf(await framePicture(person, frame.id, width), frame.name);
        return compute('opened', { of: 'picture', layers, pixels, ...size });
      },
    };
  const developing = {
    width,
    ...(await developingBy(sql, start, means.profile)),
    ...(means.lens ? { lens: means.lens } : {}),
  };
  return {
    tag: tagOf(frame.id, layers, developing, noiseOf(start)),
    make: async () =>
      compute('opened', { of: 'camera data', layers, ...developing, bytes: await getBlob(data, pool()) }),
  };
}

/** As wide as the frame is shown on the page, so that a pixel of the file is a pixel of the screen. */
const PIECE = { width: 340, height: 140 };

/** A piece of the frame at full size, where noise is seen. */
export async function pieceOf(frame: FrameRow, start: Start, means: Resolved): Promise<Picture> {
  const sql = pool();
  const data = (await cameraDataOf(sql, frame.id))?.camera_data;
  if (!data)
    throw new Problem('frame-rendered', `${frame.name} is no camera data.`, frame.name, 'Choose a camera’s frame.');
  const asked = {
    ...PIECE,
    ...(await developingBy(sql, start, means.profile)),
    layers: await layersOf(sql, means.layers),
    noise: noiseOf(start),
  };
  return {
    tag: tagOf(frame.id, asked),
    make: async () => compute('openedPiece', { ...asked, bytes: await getBlob(data, pool()) }),
  };
}
