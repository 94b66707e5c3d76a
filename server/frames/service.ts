/** Reference frames, ours and the studio's own: their pictures at the widths that screens ask for, made once and cached on disk. */
import { recentlyUsed } from '@/core/recently-used';
import { must } from '@/core/must';
import sharp from 'sharp';
import { v7 } from 'uuid';
import { readDng, type Dng } from '@/core/frame/dng';
import { oriented, shownSize } from '@/core/frame/orient';
import { frameFacts, type FrameFacts } from '@/core/frame/metadata';
import { Problem } from '@/core/problem';
import { getBlob, hex, putBlob } from '../blobs/service';
import { pool, type Sql } from '../db/pool';
import { record, type Actor } from '../activity/queries';
import { allow, type Person } from '../people/roles';
import { atWidth, cached, displayed, displayedPng } from './cache';
import { compute } from '../threads/computing';
import * as q from './queries';
import { dngOfRaw } from './raw';
import { dynamicRange, pictureHasColor } from './nature';

export type { FrameRow } from './queries';

/** The frames that are judged on. */
export async function listFrames(person: Person): Promise<q.FrameRow[]> {
  return (await allFrames(person)).filter((frame) => !frame.archived);
}

/** The same, for a choice among them. */
export function frameChoices(person: Person): Promise<{ id: string; name: string }[]> {
  allow(person, 'view');
  return q.frameNames(pool());
}

/** With those that were put away. */
export async function allFrames(person: Person): Promise<q.FrameRow[]> {
  allow(person, 'view');
  return q.frames(pool());
}

export async function addFrame(
  sql: Sql,
  actor: Actor,
  frame: { name: string; light: string; png: Buffer; width: number; height: number; position: number },
): Promise<string> {
  const id = v7();
  const sha = await putBlob(sql, frame.png);
  await q.insertComposed(sql, {
    id,
    name: frame.name,
    light: frame.light,
    sha,
    width: frame.width,
    height: frame.height,
    position: frame.position,
  });
  await record(sql, actor, 'frame', id, 'made', null, { name: frame.name });
  return id;
}

/** Camera data as a picture to look at: the camera's own JPEG, else a plain rendering; turned as the file says, where the JPEG itself does not. */
const DEVELOPED_WIDTH = 1500;
async function pictureOf(dng: Dng, bytes: Uint8Array, name: string): Promise<Buffer> {
  const png = (rgb: Uint8Array, w: number, h: number): Promise<Buffer> => {
    const [width, height] = shownSize(w, h, dng.orientation);
    return sharp(oriented(rgb, w, h, 3, dng.orientation), { raw: { width, height, channels: 3 } })
      .png({ compressionLevel: 6 })
      .toBuffer();
  };
  if (dng.jpeg) {
    try {
      const turned = ((await sharp(dng.jpeg).metadata()).orientation ?? 1) > 1;
      const { data, info } = await displayed(dng.jpeg).raw({ depth: 'uchar' }).toBuffer({ resolveWithObject: true });
      return turned
        ? await sharp(data, { raw: { width: info.width, height: info.height, channels: 3 } })
            .png({ compressionLevel: 6 })
            .toBuffer()
        : await png(data, info.width, info.height);
    } catch (error) {
      throw new Problem(
        'picture-broken',
        `The JPEG in the camera file cannot be decoded: ${(error as Error).message.slice(0, 120)}`,
        name,
        'Convert the camera’s file anew.',
      );
    }
  }
  const { data, width, height } = await compute('developed', { bytes, width: DEVELOPED_WIDTH });
  return png(data, width, height);
}

/** The maker before the model, unless the model bears it already. */
function cameraNameOf(facts: Partial<FrameFacts>): string {
  if (facts.uniqueModel) return facts.uniqueModel;
  const maker = facts.maker && !facts.camera?.startsWith(facts.maker) ? facts.maker : '';
  return [maker, facts.camera].filter(Boolean).join(' ');
}

/**
 * A picture of the studio's own becomes a frame: brought to sRGB, 8 bits, at most 3,000 pixels wide, as previews need it.
 * The file as it came is kept beside it; of a DNG, it is what the bench develops. Pictures without a profile are taken as sRGB.
 */
