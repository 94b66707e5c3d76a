/** What opening rules do to frames: which rule each list takes, and the pictures that come of it. */
import sharp from 'sharp';
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import type { Rule } from '@/core/opening/rule';
import { writeDcp } from '@/core/camera/dcp';
import { cameras } from '@/demo/cameras/cameras';
import { lensDatabase, studioCameras, studioLenses } from '@/demo/cameras/gear';
import { profileFor } from '@/demo/cameras/profiles';
import { smallDng } from '@/demo/testing/small-dng';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { putBlob } from '../blobs/service';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { factsOfFrame, frameFromFile } from '../frames/service';
import { coverage, keepGear } from '../gear/service';
import { approve } from '../items/approval';
import { itemOf } from '../items/testing/item-of';
import { actorOf } from '../people/roles';
import { addStation, agent, enrolled, sha } from '../rollouts/testing/world';
import { addShelf } from '../shelves/service';
import { takeReport } from '../stations/service';
import { openedPicture, openingOnFrame } from './on-frame';
import { openingFor, setOpening } from './service';

withDatabase();

const LIST = '.config/oxbow/opening.rules';
const LENS = must(studioLenses[0]);
const noisy = Uint16Array.from({ length: 64 }, (_, i) => 4000 + ((i * 37) % 64) * 8);
let database = '';
let token = '';
let photo = '';
let print = '';

async function frame(name: string, bytes: Uint8Array): Promise<string> {
  return transaction(async (sql) =>
    frameFromFile(sql, actorOf(people.librarian), {
      name,
      fileName: name,
      sha: await putBlob(sql, Buffer.from(bytes)),
      facts: factsOfFrame(bytes),
    }),
  );
}

async function theirs(text: string): Promise<void> {
  const files = [{ path: LIST, size: text.length, sha256: sha(text) }];
  await takeReport(await agent(token), {
    agentVersion: '0.5.0',
    files,
    digest: sha(text),
    listings: [],
    indexes: [{ path: LIST, text }],
    waiting: null,
  });
}
async function ours(...rules: Rule[]): Promise<void> {
  await setOpening(people.lead, { revision: (await openingFor(people.lead)).revision, rules });
}

/** How light a picture is on the whole, linear. */
async function lightOf(id: string, start: Rule['start']): Promise<number> {
  const { make } = await openedPicture(people.retoucher, id, { start });
  const { channels } = await sharp(await make()).stats();
  const code = must(channels[1]).mean / 255;
  return code <= 0.04045 ? code / 12.92 : ((code + 0.055) / 1.055) ** 2.4;
}

beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  token = await enrolled(await addStation('Desk', 'linux', ['oxbow@2']), 'linux');
  photo = await frame(
    'ALD 0001',
    smallDng('Perrin', 'Perrin Alder', { iso: 400, lens: LENS.model, baseline: 1, mosaic: noisy }),
  );
  const { maker, model, mount, sensor_width, sensor_height } = must(studioCameras[0]);
  await keepGear(people.librarian, 'camera', null, { maker, model, mount, sensor_width, sensor_height });
  const png = await sharp({ create: { width: 16, height: 12, channels: 3, background: '#6a7f58' } })
    .png()
    .toBuffer();
  print = await frame('print.png', png);
  const shelfId = await addShelf(people.librarian, { name: 'Gear', note: '' });
  const lenses = await itemOf(lensDatabase(), 'lenses.xml', { shelfId, title: 'Lenses' });
  database = lenses.versionId;
  const own = must(cameras[0]);
  await itemOf(writeDcp(profileFor(own, 'Standard', 'Own')), 'own.dcp', {
    shelfId,
    title: 'Own',
    cameras: [own.unique],
  });
  const half =
    'TITLE "Half"\nLUT_3D_SIZE 2\n' +
    [0, 1, 2, 3, 4, 5, 6, 7].map((n) => `${(n & 1) / 2} ${((n >> 1) & 1) / 2} ${(n >> 2) / 2}\n`).join('');
  await itemOf(half, 'half.cube', { shelfId, title: 'Half' });
});

const beginningsOf = async (id: string) =>
  (await openingOnFrame(people.retoucher, id)).begun.flatMap(({ beginnings }) => beginnings);

describe('an offset that the file asks for', () => {
  test('is what sets two lists apart, and is shown', async () => {
    await ours({ when: {}, start: { exposure: 'ignored' } });
    await theirs('=> offset = follow\n');
    const { begun, unsure, camera } = await openingOnFrame(people.retoucher, photo);
    expect([camera, unsure]).toEqual([true, []]);
    const told = begun.flatMap(({ beginnings }) => beginnings);
    expect(told.map(({ who, start }) => [who.map(({ words }) => words), start])).toEqual([
      [['the studio'], { exposure: 'ignored' }],
      [['Desk, Oxbow 2'], { exposure: 'applied' }],
    ]);
    expect(must(begun[0]).apart).toBeNull();
    expect(must(must(begun[1]).apart).mean).toBeGreaterThan(5);
    const flat = { curve: 'none' } as const;
    const factor = (await lightOf(photo, { ...flat, exposure: 'applied' })) / (await lightOf(photo, flat));
    // one stop, but for 8 bits
    expect(factor).toBeGreaterThan(1.95);
    expect(factor).toBeLessThan(2.05);
  });

  test('lists that differ in nothing that is seen share a picture', async () => {
    await ours({ when: {}, start: { exposure: 'applied, shown as zero', engine: '7' } });
    const { begun } = await openingOnFrame(people.retoucher, photo);
    expect(begun.map(({ beginnings, apart }) => [beginnings.length, apart])).toEqual([[2, null]]);
  });

  test('that is shown as zero looks the same', async () => {
    expect(await lightOf(photo, { exposure: 'applied, shown as zero' })).toBe(
      await lightOf(photo, { exposure: 'applied' }),
    );
  });
});

