import { must } from '@/core/must';
import { beforeAll, describe, expect, test } from 'vitest';
import { v7 } from 'uuid';
import { cubeOf } from '@/demo/files';
import { parseDescriptor } from '@/core/editor/descriptor';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder1 from '@/standins/descriptors/perrin-alder-1.json';
import { activityOfItem, listActivity } from '../activity/service';
import { putBlob } from '../blobs/service';
import { people, withDatabase } from '../db/testing/database';
import { pool, transaction } from '../db/pool';
import { bringDescriptor } from '../editors/service';
import { addVersion, createItem } from '../items/create';
import { archiveItems, editItem } from '../items/edit';
import { addShelf, putAway } from '../shelves/service';
import { approve } from '../items/approval';
import { actorOf } from '../people/roles';
import { createStation } from '../stations/service';
import { updateListing } from '../stations/queries';
import { foretellFor, foretellForPhoto } from './foretell';
import { offeredFor } from './offered';
import { askFor, coverage, explain, keepGear, listSeen, removeGear, trackRequest } from './service';
import { many } from '../db/query';

withDatabase();
let shelf = '';
let desk = '';
let other = '';
const made = (
  kind: 'camera-profile' | 'lens-database' | 'look',
  title: string,
  bytes: string,
  more: Record<string, unknown> = {},
  supplier = 'Fathom Color',
) =>
  transaction(async (sql) =>
    createItem(sql, actorOf(people.librarian), {
      kind,
      title,
      headings: [],
      shelfId: shelf,
      supplier,
      sha: await putBlob(sql, Buffer.from(bytes)),
      fileName: title,
      format: { look: 'cube', 'lens-database': 'lens-xml' }[kind as string] ?? 'dcp',
      facts: more,
      selvedge: null,
      notes: '',
    }),
  );
const frame = async (name: string, camera: string, kind: string, conversion = '', lens = ''): Promise<string> => {
  const id = v7();
  const sha = await transaction((sql) => putBlob(sql, Buffer.from(name)));
  await pool().query(
    `
      insert into frame (id, name, sha256, width, height, camera, serial, conversion, lens, file_kind)
      values ($1, $2, $3, 1, 1, $4, $5, $6, $7, $8)
    `,
    [id, name, sha, camera, `S-${name}`, conversion, lens, kind],
  );
  return id;
};
const gear = () => coverage(people.retoucher);
const line = async (model: string, conversion = '') =>
  must((await gear()).cameras.find((l) => l.camera.model === model && l.camera.conversion === conversion));
const series = (...q: string[]) => q.map((x) => `<series quantity="${x}"><sample focal="50"/></series>`).join('');
const bureau = (release: string, inner: string) =>
  `<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="${release}">${inner}</lens-database>`;

beforeAll(async () => {
  shelf = await addShelf(people.librarian, { name: 'Profiles' });
  await transaction(async (sql) => {
    for (const descriptor of [marlstone3, marlstone4, oxbow2, perrinAlder1])
      await bringDescriptor(sql, actorOf(people.librarian), parseDescriptor(descriptor), 'x');
  });
  await transaction(async (sql) => {
    const station = { kind: 'workstation' as const, system: 'macos', person: '', hostId: null, position: 0 };
    desk = await createStation(sql, actorOf(people.librarian), {
      ...station,
      name: 'Glaze desk',
      editors: ['marlstone@4', 'oxbow@2'],
    });
    other = await createStation(sql, actorOf(people.librarian), {
      ...station,
      name: 'Model room',
      system: 'linux',
      editors: ['oxbow@2'],
    });
  });
});

