/** Arrivals in depth: what each file is to what is held, corrections, releases, putting back. */
import type { NewLicence } from '@/core/api/studio';
import { writeDcp } from '@/core/camera/dcp';
import { made } from '@/core/camera/testing';
import { toAbstract } from '@/core/icc/convert';
import { must } from '@/core/must';
import { strToU8, zipSync, type Zippable } from 'fflate';
import sharp from 'sharp';
import { beforeAll, describe, expect, test } from 'vitest';
import type { Settings } from '@/core/preset/kinds';
import type { OxbowPreset } from '@/demo/designs';
import { cubeOf, oxbowOf } from '@/demo/files';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { dcp, hald, wholeIcc } from '@/core/testing';
import { people, withDatabase } from '../db/testing/database';
import { pool, transaction } from '../db/pool';
import { openProposals } from '../editors/proposals';
import { bringDescriptor, descriptors } from '../editors/service';
import { convertPreset } from '../versions/convert';
import { listFrames, framePicture } from '../frames/service';
import { itemFor } from '../items/service';
import { addShelf } from '../shelves/service';
import { searchItems } from '../search/service';
import { runJob } from '../jobs/service';
import { addLicence } from '../licences/service';
import {
  acceptArrival,
  arrivalView,
  beginArrival,
  correctEntries,
  dropArrival,
  finishUpload,
  arrivalFor,
  readArrival,
  releaseFor,
  undoArrival,
  unfinishedUploads,
  uploadPart,
} from './service';
import { one } from '../db/query';

withDatabase();
let shelf = '';
beforeAll(async () => {
  for (const descriptor of [oxbow2, marlstone3, marlstone4])
    await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, descriptor, 'd'));
  shelf = await addShelf(people.librarian, { name: 'Test' });
});

const cube = (title: string, settings: Settings, size = 9) => cubeOf({ title, headings: [], settings }, size);
const warm: Settings = { warmth: 30, contrast: 1.2 };
const zip = (files: Record<string, string | Uint8Array>) =>
  zipSync(
    Object.fromEntries(Object.entries(files).map(([k, v]) => [k, typeof v === 'string' ? strToU8(v) : v])) as Zippable,
    { level: 6 },
  );
const lineList = (name: string, amount: number) =>
  `[marlstone]\nedition=3\nname=${name}\n[light]\namount=${amount}\nsnap=20\n[pigment]\ndepth=110\nheat=10\npale=5\nrose=2\n`;

const steps = (name: string, raise: number) =>
  `<?xml version="1.0"?>\n<marlstone-steps edition="4" title="${name}"><fire raise="${raise}" bite="28"/></marlstone-steps>`;

async function arrive(name: string, files: Record<string, string | Uint8Array>): Promise<string> {
  const list = Object.entries(files).map(([path, content]) => ({
    path,
    bytes: Buffer.from(typeof content === 'string' ? strToU8(content) : content),
  }));
  const begun = await beginArrival(people.librarian, {
    name,
    files: list.map((f) => ({ path: f.path, size: f.bytes.length })),
  });
  for (const [i, file] of list.entries()) {
    await uploadPart(people.librarian, must(begun.files[i]).id, 0, file.bytes);
    await finishUpload(people.librarian, must(begun.files[i]).id);
  }
  await runJob(must((await arrivalFor(people.librarian, begun.arrival)).arrival.job_id), { arrival: readArrival });
  return begun.arrival;
}
const outcomes = async (id: string) =>
  Object.fromEntries((await arrivalFor(people.librarian, id)).entries.map((e) => [e.path, e.outcome]));
const entry = async (id: string, path: string) =>
  must((await arrivalFor(people.librarian, id)).entries.find((e) => e.path === path));
const accept = (id: string, more: Partial<Parameters<typeof acceptArrival>[2]> = {}) =>
  acceptArrival(people.librarian, id, { shelfId: shelf, ...more });

