/** Reference frames, ours and the studio's own: their pictures at the widths that screens ask for, made once and cached on disk. */
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { v7 } from 'uuid';
import type { FrameFacts } from '@/core/frame/metadata';
import { Problem } from '@/core/problem';
import { getBlob, hex, putBlob } from '../blobs/service';
import { pool, type Sql } from '../db/pool';
import { record, type Actor } from '../events';
import { allow, type Person } from '../people/roles';
import { dataFolder } from '../place';

export interface FrameRow { id: string; name: string; light: string; width: number; height: number; camera: string }

export async function listFrames(person: Person): Promise<FrameRow[]> {
  allow(person, 'view');
  return (await pool().query<FrameRow>('select id, name, light, width, height, camera from frame order by position, name')).rows;
}

export async function addFrame(sql: Sql, actor: Actor, f: { name: string; light: string; png: Buffer; width: number; height: number; position: number }): Promise<string> {
  const id = v7(), sha = await putBlob(sql, f.png);
  await sql.query('insert into frame (id, name, light, sha256, width, height, position) values ($1, $2, $3, $4, $5, $6, $7)', [id, f.name, f.light, sha, f.width, f.height, f.position]);
  await record(sql, actor, 'frame', id, 'made', null, { name: f.name });
  return id;
}

/**
 * A picture of the studio's own becomes a frame: brought to sRGB, 8 bits, at most 3,000 pixels wide, as previews need it.
 * The file as it came is kept beside it. Pictures without a profile are taken as sRGB.
 */
export async function frameFromFile(sql: Sql, actor: Actor, f: { name: string; fileName: string; sha: Buffer; facts: Record<string, unknown> }): Promise<string> {
  const bytes = await getBlob(f.sha, sql), facts = f.facts as Partial<FrameFacts>;
  let png: Buffer, width: number, height: number;
  try {
    const out = await sharp(bytes, { limitInputPixels: 250e6, failOn: 'error' }).rotate().resize({ width: 3000, height: 3000, fit: 'inside', withoutEnlargement: true }).withIccProfile('srgb').flatten({ background: '#808080' }).png({ compressionLevel: 6 }).toBuffer({ resolveWithObject: true });
    png = out.data; width = out.info.width; height = out.info.height;
  } catch (e) { throw new Problem('picture-broken', `The picture cannot be decoded: ${(e as Error).message.slice(0, 120)}`, f.fileName, 'Save it anew from the program that made it, as JPEG, PNG or TIFF.'); }
  const id = v7(), sha = await putBlob(sql, png);
  await sql.query(`insert into frame (id, name, light, sha256, width, height, position, source_sha256, file_name, camera, serial, lens, focal, aperture, iso, taken_at) values ($1, $2, '', $3, $4, $5, (select coalesce(max(position), 0) + 1 from frame), $6, $7, $8, $9, $10, $11, $12, $13, $14)`,
    [id, f.name.slice(0, 200), sha, width, height, f.sha, f.fileName, [facts.maker && !facts.camera?.startsWith(facts.maker) ? facts.maker : '', facts.camera].filter(Boolean).join(' '), facts.serial ?? '', facts.lens ?? '', facts.focal ?? null, facts.aperture ?? null, facts.iso === null || facts.iso === undefined ? null : Math.round(facts.iso), facts.date ?? '']);
  await record(sql, actor, 'frame', id, 'made', null, { name: f.name });
  return id;
}

export const widths = [320, 900, 1500] as const;

/** A frame as PNG (exact: previews are computed from it), at one of the offered widths. */
export async function framePicture(person: Person, id: string, width: number): Promise<Buffer> {
  allow(person, 'view');
  const row = (await pool().query<{ sha256: Buffer; width: number }>('select sha256, width from frame where id = $1', [id])).rows[0];
  if (!row) throw new Problem('not-found', 'There is no such frame.', id, 'Choose another frame.');
  const w = widths.find((x) => x >= width) ?? 1500, folder = join(dataFolder(), 'cache', 'frames'), file = join(folder, `${hex(row.sha256)}-${w}.png`);
  try { return await readFile(file); } catch { /* not made yet */ }
  const bytes = await getBlob(row.sha256), out = w >= row.width ? bytes : await sharp(bytes, { limitInputPixels: 120e6 }).resize({ width: w, kernel: 'lanczos3' }).png({ compressionLevel: 6 }).toBuffer();
  await mkdir(folder, { recursive: true });
  await writeFile(`${file}.${process.pid}`, out);
  await rename(`${file}.${process.pid}`, file);
  return out;
}