describe('the studio’s cameras and lenses', () => {
  test('are listed, changed and taken off; each is told with before and after', async () => {
    const { id } = await keepGear(people.lead, 'camera', null, {
      maker: 'Perrin',
      model: 'Perrin Alder',
      serials: ['PA-1'],
      mount: 'Alder',
      sensor_width: 36,
      sensor_height: 24,
    });
    await keepGear(people.librarian, 'camera', id, {
      maker: 'Perrin',
      model: 'Perrin Alder',
      names: ['PA-1 Kaede'],
      serials: ['PA-1', 'PA-2'],
      mount: 'Alder',
      sensor_width: 36,
      sensor_height: 24,
    });
    expect((await line('Perrin Alder')).camera).toMatchObject({
      names: ['PA-1 Kaede'],
      serials: ['PA-1', 'PA-2'],
      crop: 1,
    });
    const { id: gone } = await keepGear(people.librarian, 'lens', null, { model: 'Wrong 1 mm f/1' });
    await removeGear(people.librarian, 'lens', gone);
    await expect(removeGear(people.librarian, 'lens', gone)).rejects.toMatchObject({ code: 'not-found' });
    expect((await gear()).lenses).toEqual([]);
    const events = (await listActivity(people.librarian, { subject: 'camera' })).rows;
    expect(events.map((e) => [e.action, e.title])).toEqual([
      ['changed', 'Perrin Alder'],
      ['listed', 'Perrin Alder'],
    ]);
    expect(must(events[0]).before).toMatchObject({ serials: ['PA-1'] });
  });
  test('the same is not listed twice, in any case of letters; a conversion is another camera', async () => {
    await expect(
      keepGear(people.librarian, 'camera', null, { maker: 'PERRIN', model: 'perrin alder' }),
    ).rejects.toMatchObject({ code: 'gear-listed', remedy: expect.stringContaining('serial') as string });
    await keepGear(people.librarian, 'camera', null, {
      maker: 'Perrin',
      model: 'Perrin Alder',
      conversion: 'infrared',
    });
    expect((await gear()).cameras).toHaveLength(2);
  });
  test.each([
    ['no model', { maker: 'Perrin' }],
    ['a sensor as wide as a house', { model: 'X', sensor_width: 9000 }],
    ['a sensor of words', { model: 'X', sensor_width: 'wide' }],
    ['serials that are no list', { model: 'X', serials: 'PA' }],
    ['nothing', null],
  ])('%s is refused', async (_, input) => {
    await expect(keepGear(people.librarian, 'camera', null, input)).rejects.toMatchObject({ code: 'input-invalid' });
  });
  test('what frames name and the list does not have is found, and listed at once', async () => {
    await frame('Bowl', 'Ondine 40', 'camera data', '', 'Ondine 80 mm f/2.8');
    await frame('Bowl in red', 'Perrin Alder', 'camera data', 'infrared', 'Perrin 50 mm f/2');
    await frame('Jug', 'ONDINE 40', 'rendered', '', 'ONDINE 80mm F2.8');
    expect((await gear()).unlisted).toMatchObject({
      cameras: [{ model: 'Ondine 40', serials: ['S-Bowl', 'S-Jug'] }],
      lenses: [{ model: 'Ondine 80 mm f/2.8' }, { model: 'Perrin 50 mm f/2' }],
    });
    expect(await listSeen(people.librarian)).toEqual({ cameras: 1, lenses: 2 });
    expect((await gear()).unlisted).toEqual({ cameras: [], lenses: [] });
    expect(await listSeen(people.librarian)).toEqual({ cameras: 0, lenses: 0 });
  });
});

