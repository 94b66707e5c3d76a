import { must } from '@/core/must';
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { beforeAll, describe, expect, test } from 'vitest';
import { spawnSync } from 'node:child_process';
import { between, spaces } from '@/core/color/spaces';
import { decodeSrgb, encodeSrgb } from '@/core/color/transfer';
import { writeDng } from '@/core/frame/dng';
import { recognise } from '@/core/recognise';
import { Problem } from '@/core/problem';
import { bytesTag, numbersTag, writeIfds } from '@/core/tiff/write';
import { cameras } from '@/demo/cameras/cameras';
import { profileFor } from '@/demo/cameras/profiles';
import { putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { people as p, withDatabase } from '../db/testing/database';
import { addJob, jobFor, runJob } from '../jobs/service';
import { actorOf } from '../people/roles';
import { dataFolder } from '../data-folder';
import { addExport, exportPicture } from './exports';
import { framePart, fullSize } from './full';
import { dngOfRaw } from './raw';
import { factsOfFrame, frameFromFile, framePicture, linearPicture, listFrames } from './service';
import { warmFrames } from './warm';

withDatabase();
const width = 60;
const height = 40;
const cfa = [0, 1, 1, 2] as [number, number, number, number];
const mosaic = Uint16Array.from(
  { length: width * height },
  (_, i) => 512 + (i % width) * 100 + Math.floor(i / width) * 7,
);
const dng = (orientation: number, serial = `O${orientation}`) =>
  writeDng({
    width,
    height,
    cfa,
    mosaic,
    black: 512,
    white: 16383,
    neutral: [0.5, 1, 0.6],
    maker: 'Perrin',
    model: 'Perrin Alder',
    unique: 'Perrin Alder',
    serial,
    lens: 'Perrin 50 mm f/2',
    focal: 50,
    aperture: 8,
    iso: 100,
    date: '2026:10:14 11:20:00',
    profile: profileFor(must(cameras[0]), null, 'E'),
    jpeg: null,
    orientation,
  });
const bring = (name: string, bytes: Uint8Array) =>
  transaction(async (sql) =>
    frameFromFile(sql, actorOf(p.librarian), {
      name,
      fileName: name,
      sha: await putBlob(sql, Buffer.from(bytes)),
      facts: factsOfFrame(bytes),
    }),
  );
let straight = '';
let turned = '';
let jpeg = '';
beforeAll(async () => {
  straight = await bring('straight.dng', dng(1));
  turned = await bring('turned.dng', dng(6));
  jpeg = await bring(
    'large.jpg',
    await sharp({ create: { width: 3600, height: 1200, channels: 3, background: { r: 200, g: 100, b: 40 } } })
      .jpeg()
      .toBuffer(),
  );
});
const words = (b: Buffer): Uint16Array => new Uint16Array(b.buffer.slice(b.byteOffset, b.byteOffset + b.length));

describe('frames at full size', () => {
  test('a part of a mosaic is what the sensor gave there, with a margin and its own phase', async () => {
    expect(await fullSize(p.retoucher, straight)).toEqual({ width, height });
    const part = await framePart(p.retoucher, straight, { x: 11, y: 8, w: 16, h: 9 });
    expect(part).toMatchObject({
      kind: 'mosaic',
      shown: { x: 9, y: 6, w: 20, h: 13 },
      stored: { x: 9, y: 6, w: 20, h: 13 },
      cfa: [1, 0, 2, 1],
      neutral: [0.5, 1, 0.6],
    });
    const samples = words(part.data);
    for (let y = 0; y < 13; y++)
      for (let x = 0; x < 20; x++) expect(samples[y * 20 + x]).toBe(mosaic[(y + 6) * width + x + 9]);
  });
  test('at the edges the margin ends with the picture, and a part beyond it is its last place', async () => {
    expect((await framePart(p.retoucher, straight, { x: 0, y: 0, w: 8, h: 8 })).shown).toEqual({
      x: 0,
      y: 0,
      w: 10,
      h: 10,
    });
    expect((await framePart(p.retoucher, straight, { x: 999, y: 999, w: 8, h: 8 })).shown).toEqual({
      x: 57,
      y: 37,
      w: 3,
      h: 3,
    });
    expect((await framePart(p.retoucher, straight, { x: NaN, y: 0, w: 1e9, h: -4 })).shown).toEqual({
      x: 0,
      y: 0,
      w: 60,
      h: 3,
    });
  });
  test('a camera held upright: size, preview and parts are as shown', async () => {
    expect(await fullSize(p.retoucher, turned)).toEqual({ width: height, height: width });
    const ofTurned = await linearPicture(p.retoucher, turned, 320);
    const ofStraight = await linearPicture(p.retoucher, straight, 320);
    const samples = words(ofTurned.data);
    const expected = words(ofStraight.data);
    expect([ofTurned.width, ofTurned.height, ofStraight.width, ofStraight.height]).toEqual([20, 30, 30, 20]);
    for (let y = 0; y < 30; y++)
      for (let x = 0; x < 20; x++) expect(samples[(y * 20 + x) * 3 + 1]).toBe(expected[((19 - x) * 30 + y) * 3 + 1]); // turned right
    const part = await framePart(p.retoucher, turned, { x: 4, y: 10, w: 6, h: 8 });
    expect(part.shown).toEqual({ x: 2, y: 8, w: 10, h: 12 });
    expect(part.stored).toEqual({ x: 8, y: 28, w: 12, h: 10 });
    const meta = await sharp(await framePicture(p.retoucher, turned, 900)).metadata();
    expect(must(meta.height) > must(meta.width)).toBe(true);
  });
  test('a rendered picture is there in the size it came in, though its picture on screens is smaller', async () => {
    expect(await fullSize(p.retoucher, jpeg)).toEqual({ width: 3600, height: 1200 });
    const part = await framePart(p.retoucher, jpeg, { x: 3590, y: 0, w: 20, h: 4 });
    expect(part.shown).toEqual({ x: 3590, y: 0, w: 10, h: 4 });
    expect(part.data).toHaveLength(120);
    expect(Math.abs(must(part.data[0]) - 200)).toBeLessThan(4);
  });
  test('no such frame is said so', async () => {
    await expect(fullSize(p.retoucher, '018f0000-0000-7000-8000-000000000000')).rejects.toMatchObject({
      code: 'not-found',
    });
  });
});

describe('a tagged picture of 16 bits', () => {
  test('has one color on screens, at full size and as an editor’s export: its profile’s, not its numbers’', async () => {
    const wide = [40000, 22000, 9000];
    const data = Uint16Array.from({ length: 64 * 48 * 3 }, (_, i) => must(wide[i % 3]));
    const p3 = await sharp(data, { raw: { width: 64, height: 48, channels: 3 } })
      .toColourspace('rgb16')
      .withIccProfile('p3', { attach: true })
      .png()
      .toBuffer();
    // what is stored now are Display P3 values; what they are in sRGB is computed from the published primaries, not by sharp
    const stored = await sharp(p3).toColourspace('rgb16').raw({ depth: 'ushort' }).toBuffer();
    const code = [0, 1, 2].map((c) => stored.readUInt16LE(c * 2) / 65535);
    const light = code.map(decodeSrgb);
    const matrix = between(spaces.p3, spaces.srgb);
    const want = [0, 1, 2].map((r) =>
      Math.round(
        255 *
          encodeSrgb(
            must(matrix[r * 3]) * must(light[0]) +
              must(matrix[r * 3 + 1]) * must(light[1]) +
              must(matrix[r * 3 + 2]) * must(light[2]),
          ),
      ),
    );
    expect((await sharp(p3).metadata()).depth).toBe('ushort');
    expect(Math.max(...want.map((v, c) => Math.abs(v - Math.round(must(code[c]) * 255))))).toBeGreaterThan(8); // the profile matters
    const id = await bring('wide.png', new Uint8Array(p3));
    const near = (got: Uint8Array) => want.forEach((v, c) => expect(Math.abs(must(got[c]) - v)).toBeLessThanOrEqual(1));
    near(
      await sharp(await framePicture(p.retoucher, id, 900))
        .raw()
        .toBuffer(),
    );
    near((await framePart(p.retoucher, id, { x: 3, y: 3, w: 4, h: 4 })).data);
    const made = await addExport(p.librarian, id, 'wide', new Uint8Array(p3));
    near(
      await sharp(await exportPicture(p.retoucher, made.id, 900))
        .raw()
        .toBuffer(),
    );
  });
});

describe('a linear DNG', () => {
  test('is a frame of camera data, whose parts are three values a place, turned as the file says', async () => {
    const data = Uint16Array.from({ length: 9 * 6 * 3 }, (_, i) => 1000 + i * 50);
    const longs = (t: number, ...v: number[]) => numbersTag(t, 4, v, true);
    const shorts = (t: number, ...v: number[]) => numbersTag(t, 3, v, true);
    const file = writeIfds(42, true, {
      tags: [
        longs(254, 0),
        longs(256, 9),
        longs(257, 6),
        shorts(258, 16, 16, 16),
        shorts(259, 1),
        shorts(262, 34892),
        shorts(274, 6),
        shorts(277, 3),
        longs(278, 6),
        longs(279, data.byteLength),
        bytesTag(50706, Uint8Array.of(1, 4, 0, 0), 1),
        ...profileFor(must(cameras[0]), null, 'E').tags.values(),
      ],
      blocks: { tag: 273, parts: [new Uint8Array(data.buffer)] },
    });
    const id = await bring('linear.dng', file);
    expect((await listFrames(p.retoucher)).find((f) => f.id === id)).toMatchObject({ file_kind: 'camera data' });
    expect(await fullSize(p.retoucher, id)).toEqual({ width: 6, height: 9 });
    const part = await framePart(p.retoucher, id, { x: 0, y: 0, w: 6, h: 9 });
    expect(part).toMatchObject({ kind: 'linear', stored: { x: 0, y: 0, w: 9, h: 6 } });
    expect(words(part.data)).toEqual(data);
    const small = await linearPicture(p.retoucher, id, 320);
    expect([small.width, small.height]).toEqual([6, 9]);
    expect(words(small.data)[0]).toBe(data[5 * 9 * 3]); // the lower left corner is now the first place
  });
});

describe('camera files that are no DNG', () => {
  /** A camera's own file, as far as can be made up: a mosaic in TIFF/EP without the tags that make it a DNG. */
  const own = (): Uint8Array => {
    const out = dng(1, 'own').slice();
    const view = new DataView(out.buffer);
    const at = view.getUint32(4, true);
    for (let i = 0; i < view.getUint16(at, true); i++) {
      const p = at + 2 + i * 12;
      const t = view.getUint16(p, true);
      if (t === 50706 || t === 50707) view.setUint16(p, t + 12000, true);
    }
    return out;
  };
  beforeAll(() => {
    spawnSync('bin/etagere', ['look']);
  }, 120_000); // makes the programs, the decoder among them
  test('are told by their mosaic, decoded, and developed as DNG is: every value as the sensor gave it', async () => {
    const bytes = own();
    const recognised = recognise('OWN_0001.raw', bytes, []);
    expect(recognised).toMatchObject({
      kind: 'frame',
      format: 'raw',
      facts: { camera: 'Perrin Alder', width, height },
    });
    const id = await transaction(async (sql) =>
      frameFromFile(sql, actorOf(p.librarian), {
        name: 'own',
        fileName: 'OWN_0001.raw',
        sha: await putBlob(sql, Buffer.from(bytes)),
        facts: recognised.facts,
      }),
    );
    const part = await framePart(p.retoucher, id, { x: 0, y: 0, w: width, h: height });
    expect(part).toMatchObject({
      kind: 'mosaic',
      cfa,
      black: [512, 512, 512, 512],
      stored: { x: 0, y: 0, w: width, h: height },
    });
    expect(words(part.data)).toEqual(mosaic);
    part.neutral.forEach((v, i) => expect(v).toBeCloseTo(must([0.5, 1, 0.6][i]), 4));
    expect((await listFrames(p.retoucher)).find((f) => f.id === id)).toMatchObject({
      file_kind: 'camera data',
      camera: 'Perrin Alder',
    });
  });
  test('what the decoder does not know is refused with words, and it cannot take the server with it', async () => {
    await expect(dngOfRaw(own().slice(0, 900), 'cut.raw')).rejects.toMatchObject({
      code: 'raw-unreadable',
      where: 'cut.raw',
    });
    await expect(dngOfRaw(new Uint8Array(0), 'empty.raw')).rejects.toMatchObject({ code: 'raw-unreadable' });
    await expect(dngOfRaw(new TextEncoder().encode('II*\0no camera'), 'no.raw')).rejects.toBeInstanceOf(Problem);
  });
});

test('the worker makes frames ready, and one that cannot be read does not stop the rest', async () => {
  const never = `${process.pid} ${Date.now()}`;
  const fresh = await bring('fresh.dng', dng(3, never));
  const broken = await bring('broken.dng', dng(8, never)); // contents that no run before has left in the cache
  await pool().query('delete from blob_chunk where sha256 = (select camera_data from frame where id = $1)', [broken]); // as a damaged disk does
  await expect(fullSize(p.retoucher, broken)).rejects.toThrow(/damaged or missing/);
  const id = await transaction((sql) =>
    addJob(sql, 'frames', 'Make frames ready', { frames: [broken, fresh] }, p.librarian.id),
  );
  await runJob(id, { frames: warmFrames });
  expect((await jobFor(p.librarian, id)).status).toBe('done');
  const files = await readdir(join(dataFolder(), 'cache', 'full'));
  const n = files.length;
  await fullSize(p.retoucher, fresh);
  expect((await readdir(join(dataFolder(), 'cache', 'full'))).length).toBe(n); // nothing had to be made
});
