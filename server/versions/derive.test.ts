import { must } from '@/core/must';
import { beforeAll, describe, expect, test } from 'vitest';
import { profileOf, readDcp, writeDcp } from '@/core/camera/dcp';
import { whitePoint } from '@/core/camera/white';
import { cameraProfileFacts } from '@/core/camera/facts';
import { iccHeader } from '@/core/icc/header';
import { sampler } from '@/core/look';
import { cameras, neutralUnder } from '@/demo/cameras/cameras';
import { profileFor } from '@/demo/cameras/profiles';
import { daylight } from '@/demo/cameras/spectra';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import { writeDng } from '@/core/frame/dng';
import { baseTable, candidatesFor } from '../bench/service';
import { getBlob, putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { people as p, withDatabase } from '../db/testing/database';
import { factsOfFrame, frameFromFile } from '../frames/service';
import { addLicence } from '../licences/service';
import { actorOf } from '../people/roles';
import { createItem } from '../items/create';
import { derive, previewDerived } from './derive';
import { itemFor, lineageOf, lookOf, versionFor } from '../items/service';
import { addShelf } from '../shelves/service';

withDatabase();
let shelf = '';
let look = '';
let profile = '';
const bring = (fresh: Partial<Parameters<typeof createItem>[2]> & { bytes: Uint8Array }) => {
  const { bytes, ...rest } = fresh;
  return transaction(async (sql) =>
    createItem(sql, actorOf(p.librarian), {
      kind: 'look',
      title: 'X',
      headings: ['Kiln'],
      shelfId: shelf,
      supplier: '',
      fileName: 'x.cube',
      format: 'cube',
      facts: {},
      selvedge: null,
      notes: '',
      ...rest,
      sha: await putBlob(sql, Buffer.from(bytes)),
    }),
  );
};
beforeAll(async () => {
  shelf = await addShelf(p.librarian, { name: 'Forms' });
  look = (
    await bring({
      bytes: new TextEncoder().encode(cubeOf(must(houseLooks[0]), 17)),
      title: 'Amber',
      facts: { kind: '3d', size: 17 },
    })
  ).versionId;
  const dcp = writeDcp(profileFor(must(cameras[0]), 'Standard', 'Alder Standard'));
  profile = (
    await bring({
      bytes: dcp,
      kind: 'camera-profile',
      title: 'Alder Standard',
      fileName: 'a.dcp',
      format: 'dcp',
      facts: { ...cameraProfileFacts(dcp) },
    })
  ).versionId;
});
const made = async (version: string, input: Parameters<typeof derive>[2]) => {
  const { itemId, versionId } = await derive(p.librarian, version, input);
  const found = await itemFor(p.librarian, itemId);
  return {
    ...found,
    ...(await lineageOf(p.librarian, found)),
    v: await versionFor(p.librarian, versionId),
    bytes: new Uint8Array(await getBlob((await versionFor(p.librarian, versionId)).sha256)),
  };
};
const colors = async (source: Parameters<typeof lookOf>[0]) => {
  const evaluate = sampler(await lookOf(source));
  const result = new Float64Array(3);
  const out: number[] = [];
  for (const color of [
    [0.2, 0.4, 0.6],
    [0.8, 0.5, 0.3],
    [0.1, 0.1, 0.1],
  ] as const) {
    evaluate(color[0], color[1], color[2], result, 0);
    out.push(...result);
  }
  return out;
};

describe('other forms of a look', () => {
  test.each(['cube', 'clf', 'icc-link', 'icc-abstract'] as const)(
    'as %s: its error is told first, and the item does what its source does',
    async (form) => {
      const seen = await previewDerived(p.librarian, look, { form, title: `Amber as ${form}` });
      const derived = await made(look, { form, title: `Amber as ${form}` });
      const before = await colors(await versionFor(p.librarian, look));
      const after = await colors(derived.v);
      expect(must(seen.residual).meanDeltaE).toBeLessThan(form === 'icc-abstract' ? 1 : 0.2);
      expect(seen.bytes).toBe(derived.bytes.length);
      expect(derived.item).toMatchObject({
        kind: 'look',
        title: `Amber as ${form}`,
        headings: ['Kiln'],
        shelf_id: shelf,
      });
      expect(derived.newest.status).toBe('draft');
      expect(derived.sources.map((s) => s.version_id)).toEqual([look]);
      expect(derived.newest.selvedge).toHaveLength(12);
      after.forEach((v, i) => expect(Math.abs(v - must(before[i]))).toBeLessThan(0.02));
    },
  );
  test('an ICC link becomes a table again', async () => {
    const link = await made(look, { form: 'icc-link', title: 'Link' });
    const back = await made(link.v.id, { form: 'cube', title: 'Back' });
    const before = await colors(await versionFor(p.librarian, look));
    const after = await colors(back.v);
    after.forEach((v, i) => expect(Math.abs(v - must(before[i]))).toBeLessThan(0.01));
    expect(back.sources.map((s) => s.version_id)).toEqual([link.v.id]);
    // laid over what it was made from, it would act twice: the bench tells by these
    expect([...must((await candidatesFor(p.retoucher, [back.v.id]))[0]).roots].sort()).toEqual(
      [back.v.id, link.v.id, look].sort(),
    );
  });
  test('a table of its own size is exact', async () => {
    expect(
      must((await previewDerived(p.librarian, look, { form: 'cube', points: 17 })).residual).maxDeltaE,
    ).toBeLessThan(0.01);
    expect(
      must((await previewDerived(p.librarian, look, { form: 'cube', points: 5 })).residual).maxDeltaE,
    ).toBeGreaterThan(0.1);
  });
});

/** Camera data of the first camera, taken in daylight of that temperature. */
async function aFrame(kelvin: number): Promise<string> {
  const neutral = neutralUnder(must(cameras[0]), daylight(kelvin));
  const mosaic = new Uint16Array(32 * 24).fill(4000);
  const dng = writeDng({
    width: 32,
    height: 24,
    cfa: [0, 1, 1, 2],
    mosaic,
    black: 512,
    white: 16383,
    neutral,
    maker: 'Perrin',
    model: 'Perrin Alder',
    unique: 'Perrin Alder',
    serial: '9',
    lens: 'L',
    focal: 50,
    aperture: 8,
    iso: 100,
    date: '2026:10:14 11:20:00',
    profile: profileFor(must(cameras[0]), null, 'E'),
    jpeg: null,
  });
  return transaction(async (sql) =>
    frameFromFile(sql, actorOf(p.librarian), {
      name: 'F',
      fileName: 'f.dng',
      sha: await putBlob(sql, Buffer.from(dng)),
      facts: factsOfFrame(dng),
    }),
  );
}

describe('other forms of a camera profile', () => {
  test('an ICC input profile at one light says so, and develops camera data on the bench much as its source does', async () => {
    const derived = await made(profile, { form: 'icc-input', title: 'Alder in June', kelvin: 5600 });
    expect(iccHeader(derived.bytes)).toMatchObject({
      class: 'input',
      description: 'Alder in June, of square root values',
    });
    const frame = await aFrame(5600);
    const base = await baseTable(p.librarian, { frame, version: profile });
    const table = await baseTable(p.librarian, { frame, version: derived.v.id });
    const out = new Float64Array(3);
    const values = new Float64Array(3);
    for (const color of [
      [0.3, 0.3, 0.3],
      [0.5, 0.4, 0.3],
      [0.25, 0.35, 0.5],
    ] as [number, number, number][]) {
      sampler(base.look)(...color, out, 0);
      sampler(table.look)(...color, values, 0);
      out.forEach((v, i) => expect(Math.abs(v - must(values[i]))).toBeLessThan(0.03));
    }
    expect(table.white.kelvin).toBeGreaterThan(5000);
  });
  test('anchored: the neutral of a frame is at the temperature that was said, for the body of that frame', async () => {
    const frame = await aFrame(3000);
    const { v, bytes, sources } = await made(profile, {
      form: 'anchored',
      title: 'Alder at the lamp',
      kelvin: 4800,
      frame,
    });
    const neutral = neutralUnder(must(cameras[0]), daylight(3000));
    const before = whitePoint(profileOf(profileFor(must(cameras[0]), 'Standard', 'x')), neutral);
    const after = whitePoint(profileOf(readDcp(bytes)), neutral);
    expect(Math.abs(before.kelvin - 4800)).toBeGreaterThan(500);
    expect(after.kelvin).toBeCloseTo(4800, -1);
    expect(after.tint).toBeCloseTo(0, 0);
    expect(v.facts.cameras).toEqual(['Perrin Alder']);
    expect(sources.map(({ version_id }) => version_id)).toEqual([profile]);
    await expect(derive(p.librarian, profile, { form: 'anchored', title: 'Of nothing' })).rejects.toThrow(
      /of which frame the neutral is meant/,
    );
  });
  test('without tables, with another curve, for one light or another camera: only that changes', async () => {
    const of = async (form: Parameters<typeof derive>[2]) => profileOf(readDcp((await made(profile, form)).bytes));
    const own = profileOf(profileFor(must(cameras[0]), 'Standard', 'x'));
    expect(own.look).not.toBeNull();
    expect((await of({ form: 'without-look', title: 'No look table' })).look).toBeNull();
    expect((await of({ form: 'straight', title: 'Straight' })).curve).toEqual([
      [0, 0],
      [1, 1],
    ]);
    expect((await of({ form: 'first-light', title: 'One light' })).color).toHaveLength(1);
    const other = await made(profile, { form: 'other-camera', title: 'For Ley', camera: 'Corvane Ley' });
    expect(other.item.cameras).toEqual(['Corvane Ley']);
    expect(other.newest.status).toBe('draft');
    await expect(derive(p.librarian, profile, { form: 'other-camera' })).rejects.toMatchObject({
      code: 'input-invalid',
      message: 'Say for which camera.',
      where: 'camera',
    });
  });
});

test('what cannot become that, and what a licence forbids, is refused', async () => {
  await expect(derive(p.librarian, look, { form: 'icc-input' })).rejects.toMatchObject({ code: 'convert-kind' });
  await expect(derive(p.librarian, profile, { form: 'cube' })).rejects.toMatchObject({ code: 'convert-kind' });
  await expect(derive(p.librarian, look, { form: 'jpeg' })).rejects.toMatchObject({ code: 'input-invalid' });
  const licenceId = await addLicence(p.librarian, {
    name: 'Seats, no conversion',
    may_convert: 'no',
    may_spread: 'no',
  });
  const bought = await bring({
    bytes: new TextEncoder().encode(cubeOf(must(houseLooks[1]), 9)),
    title: 'Bought',
    licenceId,
  });
  await expect(derive(p.librarian, bought.versionId, { form: 'icc-link' })).rejects.toMatchObject({
    code: expect.stringMatching(/licence/) as string,
  });
  expect((await pool().query(`select 1 from item where title = 'Bought'`)).rowCount).toBe(1);
});