describe('coverage', () => {
  test('joins cameras to the profiles held, counted by source; an archived one is not held', async () => {
    const standard = await made('camera-profile', 'Alder Standard', 'a', { cameras: ['Perrin Alder'] });
    const soft = await made('camera-profile', 'Alder Soft', 'b', { cameras: ['PERRIN ALDER'] });
    await approve(people.librarian, standard.versionId);
    expect(await line('Perrin Alder')).toMatchObject({
      state: 'covered',
      sources: [{ source: 'Fathom Color', held: 2, approved: 1 }],
    });
    expect((await line('Perrin Alder', 'infrared')).state).toBe('none');
    await archiveItems(people.librarian, { items: [standard.itemId], archived: true });
    expect((await line('Perrin Alder')).state).toBe('partly');
    await archiveItems(people.librarian, { items: [standard.itemId], archived: false });
    await archiveItems(people.librarian, { items: [soft.itemId], archived: true });
  });
  test('says which editors read it, by their descriptors; cards are no editors', async () => {
    const cameraLine = await line('Ondine 40');
    expect(cameraLine.reads.map((r) => [r.key, r.answer])).toEqual([
      ['marlstone@3', 'yes'],
      ['marlstone@4', 'yes'],
      ['oxbow@2', 'yes'],
    ]);
    await keepGear(people.librarian, 'camera', null, { maker: 'Corvane', model: 'Corvane Ley II' });
    expect((await line('Corvane Ley II')).reads.map((r) => r.answer)).toEqual(['no', 'no', 'yes']);
    expect((await gear()).editors.map((e) => [e.key, e.stations])).toEqual([
      ['marlstone@3', 0],
      ['marlstone@4', 1],
      ['oxbow@2', 2],
    ]);
  });
  test('joins lenses to the newest release of each database; what is broken in one does not hide the others', async () => {
    await made('lens-database', 'Not one', 'nonsense');
    await made(
      'lens-database',
      'Bureau',
      bureau('2026.1', `<lens maker="Perrin" model="50 mm f/2">${series('distortion')}</lens>`),
    );
    const lensLine = must((await gear()).lenses.find((x) => x.lens.model === 'Perrin 50 mm f/2'));
    expect(lensLine).toMatchObject({
      state: 'partly',
      missing: ['lateral chromatic aberration', 'vignetting'],
      found: [{ title: 'Bureau', release: '2026.1' }],
    });
    await made(
      'lens-database',
      'Second bureau',
      bureau(
        '7',
        `<lens maker="Perrin" model="50mm F2">${series('vignetting', 'lateral chromatic aberration')}</lens>`,
      ),
    );
    expect(must((await gear()).lenses.find((x) => x.lens.model === 'Perrin 50 mm f/2')).state).toBe('covered');
  });
});

describe('requests', () => {
  let id = '';
  test('anyone asks; the same is not asked twice while it is open', async () => {
    const character = (await line('Corvane Ley II')).camera.id;
    id = (
      await askFor(people.retoucher, {
        camera: character,
        about: 'Corvane Ley II',
        wanted: 'camera profile',
        askedOf: 'Fathom Color',
      })
    ).id;
    await expect(askFor(people.librarian, { about: 'corvane ley ii', wanted: 'camera profile' })).rejects.toMatchObject(
      { code: 'request-open' },
    );
    await askFor(people.librarian, {
      camera: character,
      about: 'Corvane Ley II',
      wanted: 'support in an editor',
      askedOf: 'Marlstone',
    });
    expect((await gear()).requests).toMatchObject([
      { wanted: 'support in an editor', state: 'noted', met: false },
      { wanted: 'camera profile', state: 'noted', person: 'Mirre Sand', met: false },
    ]);
  });
  test('its way is kept: what it was and became, by whom and when', async () => {
    await trackRequest(people.librarian, id, { state: 'sent', note: 'by letter' });
    await trackRequest(people.lead, id, { state: 'promised', note: 'for December' });
    const before = must((await gear()).requests.find((r) => r.id === id));
    expect(before).toMatchObject({ state: 'promised', note: 'for December', asked_of: 'Fathom Color' });
    await trackRequest(people.lead, id, { state: 'promised', note: 'for January' });
    expect(must((await gear()).requests.find((r) => r.id === id)).state_at).toEqual(before.state_at); // a note is no step
    expect(
      (await listActivity(people.librarian, { subject: 'request' })).rows
        .filter((e) => e.subject_id === id)
        .map((e) => [e.action, e.actor]),
    ).toEqual([
      ['noted', 'Piet Tallow'],
      ['promised', 'Piet Tallow'],
      ['sent', 'Odile Wren'],
      ['asked for', 'Mirre Sand'],
    ]);
  });
  test('that something came is noticed by itself; what is settled stands last', async () => {
    await made('camera-profile', 'Ley II', 'c', { cameras: ['Corvane Ley Mark II'] });
    expect(must((await gear()).requests.find((r) => r.id === id)).met).toBe(true);
    await trackRequest(people.librarian, id, { state: 'fulfilled' });
    const all = (await gear()).requests;
    expect(all[all.length - 1]).toMatchObject({ id, state: 'fulfilled', met: false });
    await expect(askFor(people.librarian, { about: 'Corvane Ley II', wanted: 'camera profile' })).resolves.toBeTruthy(); // and may be asked again
  });
  test('support is met by an editor that reads it now, of the maker who was asked', async () => {
    expect(must((await gear()).requests.find((r) => r.wanted === 'support in an editor')).met).toBe(false); // Oxbow reads it, but Marlstone was asked
    await transaction((sql) =>
      bringDescriptor(
        sql,
        actorOf(people.librarian),
        { ...marlstone4, cameras: [...marlstone4.cameras, 'Corvane Ley II'] },
        'x',
      ),
    );
    expect(must((await gear()).requests.find((r) => r.wanted === 'support in an editor')).met).toBe(true);
    await transaction((sql) => bringDescriptor(sql, actorOf(people.librarian), marlstone4, 'x'));
  });
  test('a camera taken off the list leaves its requests', async () => {
    const before = (await gear()).requests.length;
    await removeGear(people.librarian, 'camera', (await line('Corvane Ley II')).camera.id);
    expect((await gear()).requests).toHaveLength(before);
  });
  test.each([
    ['nothing wanted', { about: 'X' }],
    ['something else wanted', { about: 'X', wanted: 'a holiday' }],
    ['no camera', { wanted: 'camera profile' }],
    ['an id that is none', { about: 'X', wanted: 'camera profile', camera: 'x' }],
  ])('%s is refused', async (_, input) => {
    await expect(askFor(people.retoucher, input)).rejects.toMatchObject({ code: 'input-invalid' });
  });
  test('a camera that is not there is refused, and so is a state that is none', async () => {
    await expect(
      askFor(people.retoucher, { about: 'X', wanted: 'camera profile', camera: v7() }),
    ).rejects.toMatchObject({ code: 'not-found' });
    await expect(trackRequest(people.librarian, id, { state: 'lost' })).rejects.toMatchObject({
      code: 'input-invalid',
    });
  });
});

