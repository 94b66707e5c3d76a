/** Versions compared and written, copies merged, a station's files taken in, ribbons in order. */
import { must } from '@/core/must';
import { beforeAll, describe, expect, test } from 'vitest';
import type { Settings } from '@/core/preset/kinds';
import { frame, frames as designs } from '@/demo/frames';
import { cubeOf, marlstoneOf } from '@/demo/files';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { recognise } from '@/core/recognise';
import { parseDescriptor } from '@/core/editor/descriptor';
import { bytesOf, getBlob, hex, putBlob, sha256 } from '../blobs/service';
import { people, withDatabase } from '../db/testing/database';
import { verdictsOf } from '../bench/decide';
import { pool, transaction } from '../db/pool';
import { bringDescriptor } from '../editors/service';
import { addFrame } from '../frames/service';
import { runJob } from '../jobs/service';
import { arrivalFor, readArrival } from '../arrivals/service';
import { actorOf } from '../people/roles';
import { clearRibbons, listRibbons, orderRibbons } from '../ribbons/service';
import { foundCount, takeContent, takeInFound } from '../stations/station-arrival';
import { createStation, instructionsFor, takeReport } from '../stations/service';
import { stations as allStations } from '../stations/queries';
import { addVersion } from '../items/create';
import { copies, fillEffects, markMeant, mergeItems } from '../copies/service';
import { editItem } from '../items/edit';
import { searchItems } from '../search/service';
import { itemFor, setRibbon } from '../items/service';
import { confirmEncoding } from '../items/encoding';
import { approve } from '../items/approval';
import { addShelf } from '../shelves/service';
import { compareVersions, retire, writeIntoFile } from './service';
import { maybe, one } from '../db/query';
import { itemOf } from '../items/testing/item-of';

withDatabase();
const known = [marlstone3, oxbow2].map((d) => parseDescriptor(d));
const actor = () => actorOf(people.librarian);
const sRgb = { primaries: 'sRGB', transfer: 'sRGB', range: 'full', referred: 'display', white: 'D65' };
let shelf = '';
beforeAll(async () => {
  for (const descriptor of [marlstone3, oxbow2])
    await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, descriptor, 'd'));
  shelf = await addShelf(people.librarian, { name: 'Test' });
});

const item = (title: string, text: string, name: string, supplier = '') =>
  itemOf(text, name, { title, supplier, shelfId: shelf });
const cube = (title: string, settings: Settings, size = 9) => cubeOf({ title, headings: [], settings }, size);
const preset = (name: string, amount: number) =>
  marlstoneOf({
    title: name,
    drawer: 'Kiln',
    sections: [
      ['light', { amount }],
      ['trace', { whole: amount > 130 ? '0:0;0.5:0.6;1:1' : '0:0;0.5:0.5;1:1' }],
    ],
  });