describe('a folder with its tree', () => {
  let id = '';
  test('is one arrival, read once all of its files are there', async () => {
    const begun = await beginArrival(people.librarian, {
      name: 'Kiln pack',
      files: [
        { path: 'Kiln pack/Looks/Kiln Dusk.cube', size: 5 },
        { path: 'Kiln pack/b.txt', size: 5 },
      ],
    });
    await uploadPart(people.librarian, must(begun.files[0]).id, 0, Buffer.from('hello'));
    expect(await finishUpload(people.librarian, must(begun.files[0]).id)).toEqual({
      arrival: begun.arrival,
      waiting: 1,
    });
    expect((await arrivalFor(people.librarian, begun.arrival)).arrival).toMatchObject({
      status: 'arriving',
      job_id: null,
      files: 2,
      arrived: 1,
    });
    expect((await unfinishedUploads(people.librarian)).map((u) => u.path)).toEqual(['Kiln pack/b.txt']);
    await dropArrival(people.librarian, begun.arrival);
    expect(await unfinishedUploads(people.librarian)).toEqual([]);
  });
  test('what is in it is told, and a zip beside the files is walked below its name', async () => {
    id = await arrive('Kiln pack', {
      'Kiln pack/Looks/Kiln Dusk.cube': cube('Kiln Dusk', warm),
      'Kiln pack/Looks/Slip.cube': cube('Slip', { chroma: 0.5 }),
      'Kiln pack/Presets/Firing.mpreset': lineList('Firing', 120),
      'Kiln pack/Presets/Firing.msteps':
        '<marlstone-steps edition="4" title="Firing" drawer="Kiln"><fire raise="0.5"/></marlstone-steps>',
      'Kiln pack/more.zip': zip({
        'in/Copy.cube': cube('Kiln Dusk', warm),
        'in/Near.cube': cube('Ember', { warmth: 30.05, contrast: 1.2003 }),
      }),
      'Kiln pack/Read me.txt': 'hello',
    });
    expect(await outcomes(id)).toEqual({
      'Kiln pack/Looks/Kiln Dusk.cube': 'new',
      'Kiln pack/Looks/Slip.cube': 'new',
      'Kiln pack/Presets/Firing.mpreset': 'new',
      'Kiln pack/Presets/Firing.msteps': 'variant',
      'Kiln pack/Read me.txt': 'document',
      'Kiln pack/more.zip/in/Copy.cube': 'duplicate',
      'Kiln pack/more.zip/in/Near.cube': 'duplicate',
    });
    expect((await entry(id, 'Kiln pack/more.zip/in/Near.cube')).likeness).toMatchObject({ by: 'effect' });
    expect((await arrivalView(people.librarian, id)).groups.map((g) => [g.group, g.count])).toEqual([
      ['variant', 1],
      ['effect', 1],
      ['new', 3],
      ['held', 1],
      ['papers', 1],
    ]);
  });
  test('accepted with source and licence; a variant stands with its design', async () => {
    const licenceId = await addLicence(people.librarian, {
      name: 'Kiln, eight seats',
      may_convert: 'yes',
      may_spread: 'no',
    });
    const taken = await accept(id, {
      supplier: 'Kiln & Co',
      licenceId,
      source: { author: 'A. Potter', receipt: 'K-7' },
    });
    expect(taken).toMatchObject({ versions: 1, items: expect.objectContaining({ length: 3 }) as string[] });
    const firing = (await searchItems(people.librarian, { q: 'firing' })).rows;
    expect(firing).toHaveLength(1);
    const { item, versions } = await itemFor(people.librarian, must(firing[0]).id);
    expect(item).toMatchObject({
      supplier: 'Kiln & Co',
      licence: 'Kiln, eight seats',
      source: { author: 'A. Potter', receipt: 'K-7' },
      origin: 'bought',
      creator: 'A. Potter',
    });
    expect(versions.map((v) => [v.variant, v.format])).toEqual([
      ['', 'marlstone@3'],
      ['in the language of marlstone 4', 'marlstone@4'],
    ]);
  });
  test('what is made from it inherits supplier and licence', async () => {
    const firing = must((await searchItems(people.librarian, { q: 'firing' })).rows[0]);
    const made = await convertPreset(people.librarian, { versionId: firing.version_id });
    expect((await itemFor(people.librarian, made.itemId)).item).toMatchObject({
      supplier: 'Kiln & Co',
      licence: 'Kiln, eight seats',
    });
    await expect(undoArrival(people.librarian, id)).rejects.toMatchObject({
      code: 'arrival-needed',
      message: expect.stringContaining('converted into other items (Firing)') as string,
    });
  });
  test('its second release: added, changed, gone, and what the changes mean', async () => {
    const second = await arrive('Kiln pack 2', {
      'Kiln pack 2/Looks/Kiln Dusk.cube': cube('Kiln Dusk', { ...warm, contrast: 1.3 }),
      'Kiln pack 2/Looks/Slip.cube': cube('Slip', { chroma: 0.5 }),
      'Kiln pack 2/Looks/Fresh.cube': cube('Fresh', { level: 1 }),
      'Kiln pack 2/Presets/Firing.mpreset': lineList('Firing', 150),
    });
    expect(await outcomes(second)).toEqual({
      'Kiln pack 2/Looks/Kiln Dusk.cube': 'version',
      'Kiln pack 2/Looks/Slip.cube': 'duplicate',
      'Kiln pack 2/Looks/Fresh.cube': 'new',
      'Kiln pack 2/Presets/Firing.mpreset': 'version',
    });
    const { arrival } = await arrivalFor(people.librarian, second);
    const release = must(await releaseFor(people.librarian, arrival));
    expect(release.pack.name).toBe('Kiln pack');
    expect(Object.fromEntries(release.changes.map((c) => [c.path, c.what]))).toMatchObject({
      'Kiln pack 2/Looks/Kiln Dusk.cube': 'changed',
      'Kiln pack 2/Looks/Slip.cube': 'same',
      'Kiln pack 2/Looks/Fresh.cube': 'added',
      'Kiln pack 2/Presets/Firing.mpreset': 'changed',
      'Kiln pack/Presets/Firing.msteps': 'gone',
    });
    expect(must(release.changes.find((c) => c.title === 'Kiln Dusk')).meaning).toMatch(/mean ΔE00 \d/);
    expect(must(release.changes.find((c) => c.path.endsWith('2/Presets/Firing.mpreset'))).meaning).toMatch(
      /^1 setting changed: level/,
    );
    await accept(second);
    const dusk = must((await searchItems(people.librarian, { q: 'kiln dusk' })).rows[0]);
    const { versions } = await itemFor(people.librarian, dusk.id);
    expect(versions.map((v) => v.number)).toEqual([2, 1]);
    // what was made from the older preset is stale now, and found as such
    expect((await searchItems(people.librarian, { stale: 'yes' })).rows.map((s) => s.title)).toEqual(['Firing']);
    // and it can be put back whole
    const rows = async () =>
      (
        await one<{ n: number }>(
          pool(),
          `
            select
              (
                select count(*)
                from item
              )::int * 1000 + (
                select count(*)
                from version
              )::int as n
          `,
        )
      ).n;
    const before = await rows();
    expect(await undoArrival(people.librarian, second)).toEqual({ versions: 3, items: 1, frames: 0 });
    expect(await rows()).toBe(before - 1003);
    expect((await searchItems(people.librarian, { stale: 'yes' })).rows).toEqual([]);
    expect((await arrivalFor(people.librarian, second)).arrival.status).toBe('ready');
    await accept(second);
    expect(await rows()).toBe(before);
  });
});