describe('the rule that is taken', () => {
  test('is the first that fits: by body, ISO, kind of file and lens', async () => {
    await ours(
      { when: { camera: 'Corvane Ley' }, start: { noise: 'none' } },
      { when: { iso: '800-' }, start: { noise: 'color and luminance' } },
      {
        when: { camera: 'perrin alder', iso: '100-400', lens: 'matched', input: 'camera data' },
        start: { curve: 'none' },
      },
      { when: {}, start: { noise: 'color' } },
    );
    const [first] = await beginningsOf(photo);
    expect(must(first).who[0]?.rule).toBe('perrin alder, camera data, lens matched, ISO 100 to 400');
    expect((await beginningsOf(print))[0]).toMatchObject({ start: { noise: 'color' } });
  });

  test('of an editor goes by the lens databases that it has', async () => {
    await ours({ when: { lens: 'matched' }, start: { curve: 'none' } });
    await theirs('glass = unknown => tone = straight\n=> tone = oxbow\n');
    const beginnings = await beginningsOf(photo);
    // the studio holds the lens; nothing was put at the desk
    expect(beginnings).toHaveLength(1);
    expect(must(beginnings[0]).who.map(({ rule }) => rule)).toEqual(['lens matched', 'lens not matched']);
  });

  test('is none where none fits, or where nobody can tell', async () => {
    await ours({ when: { camera: 'Corvane Ley' }, start: { curve: 'none' } });
    await theirs('moon = full => tone = straight\n=> tone = oxbow\n');
    const { unsure } = await openingOnFrame(people.retoucher, photo);
    expect(await beginningsOf(photo)).toMatchObject([{ start: {}, who: [{ words: 'the studio', rule: '' }] }]);
    expect(unsure).toEqual([
      { words: 'Desk, Oxbow 2', reason: 'the rule that may fit says what is not known here: moon' },
    ]);
    await theirs('no rule at all');
    expect((await openingOnFrame(people.retoucher, photo)).unsure[0]?.reason).toMatch(/line 1 is no rule/);
  });
});

describe('what a rule names', () => {
  test('is the item that bears the name, for the body of the frame', async () => {
    await ours({ when: {}, start: { profile: 'Own', look: 'Half' } });
    const [studio] = await beginningsOf(photo);
    expect(must(studio).notShown).toEqual([]);
    const plain = await lightOf(print, {});
    const halved = await lightOf(print, { look: 'half' });
    expect(halved).toBeLessThan(plain / 2);
    expect(await lightOf(photo, { profile: 'Own' })).not.toBe(await lightOf(photo, {}));
  });

  test('and is not held, or cannot be shown, is told', async () => {
    await ours({
      when: {},
      start: { lens: 'matched', noise: 'color', engine: '7.1', profile: 'Elsewhere', preset: 'Elsewhere' },
    });
    const told = async (id: string) => must((await beginningsOf(id))[0]).notShown;
    expect(await told(photo)).toEqual([
      'camera profile: Elsewhere (nothing of that name is held for the Perrin Alder)',
      'preset: Elsewhere (nothing of that name is held)',
    ]);
    expect(await told(print)).toContain('camera profile: Elsewhere (this frame is no camera data)');
  });
});

