import { must } from '@/core/must';
import { beforeAll, describe, expect, test } from 'vitest';
import { choiceFor } from '@/core/bench/choice';
import { describe as tagsOf, profileOf, readDcp, writeDcp } from '@/core/camera/dcp';
import { cameraProfileFacts } from '@/core/camera/facts';
import { whitePoint } from '@/core/camera/white';
import { bodyOf } from '@/core/frame/body';
import { readDng, writeDng } from '@/core/frame/dng';
import { sampler } from '@/core/look';
import { cameras, neutralUnder } from '@/demo/cameras/cameras';
import { profileFor } from '@/demo/cameras/profiles';
import { daylight, lamp } from '@/demo/cameras/spectra';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import { getBlob, putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { factsOfFrame, frameFromFile, linearPicture, listFrames } from '../frames/service';
import { createItem } from '../items/create';
import { editItem } from '../items/edit';
import { itemFor, lineageOf } from '../items/service';
import { approve } from '../items/approval';
import { addShelf } from '../shelves/service';
import { actorOf } from '../people/roles';
import {
  baseTable,
  candidatesFor,
  keepAnchored,
  listBenches,
  listSets,
  moreCandidates,
  removeBench,
  saveBench,
  saveSet,
} from './service';
import { forgetTrim } from './kept-trim';
import { decide, listChoices, removeChoice, verdictsOf } from './decide';
import { one } from '../db/query';

withDatabase();
const as = people;
const alder = must(cameras[0]);
const infrared = must(cameras[1]);
const width = 48;
const height = 32;
let frame = '';
let ir = '';
let look = { itemId: '', versionId: '' };
let draft = { itemId: '', versionId: '' };
let profile = { itemId: '', versionId: '' };
let retargeted = { itemId: '', versionId: '' };

/** A flat field of a neutral at 40 %, as a mosaic. */
const flat = (neutral: number[], serial: string) => {
  const mosaic = new Uint16Array(width * height);
  const cfa = [0, 1, 1, 2] as [number, number, number, number];
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++)
      mosaic[i] = 512 + Math.round(15871 * 0.4 * must(neutral[must(cfa[(y & 1) * 2 + (x & 1)])]));
  return writeDng({
    width,
    height,
    cfa,
    mosaic,
    black: 512,
    white: 16383,
    neutral,
    maker: 'Perrin',
    model: 'Perrin Alder',
    unique: 'Perrin Alder',
    serial,
    lens: 'Perrin 50 mm f/2',
    focal: 50,
    aperture: 8,
    iso: 100,
    date: '2026:10:14 11:20:00',
    profile: profileFor(alder, null, 'Embedded'),
    jpeg: null,
  });
};
beforeAll(async () => {
  const shelf = await addShelf(as.librarian, { name: 'Profiles' });
  const actor = actorOf(as.librarian);
  const bring = (neutral: number[], serial: string, conversion = '') => {
    const dng = flat(neutral, serial);
    return transaction(async (sql) =>
      frameFromFile(sql, actor, {
        name: serial,
        fileName: `${serial}.dng`,
        sha: await putBlob(sql, Buffer.from(dng)),
        facts: factsOfFrame(dng),
        light: 'daylight',
        conversion,
      }),
    );
  };
  frame = await bring(neutralUnder(alder, daylight(5600)), 'PA-1');
  ir = await bring(neutralUnder(infrared, daylight(5600)), 'PA-2', 'infrared');
  const make = (title: string) =>
    transaction(async (sql) =>
      createItem(sql, actor, {
        kind: 'look',
        title,
        headings: [],
        shelfId: shelf,
        supplier: '',
        sha: await putBlob(sql, Buffer.from(cubeOf(must(houseLooks[title === 'Amber Study' ? 0 : 1]), 5))),
        fileName: `${title}.cube`,
        format: 'cube',
        facts: { kind: '3d', size: 5 },
        selvedge: null,
        notes: '',
      }),
    );
  [look, draft] = [await make('Amber Study'), await make('Slate Study')];
  const bytes = Buffer.from(writeDcp(profileFor(alder, 'Standard', 'Alder Standard')));
  const facts = cameraProfileFacts(new Uint8Array(bytes));
  const madeFor = (title: string, camera: string) =>
    transaction(async (sql) =>
      createItem(sql, actor, {
        kind: 'camera-profile',
        title,
        headings: [],
        shelfId: shelf,
        supplier: '',
        sha: await putBlob(sql, bytes),
        fileName: 'a.dcp',
        format: 'dcp',
        facts: { ...facts, cameras: [camera] },
        selvedge: null,
        notes: '',
      }),
    );
  [profile, retargeted] = [
    await madeFor('Alder Standard', 'Perrin Alder'),
    await madeFor('Standard for infrared', 'Perrin Alder, infrared'),
  ];
  await pool().query(`update version set encoding = '{"assumed":false}' where id = $1`, [look.versionId]);
  await approve(as.librarian, look.versionId);
  await approve(as.librarian, retargeted.versionId);
});
const at = (base: Awaited<ReturnType<typeof baseTable>>, camera: number[]): number[] => {
  const out = new Float64Array(3);
  sampler(base.look)(
    ...(camera.map((v, i) => Math.sqrt(v / must(base.neutral[i]))) as [number, number, number]),
    out,
    0,
  );
  return [...out];
};