describe('a new shelf and a new licence', () => {
  test('come to be with what is taken, and with nothing where it is refused', async () => {
    const id = await arrive('Fresh shelf', {
      'N/Here.cube': cube('Here', { level: 0.77, chroma: 0.7 }),
      'N/tool.txt': 'x',
    });
    const shelves = async () =>
      (await one<{ n: number }>(pool(), `select count(*)::int as n from shelf where name = 'Made for it'`)).n;
    const bad = (await entry(id, 'N/tool.txt')).id;
    const good = (await entry(id, 'N/Here.cube')).id;
    const newLicence: NewLicence = { name: 'Made with it', may_convert: 'yes' };
    const asked = { shelfId: null, newShelf: 'Made for it', newLicence };
    await expect(accept(id, { ...asked, entries: [good, bad] })).rejects.toMatchObject({ code: 'arrival-entry' });
    await expect(accept(id, { ...asked, newLicence: { name: '' } })).rejects.toMatchObject({ code: 'input-invalid' });
    await expect(accept(id, { shelfId: null })).rejects.toMatchObject({ code: 'input-invalid' });
    expect(await shelves()).toBe(0);
    const { items } = await accept(id, asked);
    expect((await itemFor(people.librarian, must(items[0]))).item).toMatchObject({
      shelf: 'Made for it',
      licence: 'Made with it',
    });
    expect(await shelves()).toBe(1);
  });
});