describe('a lens', () => {
  const studio = async (id = photo) => must((await beginningsOf(id))[0]);

  test('is corrected by the database that measures it, and how far that moves places is told', async () => {
    await ours({ when: {}, start: { lens: 'matched' } });
    await theirs('=> correct = never\n');
    const { begun } = await openingOnFrame(people.retoucher, photo);
    const [first, other] = begun.flatMap(({ beginnings }) => beginnings);
    expect(must(first).notShown).toEqual([]);
    expect(must(first).lens).toMatch(
      /^Perrin 50 mm f\/2, by Lenses 2026-10; places move by up to [\d.]+ of \d+ pixels$/,
    );
    expect(must(other)).toMatchObject({ start: { lens: 'none' }, lens: '', notShown: [] });
    const pixels = async (database: string) =>
      (await openedPicture(people.retoucher, photo, { start: { lens: 'matched' }, database })).make();
    const [corrected, left] = [await pixels(must(first).database), await pixels('')];
    expect(corrected.equals(left)).toBe(false);
    expect(left.equals(await pixels(''))).toBe(true);
  });

  test('is looked for in what the editor has, and nowhere else', async () => {
    await theirs('=> correct = by name\n');
    const told = (await beginningsOf(photo)).map(({ who, lens, notShown }) => [who[0]?.words, lens !== '', notShown]);
    expect(told).toEqual([
      ['the studio', true, []],
      [
        'Desk, Oxbow 2',
        false,
        ['lens correction: matched (none of our lens databases there measures the Perrin 50 mm f/2)'],
      ],
    ]);
  });

  test('that a database of the studio measures is brought there by it', async () => {
    await ours({ when: {}, start: { lens: 'matched' } });
    await theirs('=> correct = by name\n');
    const before = await openingOnFrame(people.retoucher, photo);
    const needs = before.begun.flatMap(({ beginnings }) => beginnings).map(({ needsDatabase }) => needsDatabase);
    expect([needs, before.database]).toEqual([[false, true], null]);
    await approve(people.librarian, database);
    const after = await openingOnFrame(people.retoucher, photo);
    expect(after.database).toEqual({ version: database, title: 'Lenses' });
    expect((await openingOnFrame(people.retoucher, print)).database).toBeNull();
  });

  test('that no database there could correct is not offered one', async () => {
    await ours({ when: {}, start: { lens: 'matched' } });
    const { maker, model, mount } = must(studioCameras[0]);
    const camera = must((await coverage(people.lead)).cameras.find(({ row }) => row.model === model)).row;
    const sized = (sensor_width: number, sensor_height: number) =>
      keepGear(people.librarian, 'camera', camera.id, { maker, model, mount, sensor_width, sensor_height });
    // the database was measured on a smaller sensor
    await sized(54, 40);
    const told = await openingOnFrame(people.retoucher, photo);
    expect(told.begun[0]?.beginnings[0]?.notShown[0]).toContain('smaller sensor');
    expect(told.database).toBeNull();
    await sized(36, 24);
  });

  test('that is named is looked for by its name; one that nobody knows, or that only the editor knows, is told', async () => {
    const told = async (lens: string) => {
      await ours({ when: {}, start: { lens } });
      return studio();
    };
    expect((await told('PX 50/2')).lens).toContain('Perrin 50 mm f/2');
    expect((await told('Moon 1')).notShown).toEqual([
      'lens correction: Moon 1 (none of our lens databases there measures the Moon 1)',
    ]);
    expect((await told('last used')).notShown[0]).toContain('the editor alone knows');
    // taken with a longer lens than was measured
    expect((await told('Corvane 35 mm f/1.8')).notShown[0]).toMatch(/smaller sensor|was measured at 35 mm/);
  });

  test('of a rendered frame is not corrected, and a database that is none is refused', async () => {
    await ours({ when: {}, start: { lens: 'matched' } });
    expect((await studio(print)).notShown).toEqual(['lens correction: matched (this frame is no camera data)']);
    for (const database of ['moon', 'a'.repeat(64)])
      await expect(openedPicture(people.retoucher, photo, { start: {}, database })).rejects.toMatchObject({
        code: 'not-found',
      });
  });
});

describe('noise', () => {
  const piece = async (start: Rule['start'], id = photo) => {
    const { tag, make } = await openedPicture(people.retoucher, id, { start, piece: true });
    return { tag, png: await make() };
  };

  test('sets two lists apart, and is taken out of a piece at full size', async () => {
    await ours({ when: {}, start: { noise: 'color and luminance' } });
    await theirs('=> grain = lift specks\n');
    const { begun } = await openingOnFrame(people.retoucher, photo);
    expect(begun.map(({ beginnings, apart }) => [beginnings[0]?.start, apart?.mean])).toEqual([
      [{ noise: 'color and luminance' }, undefined],
      [{ noise: 'color' }, 0],
    ]);
    const [left, color, both] = [
      await piece({}),
      await piece({ noise: 'color' }),
      await piece({ noise: 'color and luminance' }),
    ];
    expect(new Set([left.tag, color.tag, both.tag]).size).toBe(3);
    expect((await piece({ noise: 'none' })).png.equals(left.png)).toBe(true);
    expect(both.png.equals(left.png)).toBe(false);
  });

  test('of a rendered frame is not shown, and has no piece', async () => {
    await ours({ when: {}, start: { noise: 'color' } });
    expect((await beginningsOf(print))[0]?.notShown).toEqual(['noise reduction: color (this frame is no camera data)']);
    await expect(piece({}, print)).rejects.toMatchObject({ code: 'frame-rendered' });
  });
});

test('what is no start, and a frame that is none, are refused', async () => {
  await expect(openedPicture(people.retoucher, photo, { start: { glow: 'soft' } })).rejects.toMatchObject({
    code: 'input-invalid',
  });
  await expect(openedPicture(people.retoucher, photo, { start: 'x' })).rejects.toMatchObject({ code: 'input-invalid' });
  await expect(openedPicture(people.retoucher, people.lead.id, { start: {} })).rejects.toMatchObject({
    code: 'not-found',
  });
});