describe('camera data on the bench', () => {
  test('a DNG becomes a frame that knows its camera, serial and kind', async () => {
    const frame = must((await listFrames(as.retoucher)).find((x) => x.id === ir));
    expect(frame).toMatchObject({
      camera: 'Perrin Alder',
      serial: 'PA-2',
      conversion: 'infrared',
      file_kind: 'camera data',
      lens: 'Perrin 50 mm f/2',
      width: 24,
      height: 16,
    });
  });
  test('its linear picture is what the sensor recorded, by channel', async () => {
    const linear = await linearPicture(as.retoucher, frame, 320);
    const samples = new Uint16Array(
      linear.data.buffer.slice(linear.data.byteOffset, linear.data.byteOffset + linear.data.length),
    );
    const neutral = neutralUnder(alder, daylight(5600));
    expect([linear.width, linear.height]).toEqual([24, 16]);
    for (let i = 0; i < samples.length; i++)
      expect(Math.abs(must(samples[i]) / 65535 - 0.4 * must(neutral[i % 3]))).toBeLessThan(1e-4);
    expect(await linearPicture(as.retoucher, frame, 320)).toEqual(linear); // from the cache
  });
  test('balanced as the file says, its neutral is gray; balanced for another light, it is not', async () => {
    const neutral = neutralUnder(alder, daylight(5600));
    const own = await baseTable(as.retoucher, { frame, version: profile.versionId });
    const gray = at(
      own,
      neutral.map((v) => v * 0.4),
    );
    expect(Math.max(...gray) - Math.min(...gray)).toBeLessThan(0.004);
    expect(own.white.kelvin).toBeGreaterThan(5300);
    expect(own.white.kelvin).toBeLessThan(5900);
    expect(own.white.reachable).toBe(true);
    const warm = await baseTable(as.retoucher, { frame, version: profile.versionId, white: 'k:3000,0' });
    const blue = at(
      warm,
      neutral.map((v) => v * 0.3),
    );
    expect(must(blue[2]) - must(blue[0])).toBeGreaterThan(0.1);
    const again = await baseTable(as.retoucher, {
      frame,
      version: profile.versionId,
      white: `n:${neutralUnder(alder, lamp(2856)).join(',')}`,
    });
    expect(again.white.kelvin).toBeGreaterThan(2700);
    expect(again.white.kelvin).toBeLessThan(3050);
  });
  test('rungs act one by one: each that is muted leaves another picture', async () => {
    const red = [0.3, 0.2, 0.1];
    const of = async (stages: string) =>
      at(await baseTable(as.retoucher, { frame, version: profile.versionId, stages }), red)
        .map((v) => v.toFixed(5))
        .join();
    expect(
      new Set(
        await Promise.all(
          ['', 'hue-sat', 'hue-sat,exposure', 'hue-sat,exposure,look', 'hue-sat,exposure,look,curve'].map(of),
        ),
      ).size,
    ).toBe(5);
  });
  test('the infrared neutral is reached by no temperature; anchored, it is, and the profile is kept as a draft that knows its source', async () => {
    const before = await baseTable(as.retoucher, { frame: ir, version: profile.versionId });
    expect(before.white.reachable).toBe(false);
    const neutral = neutralUnder(infrared, daylight(5600));
    const shown = await baseTable(as.retoucher, { frame: ir, version: profile.versionId, anchor: 5000 });
    const gray = at(
      shown,
      neutral.map((v) => v * 0.4),
    );
    expect(shown.white).toMatchObject({ reachable: true });
    expect(Math.abs(shown.white.kelvin - 5000)).toBeLessThan(5);
    expect(Math.max(...gray) - Math.min(...gray)).toBeLessThan(0.004);
    const made = await keepAnchored(as.librarian, {
      version: profile.versionId,
      frame: ir,
      white: 'as',
      kelvin: 5000,
      title: 'Alder Standard for infrared',
    });
    const found = await itemFor(as.librarian, made.itemId);
    expect(found.newest.status).toBe('draft');
    expect(found.item.cameras).toEqual(['Perrin Alder, infrared']); // not for plain bodies of the model
    expect((await lineageOf(as.librarian, found)).sources[0]).toMatchObject({ title: 'Alder Standard' });
    const dcp = readDcp(
      new Uint8Array(
        await getBlob(
          (await one<{ sha256: Buffer }>(pool(), 'select sha256 from version where id = $1', [made.versionId])).sha256,
        ),
      ),
    );
    expect(Math.abs(whitePoint(profileOf(dcp), neutral).kelvin - 5000)).toBeLessThan(5);
    expect(tagsOf(dcp).UniqueCameraModel).toBe('Perrin Alder');
  });
  test.each([
    ['k:100,0', 'white'],
    ['k:5000,900', 'white'],
    ['n:0,1,1', 'neutral'],
    ['n:1,2', 'neutral'],
  ])('a balance of %s is refused', async (white, code) =>
    expect(baseTable(as.librarian, { frame, version: 'plain', white })).rejects.toMatchObject({ code }),
  );
  test('a look is no profile, and a rendered frame has no camera data', async () => {
    await expect(baseTable(as.librarian, { frame, version: look.versionId })).rejects.toMatchObject({
      code: 'profile-kind',
    });
    const png = await transaction(async (sql) => {
      const { rows } = await sql.query<{ sha256: Buffer }>('select sha256 from frame where id = $1', [frame]);
      return frameFromFile(sql, actorOf(as.librarian), {
        name: 'flat',
        fileName: 'flat.png',
        sha: must(rows[0]).sha256,
        facts: { format: 'png' },
      });
    });
    await expect(baseTable(as.librarian, { frame: png, version: 'plain' })).rejects.toMatchObject({
      code: 'frame-rendered',
    });
    await expect(linearPicture(as.librarian, png, 320)).rejects.toMatchObject({ code: 'frame-rendered' });
  });
  test.each([
    ['cut in the middle of its mosaic', (b: Uint8Array) => b.slice(0, b.length - 900)],
    [
      'with another pattern',
      (bytes: Uint8Array) => {
        const out = bytes.slice();
        const view = new DataView(out.buffer);
        for (let i = 0; i + 12 < out.length; i++)
          if (view.getUint16(i, true) === 33422 && view.getUint16(i + 2, true) === 1) {
            out.set([0, 0, 0, 0], i + 8);
            break;
          }
        return out;
      },
    ],
    [
      'with black above white',
      (bytes: Uint8Array) => {
        const out = bytes.slice();
        const view = new DataView(out.buffer);
        for (let i = 0; i + 12 < out.length; i++)
          if (view.getUint16(i, true) === 50717 && view.getUint16(i + 2, true) === 4) {
            view.setUint32(i + 8, 1, true);
            break;
          }
        return out;
      },
    ],
  ] as [string, (b: Uint8Array) => Uint8Array][])('a DNG %s is refused with place and remedy', (_n, harm) => {
    try {
      readDng(harm(flat([0.7, 1, 0.6], 'X')));
      expect.unreachable();
    } catch (error) {
      expect((error as { remedy?: string }).remedy).toBeTruthy();
      expect((error as { where?: string }).where).toBeTruthy();
    }
  });
});