describe('shelves by kind', () => {
  test('new items of a kind go to the shelf said for it, the rest to the arrival’s', async () => {
    const links = await addShelf(people.librarian, { name: 'ICC profiles' });
    const id = await arrive('Mixed kinds', {
      'M/Lone.cube': cube('Lone', { level: 0.31, chroma: 0.4 }),
      'M/Kiln room.icc': wholeIcc('mntr', 'Kiln room, June'),
    });
    await expect(accept(id, { byKind: { 'icc-profile': 'nowhere' } })).rejects.toMatchObject({ code: 'input-invalid' });
    const { items } = await accept(id, { byKind: { 'icc-profile': links } });
    const at = await Promise.all(
      items.map(async (id) => {
        const { item } = await itemFor(people.librarian, id);
        return [item.kind, item.shelf_id === links];
      }),
    );
    expect(at.sort()).toEqual([
      ['icc-profile', true],
      ['look', false],
    ]);
  });
});

describe('corrections', () => {
  test('in bulk: a proposal is overruled, a target is chosen, and a kind that cannot be is refused', async () => {
    const held = must((await searchItems(people.librarian, { q: 'slip' })).rows[0]);
    const id = await arrive('Odd ones', {
      'O/One.cube': cube('One', { level: 0.4 }),
      'O/Two.cube': cube('Two', { level: -0.4 }),
      'O/tool': '#!/bin/sh\necho\n',
      'O/note.txt': 'x',
    });
    const one = (await entry(id, 'O/One.cube')).id;
    const two = (await entry(id, 'O/Two.cube')).id;
    const tool = await entry(id, 'O/tool');
    expect(tool).toMatchObject({ kind: 'add-on', outcome: 'new' });
    await expect(correctEntries(people.librarian, id, { entries: [one], outcome: 'version' })).rejects.toMatchObject({
      code: 'arrival-target',
    });
    await expect(
      correctEntries(people.librarian, id, { entries: [tool.id], outcome: 'new', kind: 'look' }),
    ).rejects.toMatchObject({ code: 'arrival-kind' });
    await expect(
      correctEntries(people.librarian, id, { entries: [(await entry(id, 'O/note.txt')).id], outcome: 'new' }),
    ).rejects.toMatchObject({ code: 'arrival-entry' });
    await correctEntries(people.librarian, id, { entries: [one], outcome: 'version', itemId: held.id });
    await correctEntries(people.librarian, id, { group: 'new', outcome: 'document' });
    expect(await outcomes(id)).toMatchObject({
      'O/One.cube': 'version',
      'O/Two.cube': 'document',
      'O/tool': 'document',
    });
    await correctEntries(people.librarian, id, { entries: [two], outcome: 'variant', itemId: held.id });
    expect(await accept(id)).toMatchObject({ items: [], versions: 2 });
    expect((await itemFor(people.librarian, held.id)).versions.map((v) => [v.number, v.variant])).toEqual([
      [2, ''],
      [1, ''],
      [3, 'another variant'],
    ]);
  });
  test('with one bad choice nothing is taken', async () => {
    const id = await arrive('All or none', { 'A.cube': cube('Aye', { level: 0.8 }), 'b.txt': 'x' });
    const before = (await pool().query('select 1 from item')).rowCount;
    await expect(
      acceptArrival(people.librarian, id, {
        shelfId: shelf,
        entries: [(await entry(id, 'A.cube')).id, (await entry(id, 'b.txt')).id],
      }),
    ).rejects.toMatchObject({ code: 'arrival-entry' });
    await expect(accept(id, { shelfId: '018f0000-0000-7000-8000-000000000000' })).rejects.toMatchObject({
      code: 'shelf-unknown',
    });
    expect((await pool().query('select 1 from item')).rowCount).toBe(before);
    expect((await pool().query('select 1 from pack where arrival_id = $1', [id])).rowCount).toBe(0);
  });
});