describe('photos that do not show', () => {
  test('are explained by camera and editor, and nothing of them is kept', async () => {
    const events = await many(pool(), 'select count(*)::int as n from event');
    const [photoGroup] = await explain(people.retoucher, {
      photos: [
        { maker: 'Corvane', camera: 'Corvane Ley', kind: 'camera data', n: 11 },
        { maker: 'CORVANE', camera: 'CORVANE LEY', kind: 'camera data', n: 1 },
      ],
    });
    expect(photoGroup).toMatchObject({ camera: 'Corvane Ley', n: 12 });
    expect(must(photoGroup).answers.map((a) => [a.key, a.answer])).toEqual([
      ['marlstone@3', 'no'],
      ['marlstone@4', 'yes'],
      ['oxbow@2', 'yes'],
    ]);
    expect(must(must(photoGroup).answers[0]).cures).toEqual([
      'Use Marlstone 4, which 1 station has: it reads them.',
      'Open them in Oxbow 2, which 2 stations have.',
      'Hand over rendered files (TIFF, JPEG) of them; those show.',
    ]);
    expect(await many(pool(), 'select count(*)::int as n from event')).toEqual(events);
  });
  test.each([
    ['none', { photos: [] }],
    ['what is no list', { photos: 'x' }],
    ['another kind', { photos: [{ kind: 'film' }] }],
    ['less than one', { photos: [{ kind: 'rendered', n: -3 }] }],
  ])('%s is refused', async (_, input) => {
    await expect(explain(people.retoucher, input)).rejects.toMatchObject({ code: 'input-invalid' });
  });
});