describe('candidates', () => {
  test('come by version, by shelf and by camera', async () => {
    expect((await candidatesFor(as.retoucher, [look.versionId, 'nonsense'])).map((c) => c.title)).toEqual([
      'Amber Study',
    ]);
    expect((await moreCandidates(as.retoucher, { cameras: ['Perrin Alder'] })).map((c) => c.title)).toContain(
      'Alder Standard',
    );
    expect((await moreCandidates(as.retoucher, { items: [draft.itemId] }))[0]).toMatchObject({
      version_id: draft.versionId,
      status: 'draft',
    });
  });
});

describe('deciding', () => {
  const base = () => ({
    look: look.versionId,
    profile: null,
    strength: 80,
    frames: [frame, ir],
    chosen: true,
    words: 'holds in both',
    display: { gamut: 'p3', calibrated: new Date(Date.now() - 5 * 86_400_000).toISOString().slice(0, 10) },
  });
  test('a verdict is kept for each frame, with camera, light, strength and display', async () => {
    expect(await decide(as.retoucher, base())).toMatchObject({ verdicts: 2, choices: 0, provisional: false });
    const verdicts = await verdictsOf(as.librarian, look.itemId);
    expect(verdicts).toHaveLength(2);
    expect(verdicts.map((x) => x.camera).sort()).toEqual(['Perrin Alder', 'Perrin Alder, infrared']);
    expect(verdicts[0]).toMatchObject({
      strength: 80,
      chosen: true,
      words: 'holds in both',
      light: 'daylight',
      provisional: false,
      stages: null,
    });
  });
  test.each([
    [{ gamut: '', calibrated: '' }],
    [{ gamut: 'srgb', calibrated: '2020-01-01' }],
    [{ gamut: 'srgb', calibrated: '' }],
  ])('on a display like %j it is provisional', async (display) =>
    expect(await decide(as.librarian, { ...base(), display })).toMatchObject({ provisional: true }),
  );
  test('what it was meant to do is held against what was seen', async () => {
    await editItem(as.librarian, look.itemId, {
      revision: (await itemFor(as.librarian, look.itemId)).item.revision,
      base: { intention: '' },
      mine: { intention: 'warm the stage without touching skin' },
    });
    expect((await candidatesFor(as.retoucher, [look.versionId]))[0]).toMatchObject({
      intention: 'warm the stage without touching skin',
      roots: [look.versionId],
    });
    await decide(as.librarian, { ...base(), asMeant: false, chosen: false, frames: [frame] });
    expect((await verdictsOf(as.librarian, look.itemId))[0]).toMatchObject({ as_meant: false, chosen: false });
    await decide(as.librarian, { ...base(), frames: [frame] });
    expect(must((await verdictsOf(as.librarian, look.itemId))[0]).as_meant).toBeNull();
  });
  test('of a profile, the rungs that acted are kept', async () => {
    await decide(as.librarian, {
      ...base(),
      look: null,
      profile: profile.versionId,
      stages: ['hue-sat', 'curve'],
      frames: [frame],
    });
    expect((await verdictsOf(as.librarian, profile.itemId))[0]).toMatchObject({ stages: ['hue-sat', 'curve'] });
  });
  test('a house choice is made for each case that the frames make, and a later one takes its place', async () => {
    expect(await decide(as.librarian, { ...base(), choice: { client: 'Museum of Glazes' } })).toMatchObject({
      choices: 2,
    });
    expect(await decide(as.lead, { ...base(), strength: 60, choice: { client: 'museum of glazes' } })).toMatchObject({
      choices: 2,
    });
    const choices = (await listChoices(as.retoucher)).filter((x) => x.client.toLowerCase() === 'museum of glazes');
    expect(choices).toHaveLength(2);
    expect(choices[0]).toMatchObject({
      look: 'Amber Study',
      strength: 60,
      light: 'daylight',
      file_kind: 'camera data',
    });
    await removeChoice(as.librarian, must(choices[0]).id);
    expect(await listChoices(as.retoucher)).toHaveLength(1);
  });
  test('a profile that was seen on no frame of its camera makes no house choice; on one it does, and the choice is found again for a converted body', async () => {
    const had = (await verdictsOf(as.librarian, retargeted.itemId)).length;
    const it = { ...base(), look: null, profile: retargeted.versionId };
    await expect(decide(as.librarian, { ...it, frames: [frame], choice: {} })).rejects.toMatchObject({
      code: 'choice-camera',
      where: 'Standard for infrared',
    });
    expect(await verdictsOf(as.librarian, retargeted.itemId)).toHaveLength(had);
    expect(await decide(as.librarian, { ...it, frames: [frame] })).toMatchObject({ verdicts: 1, choices: 0 });
    expect(await decide(as.librarian, { ...it, frames: [ir], choice: { client: 'Infrared House' } })).toMatchObject({
      choices: 1,
    });
    const listed = must((await listFrames(as.retoucher)).find((x) => x.id === ir));
    const made = (await listChoices(as.retoucher)).map((choice) => ({
      client: choice.client,
      camera: choice.camera,
      light: choice.light,
      kind: choice.file_kind,
      strength: choice.strength,
      profile: choice.profile,
      profileVersion: choice.profile_version,
      look: choice.look,
      lookVersion: choice.look_version,
    }));
    expect(
      choiceFor(
        made.filter((c) => c.client === 'Infrared House'),
        { camera: bodyOf(listed), light: listed.light, kind: listed.file_kind },
      ),
    ).toMatchObject({ profile: 'Standard for infrared' });
    await removeChoice(
      as.librarian,
      must((await listChoices(as.retoucher)).find((c) => c.client === 'Infrared House')).id,
    );
  });
  test('a draft makes no house choice, and then nothing at all is kept', async () => {
    const had = (await verdictsOf(as.librarian, draft.itemId)).length;
    await expect(decide(as.librarian, { ...base(), look: draft.versionId, choice: {} })).rejects.toMatchObject({
      code: 'choice-draft',
    });
    expect(await verdictsOf(as.librarian, draft.itemId)).toHaveLength(had);
  });
  test('advised strength, ribbon and compensation follow where asked', async () => {
    await decide(as.librarian, { ...base(), advise: true, ribbon: true });
    const { item } = await itemFor(as.librarian, look.itemId);
    expect(item).toMatchObject({ strength_usual: 80, mine: true });
    await decide(as.librarian, {
      ...base(),
      look: null,
      profile: profile.versionId,
      compensation: { slope: [1.1, 1, 1], offset: [0, 0, 0], power: [1, 1, 1] },
    });
    expect(
      (await one<{ compensation: unknown }>(pool(), 'select compensation from item where id = $1', [profile.itemId]))
        .compensation,
    ).toMatchObject({ slope: [1.1, 1, 1] });
  });
  test('a trim is kept with a look too, laid with it, and forgotten again', async () => {
    const trim = { slope: [1, 1, 0.9], offset: [0, 0, 0], power: [1, 1, 1] };
    await decide(as.librarian, { ...base(), compensation: trim });
    const laid = async () => {
      const [row] = await candidatesFor(as.librarian, [look.versionId]);
      return must(row).compensation;
    };
    expect(await laid()).toMatchObject(trim);
    await expect(forgetTrim(as.retoucher, look.itemId)).rejects.toMatchObject({ code: 'not-allowed' });
    await forgetTrim(as.librarian, look.itemId);
    expect(await laid()).toBeNull();
  });
  test.each([
    [{ strength: 401 }],
    [{ strength: -1 }],
    [{ frames: [] as string[] }],
    [{ look: null }],
    [{ words: 'x'.repeat(2001) }],
  ])('what cannot be is refused: %j', async (wrong) => {
    await expect(decide(as.librarian, { ...base(), ...wrong })).rejects.toMatchObject({ name: 'Problem' });
  });
});