test('a lens database is taken in, and found by the lenses in it', async () => {
  const id = await arrive('Lenses', {
    'bureau.xml':
      '<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="2026.1"><camera model="Perrin Alder"/><mount name="Ley"/><lens maker="Saltmarsh" model="35 mm" mount="Ley"><series><sample/></series></lens></lens-database>',
  });
  expect(await outcomes(id)).toEqual({ 'bureau.xml': 'new' });
  await accept(id);
  const [made] = (await searchItems(people.librarian, { q: 'saltmarsh 35' })).rows;
  expect(made).toMatchObject({ kind: 'lens-database', cameras: [] });
});

test('every kind that can be taken is taken: tables in each form, camera and ICC profiles, presets', async () => {
  const cdl =
    '<ColorCorrectionCollection xmlns="urn:ASC:CDL:v1.01"><ColorCorrection id="cc1"><SOPNode><Slope>1.1 1 0.9</Slope><Offset>0 0 0</Offset><Power>1 1 1</Power></SOPNode></ColorCorrection></ColorCorrectionCollection>';
  const clf =
    '<ProcessList xmlns="urn:AMPAS:CLF:v3.0" compCLFversion="3" id="p"><Matrix inBitDepth="32f" outBitDepth="32f"><Array dim="3 3">1 0 0 0 0.9 0.1 0 0 1</Array></Matrix></ProcessList>';
  const files = {
    'a.cube': cube('Cube of All', { warmth: 44 }),
    'b.cdl': cdl,
    'c.clf': clf,
    'd.png': hald(4, (v) => v.map((x) => x * 0.7)),
    'e.dcp': dcp(),
    'f.icc': wholeIcc('mntr', 'Kiln display'),
    'g.xmp': oxbowOf({ title: 'All Oxbow', headings: [], steps: [['lamp', { stops: 0.37 }]] } as OxbowPreset),
    'h.mpreset': lineList('All Marlstone', 177),
  };
  const id = await arrive('All', files);
  const told = await outcomes(id);
  expect(Object.entries(told).filter(([, o]) => o !== 'new')).toEqual([]);
  const { items } = await accept(id);
  expect(items).toHaveLength(Object.keys(files).length);
  expect(new Set((await Promise.all(items.map((i) => itemFor(people.lead, i)))).map((x) => x.item.kind))).toEqual(
    new Set(['look', 'camera-profile', 'icc-profile', 'preset']),
  );
});

describe('frames and descriptors of the studio’s own', () => {
  test('a picture becomes a frame with what its file says, and can be previewed at once', async () => {
    const picture = await sharp({
      create: { width: 64, height: 40, channels: 3, background: { r: 120, g: 90, b: 60 } },
    })
      .withExif({ IFD0: { Make: 'Perrin', Model: 'Alder' }, IFD2: { LensModel: 'Corvane 35', FNumber: '56/10' } })
      .jpeg()
      .toBuffer();
    const id = await arrive('Vessel.jpg', { 'Vessel.jpg': picture });
    expect(await outcomes(id)).toEqual({ 'Vessel.jpg': 'frame' });
    expect(await accept(id)).toMatchObject({ frames: 1, items: [] });
    const frame = must((await listFrames(people.retoucher)).find((f) => f.name === 'Vessel'));
    expect(frame).toMatchObject({ width: 64, height: 40, camera: 'Perrin Alder' });
    expect((await sharp(await framePicture(people.retoucher, frame.id, 320)).metadata()).format).toBe('png');
    await undoArrival(people.librarian, id);
    expect((await listFrames(people.retoucher)).some((f) => f.name === 'Vessel')).toBe(false);
  });
  test('a picture that is broken is refused, and nothing of its arrival is taken', async () => {
    const id = await arrive('Torn.png', {
      'Torn.png': new Uint8Array([
        0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13, 73, 72, 68, 82, 0, 0, 0, 9, 0, 0, 0, 9, 8, 2, 0, 0, 0, 1,
        2, 3, 4,
      ]),
    });
    expect(await outcomes(id)).toEqual({ 'Torn.png': 'refused' });
    expect((await entry(id, 'Torn.png')).problem).toMatchObject({ code: 'picture-truncated' });
  });
  test('a descriptor is proposed to the lead; a faulty one is refused with a sentence for each fault', async () => {
    const own = {
      ...oxbow2,
      editor: 'studio-own',
      title: 'Studio Own',
      presets: undefined,
      accepts: oxbow2.accepts.filter((a) => a.kind === 'look'),
    };
    const id = await arrive('Studio Own.json', {
      'Studio Own.json': JSON.stringify(own),
      'bad.json': JSON.stringify({ ...own, sees: 'whenever', systems: [] }),
    });
    expect(await outcomes(id)).toEqual({ 'Studio Own.json': 'descriptor', 'bad.json': 'refused' });
    expect((await entry(id, 'bad.json')).problem?.message.split('. ').length).toBeGreaterThanOrEqual(2);
    await accept(id);
    expect((await descriptors()).map((d) => d.title)).not.toContain('Studio Own');
    expect((await openProposals(people.lead)).map((one) => one.title)).toContain('Studio Own');
    await undoArrival(people.librarian, id);
    expect((await openProposals(people.lead)).map((one) => one.title)).not.toContain('Studio Own');
  });
});

