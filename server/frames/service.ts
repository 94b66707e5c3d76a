/** Reference frames: their pictures at the widths that screens ask for, made once and cached on disk. */
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { v7 } from 'uuid';
import { Problem } from '@/core/problem';
import { getBlob, hex, putBlob } from '../blobs/service';
import { pool, type Sql } from '../db/pool';
import { record, type Actor } from '../events';
import { allow, type Person } from '../people/roles';
import { dataFolder } from '../place';

export interface FrameRow { id: string; name: string; light: string; width: number; height: number }

export async function listFrames(person: Person): Promise<FrameRow[]> {
  allow(person, 'view');
  return (await pool().query<FrameRow>('select id, name, light, width, height from frame order by position, name')).rows;
}

export async function addFrame(sql: Sql, actor: Actor, f: { name: string; light: string; png: Buffer; width: number; height: number; position: number }): Promise<string> {
  const id = v7(), sha = await putBlob(sql, f.png);
  await sql.query('insert into frame (id, name, light, sha256, width, height, position) values ($1, $2, $3, $4, $5, $6, $7)', [id, f.name, f.light, sha, f.width, f.height, f.position]);
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