describe('two versions', () => {
  test('of a preset: the settings, the curves, and the color', async () => {
    const { itemId, versionId } = await item('Firing', preset('Firing', 120), 'f.mpreset');
    const bytes = Buffer.from(preset('Firing', 150));
    const recognised = recognise('f.mpreset', bytes, known);
    const second = await transaction(async (sql) =>
      addVersion(sql, actor(), itemId, {
        kind: 'preset',
        sha: await putBlob(sql, bytes),
        fileName: 'f.mpreset',
        format: recognised.format,
        facts: recognised.facts,
        selvedge: null,
        notes: '',
      }),
    );
    const versionDifference = await compareVersions(people.retoucher, versionId, second);
    expect(versionDifference.settings.map((s) => s.setting)).toEqual(['level', 'curve']);
    expect(versionDifference.curves.map((c) => c.name)).toEqual(['curve']);
    expect(must(must(versionDifference.curves[0]).newer[32])[1]).toBeCloseTo(0.6, 6);
    expect(must(versionDifference.color).mean).toBeGreaterThan(1);
  });
  test('of a preset that only refers to another profile: no setting was touched', async () => {
    const { itemId, versionId } = await item('Refers', preset('Refers', 110), 'r.mpreset');
    const bytes = Buffer.from(preset('Refers', 110) + '; kept\n');
    const recognised = recognise('r.mpreset', bytes, known);
    const add = (references: unknown[], name: string) =>
      transaction(async (sql) =>
        addVersion(sql, actor(), itemId, {
          kind: 'preset',
          sha: await putBlob(sql, Buffer.from(name + bytes.toString())),
          fileName: name,
          format: recognised.format,
          facts: { ...recognised.facts, references },
          selvedge: null,
          notes: '',
        }),
      );
    const second = await add([{ kind: 'camera-profile', name: 'Alder Standard' }], 'b');
    const third = await add([{ kind: 'camera-profile', name: 'Alder Portrait' }], 'c');
    expect((await compareVersions(people.retoucher, second, third)).references).toEqual({
      before: ['camera profile Alder Standard'],
      after: ['camera profile Alder Portrait'],
      alone: true,
    });
    expect((await compareVersions(people.retoucher, second, third)).settings).toEqual([]);
    expect((await compareVersions(people.retoucher, versionId, second)).references).toMatchObject({
      before: [],
      alone: true,
    });
  });
  test('of a lens database: record by record, added, calibrated anew, gone', async () => {
    const release = (name: string, inner: string) =>
      `<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="${name}">${inner}</lens-database>`;
    const lens = (model: string, samples: number) =>
      `<lens maker="Saltmarsh" model="${model}"><series>${'<sample/>'.repeat(samples)}</series></lens>`;
    const { itemId, versionId } = await item(
      'Bureau',
      release('1', lens('35', 2) + lens('50', 3) + lens('90', 1)),
      'bureau.xml',
    );
    const bytes = Buffer.from(release('2', lens('35', 2) + lens('50', 5) + lens('20', 4)));
    const recognised = recognise('bureau.xml', bytes, known);
    expect(recognised.kind).toBe('lens-database');
    const second = await transaction(async (sql) =>
      addVersion(sql, actor(), itemId, {
        kind: 'lens-database',
        sha: await putBlob(sql, bytes),
        fileName: 'bureau.xml',
        format: recognised.format,
        facts: recognised.facts,
        selvedge: null,
        notes: '',
      }),
    );
    const versionDifference = await compareVersions(people.retoucher, versionId, second);
    expect(versionDifference.records).toEqual({
      added: [{ what: 'lens', name: 'Saltmarsh 20', before: '', after: '1 series, 4 samples' }],
      changed: [
        {
          what: 'lens',
          name: 'Saltmarsh 50',
          before: '1 series, 3 samples',
          after: '1 series, 5 samples',
          moved: null,
        },
      ],
      gone: [{ what: 'lens', name: 'Saltmarsh 90', before: '1 series, 1 sample', after: '' }],
      same: 1,
    });
    expect(versionDifference.facts.map((f) => f.name).sort()).toEqual(['release', 'samples']);
    expect(versionDifference.color).toBeNull();
  });
  test('of a look: its facts, its neutral ramps, and how far apart they are on a frame', async () => {
    const made = await frame(must(designs[0]).composition);
    await transaction((sql) =>
      addFrame(sql, { personId: null, name: 't' }, { name: 'F', light: '', position: 0, ...made }),
    );
    const { itemId, versionId } = await item('Dusk', cube('Dusk', { contrast: 1.2 }), 'd.cube');
    const same = Buffer.from(cube('Dusk', { contrast: 1.2 }, 17));
    const recognised = recognise('d.cube', same, known);
    const second = await transaction(async (sql) =>
      addVersion(sql, actor(), itemId, {
        kind: 'look',
        sha: await putBlob(sql, same),
        fileName: 'd.cube',
        format: 'cube',
        facts: recognised.facts,
        selvedge: null,
        notes: '',
      }),
    );
    const versionDifference = await compareVersions(people.retoucher, versionId, second);
    expect(versionDifference.facts.find((f) => f.name === 'size')).toEqual({ name: 'size', before: '9', after: '17' });
    expect(versionDifference.frames).toHaveLength(1);
    expect(must(versionDifference.frames[0]).mean).toBeGreaterThan(0);
    expect(must(versionDifference.frames[0]).mean).toBeLessThan(3);
    await expect(
      compareVersions(
        people.retoucher,
        versionId,
        (await item('Else', cube('Else', { level: 1 }), 'e.cube')).versionId,
      ),
    ).rejects.toMatchObject({ code: 'versions-apart' });
  }, 60_000);
  test('the title is written into the file on request: a new version that does the same', async () => {
    const { itemId, versionId } = await item('Slip', cube('Slip', { chroma: 0.7 }), 's.cube');
    await confirmEncoding(people.librarian, versionId, sRgb);
    await approve(people.librarian, versionId);
    await editItem(people.librarian, itemId, { revision: 1, base: {}, mine: { title: 'Slip Trail' } });
    const stored = (await itemFor(people.librarian, itemId)).newest;
    expect((await getBlob(stored.sha256)).toString()).toContain('TITLE "Slip"'); // renaming makes no version and touches no content
    await writeIntoFile(people.librarian, itemId);
    const { newest, versions } = await itemFor(people.librarian, itemId);
    expect(versions).toHaveLength(2);
    expect((await getBlob(newest.sha256)).toString()).toContain('TITLE "Slip Trail"');
    expect(newest).toMatchObject({ status: 'draft', encoding: { assumed: false } });
    await expect(writeIntoFile(people.librarian, itemId)).rejects.toMatchObject({ code: 'write-same' });
    await retire(people.lead, newest.id);
    expect((await itemFor(people.librarian, itemId)).newest.status).toBe('retired');
  });
});