describe('benches and sets', () => {
  test('a bench is kept, seen by others where shared, and changed by its owner alone', async () => {
    const { id } = await saveBench(as.librarian, null, { name: 'Two lights', state: 'rows=x' });
    const hidden = await saveBench(as.librarian, null, { name: 'Mine', state: 'cols=none', shared: false });
    expect((await listBenches(as.retoucher)).map((b) => b.name)).toContain('Two lights');
    expect((await listBenches(as.retoucher)).map((b) => b.id)).not.toContain(hidden.id);
    await expect(saveBench(as.retoucher, id, { name: 'Stolen', state: 'cols=none' })).rejects.toMatchObject({
      code: 'not-allowed',
    });
    await expect(removeBench(as.lead, id)).rejects.toMatchObject({ code: 'not-allowed' });
    await removeBench(as.librarian, id);
    expect((await listBenches(as.librarian)).map((b) => b.id)).not.toContain(id);
  });
  test('a set keeps its frames in order', async () => {
    await saveSet(as.librarian, { name: 'Alder', frames: [ir, frame] });
    expect(must((await listSets(as.retoucher)).find((s) => s.name === 'Alder')).frames).toEqual([ir, frame]);
    await expect(saveSet(as.librarian, { name: 'Empty', frames: [] })).rejects.toMatchObject({ name: 'Problem' });
  });
});
