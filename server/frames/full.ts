/**
 * Frames at full size, a part at a time. What a file holds is unpacked once to plain rows in the cache (a mosaic as its sensor
 * gave it, linear or rendered pictures as shown), so that any part is a read at a place. The oldest make room for the newest.
 */
import { open, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { shownSize, storedRect, type Rect } from '@/core/frame/orient';
import { phased } from '@/core/frame/demosaic';
import { Problem } from '@/core/problem';
import { getBlob, hex } from '../blobs/service';
import { pool } from '../db/pool';
import { allow, type Person } from '../people/roles';
import { displayed, folderOf, writeWhole } from './cache';
import { compute } from '../threads/computing';
import * as q from './queries';

/** `mosaic`: 16 bits a place; `linear`: three of 16 bits, 65535 = white level; `rendered`: three of 8, sRGB. */
export interface FullHead {
  kind: 'mosaic' | 'linear' | 'rendered';
  /** as stored */ width: number;
  height: number;
  orientation: number;
  cfa: number[];
  black: number[];
  white: number[];
  neutral: number[];
}

const FORM = 2;
const HEAD = 1024;
const ROOM = 2e9;
const folder = (): string => folderOf('full');
const bytesOf = { mosaic: 2, linear: 6, rendered: 3 } as const;
const making = new Map<string, Promise<void>>();

async function unpacked(row: q.SourceRow): Promise<{ head: FullHead; data: Uint8Array }> {
  if (row.camera_data) {
    return compute('full', { bytes: await getBlob(row.camera_data) });
  }
  const { data, info } = await displayed(await getBlob(row.source_sha256 ?? row.sha256))
    .raw({ depth: 'uchar' })
    .toBuffer({ resolveWithObject: true });
  return {
    head: {
      kind: 'rendered',
      width: info.width,
      height: info.height,
      orientation: 1,
      cfa: [],
      black: [],
      white: [],
      neutral: [],
    },
    data,
  };
}

/** Keeps the cache within its room, but for what was used last. */
async function makeRoom(): Promise<void> {
  const files = await Promise.all(
    (await readdir(folder()))
      .filter((f) => f.endsWith('.full'))
      .map(async (file) => {
        const stats = await stat(join(folder(), file)).catch(() => null);
        return { f: file, size: stats?.size ?? 0, at: stats?.mtimeMs ?? 0 };
      }),
  );
  let sum = 0;
  for (const entry of files.sort((a, b) => b.at - a.at)) {
    if (sum > 0 && sum + entry.size > ROOM) await rm(join(folder(), entry.f), { force: true });
    else sum += entry.size;
  }
}

/** Makes the rows of a frame's full size, if they are not there. */
async function makeFull(row: q.SourceRow): Promise<string> {
  const key = hex(row.camera_data ?? row.source_sha256 ?? row.sha256);
  const name = `${key}-${FORM}.full`;
  const file = join(folder(), name);
  if (
    await stat(file).then(
      () => true,
      () => false,
    )
  )
    return file;
  let running = making.get(key);
  if (!running) {
    running = (async () => {
      const { head, data } = await unpacked(row);
      await writeWhole(folder(), name, Buffer.concat([Buffer.from(JSON.stringify(head).padEnd(HEAD)), data]));
      await makeRoom();
    })().finally(() => making.delete(key));
    making.set(key, running);
  }
  await running;
  return file;
}

async function sourceOf(id: string): Promise<q.SourceRow> {
  const row = await q.sourceOf(pool(), id);
  if (!row) throw new Problem('not-found', 'There is no such frame.', id, 'Choose another frame.');
  return row;
}
async function opened<T>(
  id: string,
  work: (f: Awaited<ReturnType<typeof open>>, head: FullHead) => Promise<T>,
): Promise<T> {
  const file = await makeFull(await sourceOf(id));
  const handle = await open(file, 'r');
  try {
    const head = Buffer.alloc(HEAD);
    await handle.read(head, 0, HEAD, 0);
    return await work(handle, JSON.parse(head.toString()) as FullHead);
  } finally {
    await handle.close();
  }
}

/** How large a frame is at full size, as shown; it is unpacked for what is asked next. */
export async function fullSize(person: Person, id: string): Promise<{ width: number; height: number }> {
  allow(person, 'view');
  return opened(id, async (handle, fullHead) => {
    const now = new Date();
    await handle.utimes(now, now);
    const [width, height] = shownSize(fullHead.width, fullHead.height, fullHead.orientation);
    return { width, height };
  });
}

export interface Part extends FullHead {
  /** the part as shown */ shown: Rect;
  /** and as stored: rows of `data`; its pattern begins as `cfa` says */ stored: Rect;
  data: Buffer;
}
/** A part as shown, no larger than 1,024 a side, with what it takes to develop it. Mosaics get a margin, which is `shown`'s. */
export async function framePart(person: Person, id: string, asked: Rect): Promise<Part> {
  allow(person, 'view');
  return opened(id, async (handle, fullHead) => {
    const [sw, sh] = shownSize(fullHead.width, fullHead.height, fullHead.orientation);
    const margin = fullHead.kind === 'mosaic' ? 2 : 0;
    const x = Math.min(sw - 1, Math.max(0, Math.round(asked.x) || 0));
    const y = Math.min(sh - 1, Math.max(0, Math.round(asked.y) || 0));
    const side = (v: number): number => Math.min(1024, Math.max(1, Math.round(v) || 1));
    const x0 = Math.max(0, x - margin);
    const y0 = Math.max(0, y - margin);
    const shown = {
      x: x0,
      y: y0,
      w: Math.min(sw, x + side(asked.w) + margin) - x0,
      h: Math.min(sh, y + side(asked.h) + margin) - y0,
    };
    const stored = storedRect(shown, fullHead.width, fullHead.height, fullHead.orientation);
    const each = bytesOf[fullHead.kind];
    const rows = Buffer.alloc(stored.h * fullHead.width * each);
    const data = Buffer.alloc(stored.w * stored.h * each);
    await handle.read(rows, 0, rows.length, HEAD + stored.y * fullHead.width * each);
    for (let r = 0; r < stored.h; r++)
      rows.copy(
        data,
        r * stored.w * each,
        (r * fullHead.width + stored.x) * each,
        (r * fullHead.width + stored.x + stored.w) * each,
      );
    const turn = (list: number[]): number[] => (fullHead.kind === 'mosaic' ? phased(list, stored.x, stored.y) : list);
    return {
      ...fullHead,
      cfa: fullHead.cfa.length ? turn(fullHead.cfa) : [],
      black: turn(fullHead.black),
      white: turn(fullHead.white),
      shown,
      stored,
      data,
    };
  });
}