describe('copies', () => {
  test('are found by effect, merged with names, ribbons and lineage kept, and found by their old name', async () => {
    const glow = await item('Kiln Glow', cube('Kiln Glow', { warmth: 33, contrast: 1.1 }), 'a.cube', 'Sable Row Looks');
    const ember = await item('Ember Copy', cube('Ember Copy', { warmth: 33.05, contrast: 1.1002 }), 'b.cube');
    await setRibbon(people.lead, ember.itemId, { on: true, whose: 'mine' });
    await transaction((sql) =>
      sql.query('insert into lineage (version_id, source_version_id, recipe) values ($1, $2, $3)', [
        ember.versionId,
        glow.versionId,
        '{}',
      ]),
    );
    const { groups } = await copies(people.librarian);
    const mine = must(groups.find((g) => g.items.some((i) => i.id === glow.itemId)));
    expect(mine.items.map((i) => i.title).sort()).toEqual(['Ember Copy', 'Kiln Glow']);
    expect(mine.max).toBeLessThan(2);
    await pool().query(
      `
        insert into verdict (item_id, version_id, strength, words, chosen, display, provisional, person_id)
        values ($1, $2, 100, 'too warm for skin', false, '{}', false, $3)
      `,
      [ember.itemId, ember.versionId, people.retoucher.id],
    );
    await mergeItems(people.librarian, { keep: glow.itemId, others: [ember.itemId] });
    expect((await verdictsOf(people.librarian, glow.itemId)).map((one) => one.words)).toEqual(['too warm for skin']);
    const { item: kept, versions, newest } = await itemFor(people.lead, glow.itemId);
    expect(kept).toMatchObject({ title: 'Kiln Glow', aliases: ['Ember Copy'], mine: true });
    expect(newest.id).toBe(glow.versionId);
    expect(versions.map((v) => v.variant)).toEqual(['', 'merged from Ember Copy']);
    expect((await searchItems(people.lead, { q: 'ember copy' })).rows.map((r) => r.title)).toEqual(['Kiln Glow']);
    expect((await copies(people.librarian)).groups.some((g) => g.items.some((i) => i.id === glow.itemId))).toBe(false);
    expect(
      await maybe(pool(), 'select merged_into, archived_at is not null as away from item where id = $1', [
        ember.itemId,
      ]),
    ).toEqual({ merged_into: glow.itemId, away: true });
  });
  test('that are meant are not shown again', async () => {
    const one = await item('Twin One', cube('Twin One', { level: 0.6 }), 'a.cube');
    const two = await item('Twin Two', cube('Twin Two', { level: 0.6 }), 'b.cube');
    const shown = async () =>
      (await copies(people.librarian)).groups.some((g) => g.items.some((i) => i.id === one.itemId));
    expect(await shown()).toBe(true);
    await markMeant(people.librarian, { items: [one.itemId, two.itemId] });
    expect(await shown()).toBe(false);
  });
  test('of two kinds are not merged', async () => {
    const ofPreset = await item('P', preset('P', 111), 'p.mpreset');
    const ofLook = await item('L', cube('L', { level: 0.2 }), 'l.cube');
    await expect(
      mergeItems(people.librarian, { keep: ofPreset.itemId, others: [ofLook.itemId] }),
    ).rejects.toMatchObject({
      code: 'merge-kind',
    });
  });
});

