/** Camera matches against the database: frames by two cameras, compared, made a look, refused. */
import sharp from 'sharp';
import { beforeAll, expect, test } from 'vitest';
import { readCube } from '@/core/look/cube';
import { sampler } from '@/core/look/sample';
import { must } from '@/core/must';
import { seeded } from '@/core/random';
import { cardCorners, cardText } from '@/demo/cameras/card';
import { getBlob } from '../blobs/service';
import { addChart, placeChart } from '../charts/service';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { addFrame } from '../frames/service';
import { itemFor } from '../items/service';
import { actorOf } from '../people/roles';
import { addShelf } from '../shelves/service';
import { makeMatch, previewMatch } from './service';

withDatabase();
type Color = [number, number, number];

/** Blocks of color, as a camera would show them. */
async function blocks(columns: number, rows: number, camera: (color: Color) => Color): Promise<Buffer> {
  const random = seeded(7);
  const side = 30;
  const data = Buffer.alloc(columns * rows * side * side * 3);
  const colors = Array.from({ length: columns * rows }, (): Color => {
    const color: Color = [0.1 + 0.7 * random(), 0.1 + 0.7 * random(), 0.1 + 0.7 * random()];
    return camera(color);
  });
  for (let y = 0; y < rows * side; y++)
    for (let x = 0; x < columns * side; x++) {
      const color = must(colors[Math.floor(y / side) * columns + Math.floor(x / side)]);
      for (let c = 0; c < 3; c++) data[(y * columns * side + x) * 3 + c] = Math.round(255 * must(color[c]));
    }
  const raw = { width: columns * side, height: rows * side, channels: 3 as const };
  return sharp(data, { raw }).png().toBuffer();
}
const asIs = (color: Color): Color => color;
/** Warmer, and less blue in the reds. */
const warm = ([r, g, b]: Color): Color => [Math.min(0.97, r * 1.1), g, b * 0.85 + 0.03 * r];

async function frameOf(name: string, camera: string, png: Buffer): Promise<string> {
  const { width = 0, height = 0 } = await sharp(png).metadata();
  const id = await transaction((sql) =>
    addFrame(sql, actorOf(people.librarian), { name, light: 'daylight', png, width, height, position: 1 }),
  );
  await pool().query('update frame set camera = $2 where id = $1', [id, camera]);
  return id;
}

let shelf = '';
let plain = '';
let warmer = '';
beforeAll(async () => {
  shelf = await addShelf(people.librarian, { name: 'Matches' });
  plain = await frameOf('Alder blocks', 'Perrin Alder', await blocks(30, 20, asIs));
  warmer = await frameOf('Ondine blocks', 'Ondine 40', await blocks(30, 20, warm));
});

test('what two cameras show of one scene is compared area by area, and the look brings them together', async () => {
  const found = await previewMatch(people.retoucher, plain, warmer);
  expect(found.by).toBe('scene');
  expect(found.patches.length).toBeGreaterThan(400);
  expect(found.after.mean).toBeLessThan(found.before.mean / 2);
  const made = await makeMatch(people.librarian, { from: plain, to: warmer, title: 'Alder as Ondine', shelf });
  const { item, newest } = await itemFor(people.librarian, made.itemId);
  expect(item).toMatchObject({ shelf_id: shelf, cameras: ['Perrin Alder'], supplier: '', status: 'draft' });
  expect(newest.facts).toMatchObject({ size: 33, matched: { from: 'Alder blocks', to: 'Ondine blocks', by: 'scene' } });
  const look = sampler(readCube(new Uint8Array(await getBlob(newest.sha256))));
  const out = new Float64Array(3);
  look(0.5, 0.4, 0.3, out, 0);
  warm([0.5, 0.4, 0.3]).forEach((value, c) => expect(out[c]).toBeCloseTo(value, 1));
});

test('where both show one chart, its patches are compared by their names; the look may be for any camera', async () => {
  const chart = await addChart(people.librarian, { text: cardText() });
  const corners = cardCorners();
  for (const frame of [plain, warmer]) await placeChart(people.librarian, frame, { chart: chart.id, corners });
  const found = await previewMatch(people.librarian, plain, warmer);
  expect([found.by, found.patches.length]).toEqual(['chart', 40]);
  const made = await makeMatch(people.lead, { from: plain, to: warmer, title: 'Open', shelf, limit: false });
  expect((await itemFor(people.librarian, made.itemId)).item.cameras).toEqual([]);
  await placeChart(people.librarian, plain, { chart: null });
  expect((await previewMatch(people.librarian, plain, warmer)).by).toBe('scene');
});

test('one frame twice, two shapes, too few even areas, a shelf that is not there, another’s right: refused', async () => {
  const tall = await frameOf('Tall', 'Ondine 40', await blocks(10, 20, asIs));
  const noise = Buffer.from(Array.from({ length: 600 * 400 * 3 }, (_, i) => (i * 7919 + (i % 13) * 101) % 256));
  const rough = await frameOf(
    'Rough',
    'Ondine 40',
    await sharp(noise, { raw: { width: 600, height: 400, channels: 3 } })
      .png()
      .toBuffer(),
  );
  const code = async (from: string, to: string) =>
    previewMatch(people.librarian, from, to).then(
      () => 'made',
      (error: { code: string }) => error.code,
    );
  expect(await code(plain, plain)).toBe('match-same');
  expect(await code(plain, tall)).toBe('match-shape');
  expect(await code(plain, rough)).toBe('match-patches');
  expect(await code(plain, shelf)).toBe('not-found');
  const asked = { from: plain, to: warmer, title: 'Nowhere', shelf: plain };
  await expect(makeMatch(people.librarian, asked)).rejects.toMatchObject({ code: 'shelf-unknown' });
  await expect(makeMatch(people.retoucher, asked)).rejects.toMatchObject({ code: 'not-allowed' });
  await expect(makeMatch(people.librarian, { ...asked, title: ' ' })).rejects.toMatchObject({ code: 'input-invalid' });
});