test('licences: own work may, a licence that forbids holds for all, what is not known needs the lead', async () => {
  const forbids = await addLicence(people.librarian, { name: 'Not to be converted', may_convert: 'no' });
  for (const [title, licenceId, librarian, lead] of [
    ['Forbidden', forbids, 'licence-forbids', 'licence-forbids'],
    ['Unknown terms', null, 'licence-unknown', 'done'],
  ] as const) {
    const id = await arrive(`${title}.xmp`, {
      [`${title}.xmp`]: oxbowOf({
        title,
        headings: [],
        steps: [['lamp', { stops: title === 'Forbidden' ? 0.31 : 0.77 }]],
      }),
    });
    await accept(id, { supplier: 'Someone', licenceId });
    const value = must((await searchItems(people.librarian, { q: title })).rows[0]).version_id;
    const convert = (person: typeof people.lead) =>
      convertPreset(person, { versionId: value }).then(
        () => 'done',
        (e: { code: string }) => e.code,
      );
    expect([await convert(people.librarian), await convert(people.lead)]).toEqual([librarian, lead]);
  }
});

describe('what things do to colors is told of every kind', () => {
  const abstract = async (title: string, gain: number) =>
    Buffer.from(
      (
        await toAbstract((r, g, b, out, at) => out.set([r ** gain, g, b * 0.9], at), {
          title,
          created: new Date('2026-01-01T00:00:00Z'),
          grid: 17,
        })
      ).bytes,
    );

  test('an ICC look has its threads, and a copy of it under another name is told by its effect', async () => {
    const id = await arrive('ICC looks', {
      'Reed.icc': await abstract('Reed', 1.3),
      'Rush.icc': await abstract('Rush', 1.3),
    });
    expect(Object.values(await outcomes(id)).sort()).toEqual(['duplicate', 'new']);
    await accept(id);
    const again = await arrive('One more', {
      'Sedge.icc': await abstract('Sedge', 1.3),
      'Rye.icc': await abstract('Rye', 1.305),
    });
    const told = await Promise.all(['Sedge.icc', 'Rye.icc'].map((path) => entry(again, path)));
    expect(told.map(({ outcome, likeness, selvedge }) => [outcome, likeness?.by, selvedge?.length])).toEqual([
      ['duplicate', 'content', 12],
      ['duplicate', 'effect', 12],
    ]);
    const other = await arrive('Another', { 'Fen.icc': await abstract('Fen', 1.9) });
    expect(await outcomes(other)).toEqual({ 'Fen.icc': 'new' });
  });

  test('a camera profile has threads of what it makes of the colors of its camera', async () => {
    const id = await arrive('Threads of a profile', { 'e.dcp': Buffer.from(writeDcp(made())) });
    const profile = await entry(id, 'e.dcp');
    expect(profile.kind).toBe('camera-profile');
    expect(profile.selvedge?.some(([fixed, rendered]) => fixed !== rendered)).toBe(true);
    expect(profile.fingerprint).not.toBeNull();
  });
});