test('ribbons have an order of their own, and are cleared many at once', async () => {
  const ids = [];
  for (const text of ['R1', 'R2', 'R3']) {
    const { itemId } = await item(text, cube(text, { level: 0.01 * text.charCodeAt(1) }), `${text}.cube`);
    ids.push(itemId);
    await setRibbon(people.retoucher, itemId, { on: true, whose: 'mine' });
  }
  const mine = async () => (await listRibbons(people.retoucher)).mine;
  await orderRibbons(people.retoucher, { whose: 'mine', ribbons: (await mine()).map((r) => r.id).reverse() });
  expect((await mine()).map((r) => r.title)).toEqual(['R3', 'R2', 'R1']);
  await expect(clearRibbons(people.retoucher, { whose: 'house', ribbons: [1] })).rejects.toMatchObject({
    code: 'not-allowed',
  });
  expect(
    await clearRibbons(people.retoucher, { whose: 'mine', ribbons: (await mine()).slice(1).map((r) => r.id) }),
  ).toEqual({ cleared: 2 });
  expect((await mine()).map((r) => r.title)).toEqual(['R3']);
  expect((await listRibbons(people.lead)).mine.some((r) => r.title === 'R3')).toBe(false);
});

describe('what lies on a station', () => {
  test('comes as an arrival once its agent has sent what is not here yet; a file that is gone is not waited for', async () => {
    const id = await transaction((sql) =>
      createStation(sql, actor(), {
        name: 'Desk',
        kind: 'workstation',
        system: 'linux',
        person: '',
        hostId: null,
        editors: ['oxbow@2'],
        position: 0,
      }),
    );
    const station = async () => must((await allStations(pool())).find((s) => s.id === id));
    const here = Buffer.from(cube('Kiln Glow', { warmth: 33, contrast: 1.1 }));
    const old = Buffer.from(cube('Old Stock', { level: -0.7 }));
    const lost = Buffer.from('x');
    const file = (path: string, b: Buffer) => ({ path, size: b.length, sha256: hex(sha256(b)) });
    const report = async (files: ReturnType<typeof file>[]) =>
      takeReport(await station(), {
        agentVersion: '0',
        files,
        digest: hex(sha256(Buffer.from(JSON.stringify(files)))),
        listings: [],
        indexes: [],
        waiting: null,
      });
    await report([
      file('Oxbow/Looks/Glow.cube', here),
      file('Oxbow/Looks/Old Stock.cube', old),
      file('Oxbow/Looks/lost.cube', lost),
      file('Oxbow/Looks/.DS_Store', lost),
      file('Elsewhere/x.cube', old),
    ]);
    expect(await foundCount(people.retoucher, id)).toBe(3);
    const { arrival } = await takeInFound(people.librarian, id);
    expect((await arrivalFor(people.librarian, arrival)).arrival).toMatchObject({
      status: 'arriving',
      files: 3,
      arrived: 1,
      station: 'Desk',
    });
    const { wanted } = await instructionsFor(await station());
    expect(wanted.map((w) => w.path).sort()).toEqual(['Oxbow/Looks/Old Stock.cube', 'Oxbow/Looks/lost.cube']);
    await expect(
      takeContent(await station(), hex(sha256(old)), 'Oxbow/Looks/Old Stock.cube', Buffer.from('something else')),
    ).rejects.toMatchObject({ code: 'content-differs' });
    await expect(
      takeContent(await station(), hex(sha256(Buffer.from('unasked'))), 'Oxbow/Looks/u', Buffer.from('unasked')),
    ).rejects.toMatchObject({ code: 'not-found' });
    await takeContent(await station(), hex(sha256(old)), 'Oxbow/Looks/Old Stock.cube', old);
    await report([file('Oxbow/Looks/Glow.cube', here), file('Oxbow/Looks/Old Stock.cube', old)]);
    const { arrival: now } = await arrivalFor(people.librarian, arrival);
    expect(now).toMatchObject({ status: 'reading', files: 2, arrived: 2 });
    await runJob(must(now.job_id), { arrival: readArrival });
    expect(
      Object.fromEntries((await arrivalFor(people.librarian, arrival)).entries.map((e) => [e.path, e.outcome])),
    ).toEqual({ 'Oxbow/Looks/Glow.cube': 'duplicate', 'Oxbow/Looks/Old Stock.cube': 'new' });
    expect(bytesOf(hex(sha256(old)))).toEqual(sha256(old));
  });
});

test('versions from before there were fingerprints get theirs', async () => {
  const { versionId } = await item('From Before', cube('From Before', { level: 0.33 }), 'b.cube');
  await pool().query('update version set fingerprint = null, content_sha256 = null where id = $1', [versionId]);
  expect(await fillEffects()).toBe(1);
  expect(
    (await one<{ n: number }>(pool(), 'select length(fingerprint) as n from version where id = $1', [versionId])).n,
  ).toBe(384);
  expect(await fillEffects()).toBe(0);
});