describe('whether an item will show', () => {
  let look = { itemId: '', versionId: '' };
  let bowl = '';
  let jug = '';
  const told = async (photo: string) =>
    Object.fromEntries(
      (await foretellFor(people.retoucher, look.itemId, photo)).at.map((foretoldAt) => [
        `${foretoldAt.editor}${foretoldAt.station ? ` ${foretoldAt.station.name}` : ''}`,
        { answer: foretoldAt.answer, codes: foretoldAt.findings.map((f) => f.code) },
      ]),
    );
  beforeAll(async () => {
    look = await made('look', 'Kaolin', cubeOf({ title: 'Kaolin', headings: [], settings: { warmth: 4 } }, 5), {
      kind: '3d',
      size: 5,
    });
    bowl = await frame('Plate', 'Perrin Alder', 'camera data');
    jug = await frame('Plate rendered', 'Perrin Alder', 'rendered');
  });
  test('is told for each editor, and for each station that has it', async () => {
    expect(await told(bowl)).toEqual({
      'marlstone@3': { answer: 'no', codes: ['not-approved'] },
      'marlstone@4 Glaze desk': { answer: 'no', codes: ['not-approved'] },
      'oxbow@2 Glaze desk': { answer: 'no', codes: ['not-approved'] },
      'oxbow@2 Model room': { answer: 'no', codes: ['not-approved'] },
    });
  });
  test('changes with what is approved, placed and listed', async () => {
    await pool().query(`update version set encoding = '{"assumed":false}' where id = $1`, [look.versionId]);
    await approve(people.librarian, look.versionId);
    expect((await told(bowl))['marlstone@3']).toEqual({ answer: 'yes', codes: [] });
    const sha = Buffer.alloc(32, 1);
    const put = (station: string, editor: string, version: string) =>
      pool().query(
        `
          insert into
            placement (station_id, path, editor_id, editor_version, place, version_id, sha256, placed_at)
          values ($1, $2, $3, $4, $5, $6, $7, now() - interval '1 hour')
        `,
        [station, `x/${editor}`, editor, version, 'looks', look.versionId, sha],
      );
    await put(desk, 'marlstone', '4');
    await put(other, 'oxbow', '2');
    await updateListing(
      pool(),
      desk,
      'marlstone',
      '4',
      true,
      { at: 'x', running: true, listed: [], refused: [] } as never,
      new Date(Date.now() - 7200e3).toISOString(),
    );
    await updateListing(
      pool(),
      other,
      'oxbow',
      '2',
      true,
      { at: 'x', running: true, listed: [{ path: 'x/oxbow', title: 'Kaolin', kind: 'look' }], refused: [] } as never,
      new Date().toISOString(),
    );
    const foretoldAt = must(
      (await foretellFor(people.retoucher, look.itemId, bowl)).at.find((a) => a.editor === 'marlstone@4'),
    );
    expect(foretoldAt.findings).toMatchObject([{ code: 'placed', remedy: 'Quit the editor and start it.' }]);
    expect((await told(bowl))['oxbow@2 Model room']).toEqual({ answer: 'yes', codes: [] });
  });
  test('changes with the item’s scope: kept by the one editor, a caution in the other', async () => {
    await editItem(people.librarian, look.itemId, {
      revision: 1,
      base: { scope: { input: null, result: null } },
      mine: { scope: { input: 'camera data', result: null } },
    });
    const answers = await told(jug);
    expect(answers['marlstone@3']).toEqual({ answer: 'no', codes: ['scope-input'] });
    expect(answers['oxbow@2 Model room']).toEqual({ answer: 'yes', codes: ['scope-input'] });
    expect(must((await told(bowl))['oxbow@2 Model room']).codes).toEqual([]);
  });
  test('is told of the form that an editor would offer: a variant for rendered files', async () => {
    await transaction(async (sql) =>
      addVersion(sql, actorOf(people.librarian), look.itemId, {
        kind: 'look',
        sha: await putBlob(sql, Buffer.from('for rendered files')),
        fileName: 'Kaolin rendered.cube',
        format: 'cube',
        facts: {},
        selvedge: null,
        notes: '',
        variant: 'for rendered files',
      }),
    );
    const [rendered] = await many<{ id: string }>(
      pool(),
      `update version set status = 'approved' where item_id = $1 and variant <> '' returning id`,
      [look.itemId],
    );
    expect(rendered).toBeTruthy();
    const marlstone = async (photo: string) =>
      (await foretellFor(people.lead, look.itemId, photo)).at.find((one) => one.editor === 'marlstone@3');
    expect(await marlstone(jug)).toMatchObject({ answer: 'yes', variant: 'for rendered files', findings: [] });
    expect(await marlstone(bowl)).toMatchObject({ answer: 'yes', variant: '', findings: [] });
  });
  test('says what a person has put away, to that person', async () => {
    await putAway(people.retoucher, shelf, true);
    expect((await told(bowl))['oxbow@2 Model room']).toEqual({ answer: 'yes', codes: ['put-away'] });
    expect(
      (await foretellFor(people.lead, look.itemId, bowl)).at.flatMap((a) => a.findings.map((f) => f.code)),
    ).not.toContain('put-away');
  });
  test('is told of a photo at hand as of a frame that says the same, and of a converted body by its serial', async () => {
    const asked = (more: object = {}) =>
      foretellForPhoto(people.lead, look.itemId, {
        photo: { name: 'Mine.dng', camera: 'Perrin Alder', kind: 'camera data', ...more },
      } as never);
    const [mine, frames] = [await asked(), await foretellFor(people.lead, look.itemId, bowl)];
    expect(mine).toEqual({ ...frames, photo: 'Mine.dng' });
    const rendered = await asked({ kind: 'rendered', range: 'HDR' });
    expect(rendered.at.find((one) => one.editor === 'marlstone@3')?.answer).toBe('no');
    await expect(asked({ kind: 'film' })).rejects.toMatchObject({ code: 'input-invalid' });
    await expect(asked({ serial: 'x'.repeat(121) })).rejects.toMatchObject({ code: 'input-invalid' });
  });
  test('tells what is to be rolled out, and whether editors can be started from here', async () => {
    const { at, launcher, shelf: stands } = await foretellFor(people.lead, look.itemId, bowl);
    expect([launcher, stands]).toEqual([false, shelf]);
    const missing = must(at.find((one) => one.findings.some(({ cure }) => cure === 'roll out')));
    expect(missing.findings).toMatchObject([{ code: 'placed', cure: 'roll out' }]);
    expect(missing.version).toBe(look.versionId);
    expect(missing.needs).toEqual([]);
  });
  test('of what is not there is refused', async () => {
    await expect(foretellFor(people.lead, v7(), bowl)).rejects.toMatchObject({ code: 'not-found' });
    await expect(foretellFor(people.lead, look.itemId, v7())).rejects.toMatchObject({ code: 'not-found' });
    expect(await activityOfItem(people.lead, look.itemId)).toBeTruthy();
  });
});