describe('what a delivery must not do', () => {
  const picture = () =>
    sharp({ create: { width: 64, height: 40, channels: 3, background: { r: 120, g: 90, b: 60 } } })
      .jpeg()
      .toBuffer();

  test('a supplier’s preview picture becomes no frame, unless a person says so', async () => {
    const id = await arrive('With a preview', {
      'Preview look.cube': cube('Preview look', { warmth: 61 }),
      'Preview look.jpg': await picture(),
    });
    expect(await outcomes(id)).toEqual({ 'Preview look.cube': 'new', 'Preview look.jpg': 'document' });
    const { groups } = await arrivalView(people.librarian, id);
    expect(groups.map(({ group, count, takeable }) => [group, count, takeable])).toEqual([
      ['new', 1, 1],
      ['picture', 1, 0],
    ]);
    await correctEntries(people.librarian, id, { group: 'picture', outcome: 'frame' });
    expect(await accept(id)).toMatchObject({ frames: 1 });
  });

  test('one look of a pack of nine beside a picture is no release of that pack', async () => {
    const nine = Object.fromEntries(
      Array.from({ length: 9 }, (_, n) => [`Nine ${n}.cube`, cube(`Nine ${n}`, { warmth: 5 * n - 20, chroma: 1.3 })]),
    );
    await accept(await arrive('Nine of a kind', nine));
    const id = await arrive('For Odile', { 'Nine 3.cube': must(nine['Nine 3.cube']), 'note.jpg': await picture() });
    expect((await arrivalFor(people.librarian, id)).arrival.previous_pack_id).toBeNull();
    const again = await arrive('Nine of a kind v2', { 'Nine 3.cube': must(nine['Nine 3.cube']) });
    expect((await arrivalFor(people.librarian, again)).arrival.previous_pack_id).not.toBeNull();
  });

  test('a group that is left out is left out whole, but for what is named', async () => {
    const many = Object.fromEntries(
      Array.from({ length: 230 }, (_, n) => [
        `Many ${n}.cube`,
        cube(`Many ${n}`, { warmth: 10 * (n % 10) - 45, chroma: 0.3 + 0.08 * Math.floor(n / 10) }, 3),
      ]),
    );
    const id = await arrive('Many', many);
    const { groups } = await arrivalView(people.librarian, id);
    const shown = must(groups.find(({ group }) => group === 'new'));
    expect(shown.count).toBeGreaterThan(shown.rows.length);
    const taken = await accept(id, { exceptGroups: ['new', 'again'], except: [must(shown.rows[0]).id] });
    expect(taken.items).toHaveLength(1);
  });

  test('a new release of a variant is the next of that variant, and its item keeps its editor', async () => {
    const lines = lineList('Two tongues', 133);
    const first = await arrive('Two tongues 1', { 'Two tongues.mpreset': lines });
    const { items } = await accept(first);
    const itemId = must(items[0]);
    const language = async () => (await itemFor(people.lead, itemId)).versions.map((v) => [v.variant, v.format]);
    const plain = must(await language())[0];
    const second = await arrive('Two tongues 2', { 'Two tongues.mstep': steps('Two tongues', 0.3) });
    expect(await outcomes(second)).toEqual({ 'Two tongues.mstep': 'variant' });
    await accept(second);
    const third = await arrive('Two tongues 3', { 'Two tongues.mstep': steps('Two tongues', 0.5) });
    expect(await outcomes(third)).toEqual({ 'Two tongues.mstep': 'variant' });
    await accept(third);
    expect(must(await language())[0]).toEqual(plain);
    const marks = (await language()).map(([variant]) => variant);
    expect(marks).toEqual(['', 'in the language of marlstone 4', 'in the language of marlstone 4']);
    expect((await searchItems(people.lead, { q: 'Two tongues' })).rows[0]?.format).toBe(must(plain)[1]);
  });
});
