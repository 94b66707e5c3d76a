/** Items seen working: the stand-in editors make the pictures, from the files that a rollout put there. */
import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import type { System } from '@/core/editor/place-schema';
import { must } from '@/core/must';
import type { Settings } from '@/core/preset/kinds';
import { warm } from '@/core/preset/testing';
import { writePreset, type Language } from '@/core/preset/write';
import { entryAt } from '@/core/sync/bundle';
import { resolveTemplate } from '@/core/sync/place-templates';
import type { Operation } from '@/core/sync/protocol';
import { houseLooks } from '@/demo/designs';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { bytesOf, getBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { addFrame } from '../frames/service';
import { approve } from '../items/approval';
import { confirmRollout, contentFor } from '../rollouts/service';
import { addStation, agent, approvedLook, carryOut, enrolled, item, planned, sha } from '../rollouts/testing/world';
import { instructionsFor, takeReport } from '../stations/service';
import { sightingPicture } from './pictures';
import { takeExport, takePicture, takePictureFault } from './result';
import { askForPictures, giveUpSighting, sightingFor, sightingsAt } from './service';

withDatabase();

/** Colors of every hue and lightness, in sRGB. */
const picture = (width: number, height: number): Promise<Buffer> => {
  const data = Buffer.alloc(width * height * 3);
  for (let i = 0; i < width * height; i++) {
    const [x, y] = [(i % width) / (width - 1), Math.floor(i / width) / (height - 1)];
    [x, y, (x + 1 - y) / 2].forEach((value, c) => (data[3 * i + c] = Math.round(20 + 215 * value)));
  }
  return sharp(data, { raw: { width, height, channels: 3 } })
    .png()
    .toBuffer();
};

interface Place {
  descriptor: Descriptor;
  system: System;
  id: string;
  token: string;
  root: string;
  operations: Operation[];
  program: ChildProcess | null;
}
const base = mkdtempSync(join(tmpdir(), 'etagere-sightings-'));
const places: Place[] = [];
let [frame, black] = ['', ''];
let look: Awaited<ReturnType<typeof approvedLook>>;

/** What an agent would have written. */
async function write({ root, operations }: Place): Promise<void> {
  const put = (path: string, bytes: Buffer | string): void => {
    mkdirSync(dirname(join(root, path)), { recursive: true });
    writeFileSync(join(root, path), bytes);
  };
  const bundle: Record<string, Record<string, unknown>> = {};
  for (const { path, sha256 } of operations) {
    const bytes = await getBlob(bytesOf(must(sha256)));
    const entry = entryAt(path);
    if (!entry) {
      put(path, bytes);
      continue;
    }
    (bundle[entry.list] ??= {})[entry.key] = JSON.parse(bytes.toString('utf8'));
    put(entry.file, JSON.stringify({ tessel: 7, ...bundle }));
  }
}

/** Starts the stand-in and reports what it lists. */
async function start(place: Place): Promise<void> {
  const { descriptor, system, root, token, operations } = place;
  const program = spawn(
    process.execPath,
    [`dist/standins/${descriptor.editor}.mjs`, '--root', root, '--system', system, '--edition', descriptor.version],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  );
  place.program = program;
  await new Promise<void>((done) => program.stdout.once('data', () => done()));
  const text = readFileSync(join(root, resolveTemplate(must(descriptor.listing[system]), system)), 'utf8');
  const { listings } = await instructionsFor(await agent(token));
  const files = operations.map(({ path, size, sha256 }) => ({ path, size, sha256: must(sha256) }));
  await takeReport(await agent(token), {
    agentVersion: '0.4.0',
    files,
    digest: sha(JSON.stringify(files)),
    listings: [{ editor: must(listings[0]).editor, text, running: true, at: new Date().toISOString() }],
    indexes: [],
    waiting: null,
  });
}

/** A preset in each editor's own language, of nearly all that a picture shows. */
const PRESET = 'Dusk';
/** The same, with corners that no picture of ours shows. */
const RIMMED = 'Rim';
const LOOK = must(houseLooks[0]).title;
const dusk: Settings = {
  ...warm,
  level: -0.3,
  blackPoint: 0.02,
  hueSectors: [{ center: 255, width: 90, turn: 8, chroma: 0.7, lightness: 0.02 }],
};

const pathOf = ({ operations }: Place, title = LOOK): string =>
  must(operations.find(({ path }) => path.includes(title))).path;
const ask = (place: Place, of = frame, by: 'editor' | 'person' = 'editor', title?: string) =>
  askForPictures(people.librarian, place.id, { paths: [pathOf(place, title)], frame: of, by });
const placeOf = (editor: string): Place => must(places.find(({ descriptor }) => descriptor.editor === editor));

/** What the agent lays into the editor's folder; the name of what comes back. */
async function lay(place: Place): Promise<{ id: string; result: string; fault: string }> {
  const [told] = must((await instructionsFor(await agent(place.token))).pictures);
  const { folder, endings, asked } = must(told);
  const one = must(asked.at(-1));
  const at = (ending: string): string => join(place.root, folder, one.id + ending);
  mkdirSync(dirname(at('')), { recursive: true });
  const { chunks } = await contentFor(await agent(place.token), one.sha256);
  const parts: Buffer[] = [];
  for await (const chunk of chunks) parts.push(chunk);
  const bytes = Buffer.concat(parts);
  expect(bytes.length).toBe(one.size);
  writeFileSync(at(endings.picture), bytes);
  writeFileSync(at(endings.ask), one.text);
  return { id: one.id, result: at(endings.result), fault: at(endings.fault) };
}

async function made(file: string): Promise<Buffer> {
  for (let tries = 0; tries < 200 && !existsSync(file); tries++) await wait(100);
  return readFileSync(file);
}

async function approvedPreset(descriptor: Descriptor, name: string, settings: Settings): Promise<string> {
  const { presets, accepts, title } = descriptor;
  const { bytes } = writePreset(must(presets) as Language, settings, { title: name, headings: [] }, title);
  const { extension } = must(accepts.find(({ kind }) => kind === 'preset'));
  const { versionId } = await item(name, new TextDecoder().decode(bytes), `${name}${extension}`);
  await approve(people.librarian, versionId);
  return versionId;
}

beforeAll(async () => {
  const descriptors = [oxbow2, marlstone4, tessel7].map((one) => parseDescriptor(one));
  const actor = { personId: null, name: 't' };
  await transaction(async (sql) => {
    for (const descriptor of descriptors) await bringDescriptor(sql, actor, descriptor, 'd');
    const common = { light: '', width: 90, height: 60, position: 0 };
    frame = await addFrame(sql, actor, { ...common, name: 'Wall', png: await picture(90, 60) });
    const png = await sharp({ create: { width: 90, height: 60, channels: 3, background: '#000' } })
      .png()
      .toBuffer();
    black = await addFrame(sql, actor, { ...common, name: 'Night', png });
  });
  look = await approvedLook(0);
  for (const descriptor of descriptors) {
    const system = descriptor.editor === 'oxbow' ? 'linux' : 'windows';
    const id = await addStation(`At ${descriptor.title}`, system, [`${descriptor.editor}@${descriptor.version}`]);
    const token = await enrolled(id, system);
    const root = join(base, descriptor.editor);
    mkdirSync(root);
    const versions = [
      look.versionId,
      await approvedPreset(descriptor, PRESET, dusk),
      await approvedPreset(descriptor, RIMMED, { ...dusk, vignette: -2 }),
    ];
    const rollout = await planned({ versions, stations: [id] });
    await confirmRollout(people.lead, rollout);
    const place: Place = { descriptor, system, id, token, root, operations: await carryOut(token), program: null };
    await write(place);
    await start(place);
    places.push(place);
  }
}, 120_000);
afterAll(() => {
  for (const { program } of places) program?.kill('SIGKILL');
  rmSync(base, { recursive: true, force: true });
});

describe('a look that an editor lists', () => {
  test.each(['oxbow', 'marlstone', 'tessel'])(
    'is seen working by the picture that %s makes of it',
    async (editor) => {
      const place = placeOf(editor);
      const { asked, left } = await ask(place);
      expect([asked.length, left]).toEqual([1, []]);
      const { id, result } = await lay(place);
      await takePicture(await agent(place.token), id, await made(result));
      const sighting = await sightingFor(people.retoucher, id);
      expect(sighting.reason).toMatch(/own picture of Wall is as ours: ΔE00 0\.\d\d on average/);
      expect(sighting.state).toBe('seen');
      expect(must(sighting.figures).off.mean).toBeLessThan(0.6);
      expect(must(sighting.figures).here.mean).toBeGreaterThan(2);
      // the next report does not ask again
      expect(must((await instructionsFor(await agent(place.token))).pictures)[0]?.asked).toEqual([]);
      const newest = await sightingsAt(people.retoucher, [place.id]);
      const base = must(place.operations.find(({ path }) => path === pathOf(place))).sha256;
      expect(newest(place.id, { path: pathOf(place), base })?.id).toBe(id);
      expect(newest(place.id, { path: pathOf(place), base: sha('another') })).toBeUndefined();
    },
    60_000,
  );

  test('is told otherwise where the editor’s picture is without it, and who looks sees both', async () => {
    const place = placeOf('oxbow');
    const id = must((await ask(place)).asked[0]).id;
    const given = await sightingPicture(people.retoucher, id, 'given');
    await takePicture(await agent(place.token), id, given);
    const { state, reason } = await sightingFor(people.retoucher, id);
    expect([state, reason]).toEqual(['differs', expect.stringMatching(/is as it was without it \(ΔE00 0\.00/)]);
    expect(await sightingPicture(people.retoucher, id, 'back')).toEqual(given);
    const ours = await sharp(await sightingPicture(people.retoucher, id, 'ours')).stats();
    const difference = await sharp(await sightingPicture(people.retoucher, id, 'difference')).stats();
    expect(ours.channels.length).toBe(3);
    expect(difference.channels[0]?.mean).toBeGreaterThan(20);
    const events = await many<{ action: string }>(pool(), "select action from event where subject = 'station'");
    expect(events.map(({ action }) => action)).toContain('seen otherwise');
  });

  test('cannot be told by a frame on which it does nothing', async () => {
    const place = placeOf('oxbow');
    const id = must((await ask(place, black)).asked[0]).id;
    await takePicture(await agent(place.token), id, await sightingPicture(people.retoucher, id, 'given'));
    const { state, figures } = await sightingFor(people.retoucher, id);
    // a look that lifts black is seen even there
    expect(state).toBe(must(figures).here.mean < 0.5 ? 'unclear' : 'differs');
  });

  test('is told as not made, in the words of the editor', async () => {
    const place = placeOf('marlstone');
    await ask(place);
    const { id, fault } = await lay(place);
    const file = fault.replace('.fault.txt', '.job');
    writeFileSync(file, readFileSync(file, 'utf8').replace(/^put = .*$/m, 'put = nothing'));
    const why = (await made(fault)).toString('utf8');
    await takePictureFault(await agent(place.token), id, { message: why.trim() });
    const { state, reason } = await sightingFor(people.retoucher, id);
    expect([state, reason]).toEqual(['failed', 'Marlstone 4 has nothing at nothing']);
  }, 60_000);
});

describe('a preset that an editor lists', () => {
  test.each(['oxbow', 'marlstone', 'tessel'])(
    'is developed by %s in its own way, and is seen working',
    async (editor) => {
      const place = placeOf(editor);
      expect((await ask(place, frame, 'editor', PRESET)).left).toEqual([]);
      const { id, result } = await lay(place);
      await takePicture(await agent(place.token), id, await made(result));
      const { state, reason, figures } = await sightingFor(people.retoucher, id);
      expect([state, reason]).toEqual(['seen', expect.stringMatching(/own picture of Wall is as ours/)]);
      expect(must(figures).off.mean).toBeLessThan(0.2);
      expect(must(figures).here.mean).toBeGreaterThan(4);
    },
    60_000,
  );
});

test('a preset that darkens the corners too is seen otherwise, and ours says what it does not show', async () => {
  const place = placeOf('marlstone');
  await ask(place, frame, 'editor', RIMMED);
  const { id, result } = await lay(place);
  await takePicture(await agent(place.token), id, await made(result));
  const { state, reason } = await sightingFor(people.retoucher, id);
  expect([state, reason]).toEqual(['differs', expect.stringMatching(/not as ours: .*; ours does not show vignette$/)]);
}, 60_000);

describe('what comes back', () => {
  test('of another size is told; broken, too', async () => {
    const place = placeOf('oxbow');
    const id = must((await ask(place)).asked[0]).id;
    await takePicture(await agent(place.token), id, await picture(45, 30));
    expect((await sightingFor(people.retoucher, id)).reason).toMatch(/45 × 30 pixels; 90 × 60 were given/);
    const next = must((await ask(place)).asked[0]).id;
    await takePicture(await agent(place.token), next, Buffer.from('no picture'));
    expect((await sightingFor(people.retoucher, next)).state).toBe('failed');
  });

  test('is nobody else’s: neither another station’s, nor what is not asked for any more', async () => {
    const place = placeOf('oxbow');
    const id = must((await ask(place)).asked[0]).id;
    const given = await sightingPicture(people.retoucher, id, 'given');
    await takePicture(await agent(placeOf('tessel').token), id, given);
    expect((await sightingFor(people.retoucher, id)).state).toBe('asked');
    const again = must((await ask(place)).asked[0]).id;
    await takePicture(await agent(place.token), id, given);
    await expect(sightingFor(people.retoucher, id)).rejects.toThrow(/Nobody asks for this picture/);
    await giveUpSighting(people.retoucher, again);
    await expect(giveUpSighting(people.retoucher, again)).rejects.toThrow(/Nobody asks/);
  });

  test('is asked for once, whoever asks at the same time', async () => {
    const place = placeOf('oxbow');
    const all = await Promise.all(Array.from({ length: 8 }, () => ask(place)));
    const told = must((await instructionsFor(await agent(place.token))).pictures)[0]?.asked ?? [];
    expect(told.length).toBe(1);
    expect(all.flatMap(({ asked }) => asked.map(({ id }) => id))).toContain(told[0]?.id);
    await giveUpSighting(people.lead, must(told[0]).id);
  });

  test('may be an export that a person gives, once', async () => {
    const place = placeOf('oxbow');
    const id = must((await ask(place, frame, 'person')).asked[0]).id;
    // it is not asked of the agent
    expect(must((await instructionsFor(await agent(place.token))).pictures)[0]?.asked).toEqual([]);
    await expect(takeExport(people.retoucher, id, await picture(45, 30))).rejects.toThrow(/45 × 30/);
    const given = await sightingPicture(people.retoucher, id, 'given');
    const jpeg = await sharp(given).jpeg({ quality: 100 }).toBuffer();
    expect(await takeExport(people.retoucher, id, jpeg)).toMatchObject({ state: 'differs' });
    await expect(takeExport(people.retoucher, id, jpeg)).rejects.toThrow(/Nobody asks/);
  });
});

describe('what cannot be asked for', () => {
  test('is told by file with its reason: not placed, not listed, of an old agent', async () => {
    const place = placeOf('oxbow');
    const paths = ['Oxbow/Looks/nothing.cube', pathOf(place)];
    const answer = await askForPictures(people.librarian, place.id, { paths, frame, by: 'editor' });
    expect(answer.left.map(({ reason }) => reason)).toEqual(['nothing of ours lies there']);
    expect(answer.asked.length).toBe(1);
    const files = place.operations.map(({ path, size, sha256 }) => ({ path, size, sha256: must(sha256) }));
    await takeReport(await agent(place.token), {
      agentVersion: '0.3.0',
      files,
      digest: sha(JSON.stringify(files)),
      listings: [],
      indexes: [],
      waiting: null,
    });
    expect((await ask(place)).left[0]?.reason).toMatch(/older than 0\.4/);
    await expect(
      askForPictures(people.librarian, place.id, { paths: ['x'], frame: place.id, by: 'editor' }),
    ).rejects.toThrow(/no such frame/);
  });
});