describe('what will be offered for a photo at hand', () => {
  const offered = (more: object = {}) =>
    offeredFor(people.retoucher, { name: 'Bowl.dng', camera: 'Perrin Alder', kind: 'camera data', ...more });
  test('is told by editor: what shows for its camera and kind, of what is approved', async () => {
    const there = Object.fromEntries((await offered()).editors.map((one) => [one.editor, one]));
    expect(there['marlstone@4']).toMatchObject({ title: 'Marlstone 4' });
    expect(there['marlstone@4']?.titles).toContain('Kaolin');
    const rendered = Object.fromEntries((await offered({ kind: 'rendered' })).editors.map((one) => [one.editor, one]));
    // Kaolin is for camera data by now, and the one editor keeps to that
    expect(rendered['marlstone@3']?.titles).not.toContain('Kaolin');
    expect(rendered['oxbow@2']?.titles).toContain('Kaolin');
  });
  test('says which of the names on it are held', async () => {
    const { held } = await offered({ names: ['Kaolin', 'Nobody’s look'] });
    expect(held.map((one) => one.name)).toEqual(['Kaolin']);
  });
  test('a camera that its editor does not read is offered nothing', async () => {
    const there = (await offered({ camera: 'Corvane Ley' })).editors.find((one) => one.editor === 'marlstone@3');
    expect(there?.shown).toBe(0);
  });
});