export async function frameFromFile(
  sql: Sql,
  actor: Actor,
  frame: {
    name: string;
    fileName: string;
    sha: Buffer;
    facts: Record<string, unknown>;
    light?: string;
    subject?: string;
    conversion?: string;
  },
): Promise<string> {
  const came = await getBlob(frame.sha, sql);
  const raw = (frame.facts as Partial<FrameFacts>).format === 'raw';
  const bytes = raw ? await dngOfRaw(came, frame.fileName) : came;
  const facts = raw ? must(frameFacts(new Uint8Array(bytes))) : (frame.facts as Partial<FrameFacts>);
  const camera = facts.format === 'dng';
  const data = raw ? await putBlob(sql, bytes) : frame.sha;
  const {
    data: png,
    info: { width, height },
  } = await displayedPng(
    camera ? await pictureOf(readDng(new Uint8Array(bytes), undefined, false), bytes, frame.fileName) : bytes,
    frame.fileName,
    'Save it anew from the program that made it, as JPEG, PNG, TIFF or DNG.',
  );
  const id = v7();
  const sha = await putBlob(sql, png);
  await q.insertTaken(sql, {
    id,
    name: frame.name.slice(0, 200),
    light: frame.light ?? '',
    subject: frame.subject ?? '',
    conversion: frame.conversion ?? '',
    sha,
    source: frame.sha,
    cameraData: camera ? data : null,
    fileName: frame.fileName,
    width,
    height,
    camera: cameraNameOf(facts),
    serial: facts.serial ?? '',
    lens: facts.lens ?? '',
    focal: facts.focal ?? null,
    aperture: facts.aperture ?? null,
    iso: facts.iso === null || facts.iso === undefined ? null : Math.round(facts.iso),
    taken: facts.date ?? '',
    profile: facts.profile ?? '',
    range: camera ? null : await dynamicRange(came),
    result: (await pictureHasColor(png)) ? 'color' : 'monochrome',
  });
  await record(sql, actor, 'frame', id, 'made', null, { name: frame.name });
  return id;
}
export const factsOfFrame = (bytes: Uint8Array): Record<string, unknown> => ({ ...frameFacts(bytes) });

/** The camera data of a frame, read. */
export async function cameraData(id: string): Promise<{ dng: Dng; sha: string }> {
  const row = await q.cameraDataOf(pool(), id);
  if (!row) throw new Problem('not-found', 'There is no such frame.', id, 'Choose another frame.');
  if (!row.camera_data)
    throw new Problem(
      'frame-rendered',
      `${row.name} is a rendered file: a camera profile needs camera data.`,
      row.name,
      'Take a frame of the kind "camera data", or leave the profile out.',
    );
  return { dng: readDng(new Uint8Array(await getBlob(row.camera_data))), sha: hex(row.camera_data) };
}

/** Those asked for last stay in memory. */
const heads = recentlyUsed<Dng>(64);

/** What a camera file says besides its pixels: neutral, profile, camera. */
export async function cameraHead(id: string): Promise<Dng> {
  const row = await q.cameraDataOf(pool(), id);
  if (!row?.camera_data) return (await cameraData(id)).dng; // says why not
  const sha = row.camera_data;
  return heads(hex(sha), async () => {
    const dng = readDng(new Uint8Array(await getBlob(sha)), undefined, false);
    return { ...dng, jpeg: null };
  });
}

const FORM = 2;
/** Linear camera RGB, 16 bits, no wider than asked for, made once and cached on disk; with its size. */
export async function linearPicture(
  person: Person,
  id: string,
  width: number,
): Promise<{ width: number; height: number; data: Buffer }> {
  allow(person, 'view');
  const row = await q.cameraDataOf(pool(), id);
  const wide = Math.max(64, Math.min(3000, Math.round(width) || 320));
  if (!row?.camera_data) {
    await cameraData(id);
    throw new Problem('not-found', 'There is no such frame.', id, 'Choose another frame.');
  }
  const bytes = await cached(`${hex(row.camera_data)}-${wide}-${FORM}.linear`, async () => {
    const made = await compute('linear', { bytes: await getBlob(must(row.camera_data)), width: wide });
    const head = Buffer.alloc(8);
    head.writeUInt32LE(made.width, 0);
    head.writeUInt32LE(made.height, 4);
    return Buffer.concat([head, made.data]);
  });
  return { width: bytes.readUInt32LE(0), height: bytes.readUInt32LE(4), data: bytes.subarray(8) };
}

/** A frame as PNG (exact: previews are computed from it), at one of the offered widths. */
export async function framePicture(person: Person, id: string, width: number): Promise<Buffer> {
  allow(person, 'view');
  const row = await q.pictureOf(pool(), id);
  if (!row) throw new Problem('not-found', 'There is no such frame.', id, 'Choose another frame.');
  return atWidth(row, width, () => getBlob(row.sha256));
}
