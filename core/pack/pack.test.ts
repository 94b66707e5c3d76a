import { strToU8, zipSync } from 'fflate';
import { describe, expect, test } from 'vitest';
import {
  bytesOfFingerprint,
  fingerprint,
  fingerprintDistance,
  fingerprintOfBytes,
  nearPairs,
} from '../look/fingerprint';
import { fromFunction, identity, writeClf, writeCubeBytes } from '../look';
import { readClf } from '../look/clf';
import { isSame, residual } from '../look/residual';
import { sampler } from '../look/sample';
import { compile } from '../preset/render';
import type { Settings } from '../preset/kinds';
import { parseDescriptor } from '../editor/descriptor';
import { render } from '../editor/rendition';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { dcp, hald, icc, wholeIcc, tiff } from '../testing';
import { canonicalPreset, designName, mismatches, nameLikeness, settingChanges } from './likeness';
import { HeldIndex, propose, type Held, type Incoming } from './propose';
import { recognise } from '../recognise';

const known = [marlstone3, marlstone4, oxbow2].map((d) => parseDescriptor(d));
const kind = (name: string, bytes: Uint8Array | string) => {
  const recognised = recognise(name, typeof bytes === 'string' ? strToU8(bytes) : bytes, known);
  return [recognised.kind, recognised.format];
};
const code = (name: string, bytes: Uint8Array | string) => {
  try {
    recognise(name, typeof bytes === 'string' ? strToU8(bytes) : bytes, known);
    return 'taken';
  } catch (error) {
    return (error as { code?: string }).code ?? 'bug';
  }
};

const marlstone = (edition: 3 | 4, title = 'Kiln Dusk') =>
  edition === 3
    ? `[marlstone]\nedition=3\nname=${title}\n[light]\namount=120\nsnap=20\n`
    : `<?xml version="1.0"?>\n<marlstone-steps edition="4" title="${title}" drawer="Ceramics/Studies"><fire raise="0.263034406" bite="28"/></marlstone-steps>`;

describe('a file is known by its content, whatever its name', () => {
  const cube = writeCubeBytes(identity(2));
  test.each<[string, Uint8Array | string, string, string]>([
    ['a table', cube, 'look', 'cube'],
    ['a process list', writeClf(identity(3), 'x'), 'look', 'clf'],
    [
      'a chain of nodes',
      '<ProcessList xmlns="urn:x" id="c"><Matrix inBitDepth="32f" outBitDepth="32f"><Array dim="3 3">1 0 0 0 1 0 0 0 1</Array></Matrix><Exponent inBitDepth="32f" outBitDepth="32f" style="basicFwd"><ExponentParams exponent="2.2"/></Exponent></ProcessList>',
      'look',
      'clf',
    ],
    [
      'a color decision',
      '<ColorCorrection id="warm"><SOPNode><Slope>1.1 1 0.9</Slope><Offset>0 0 0</Offset><Power>1 1 1</Power></SOPNode></ColorCorrection>',
      'look',
      'cdl',
    ],
    ['a Hald image', hald(4, ([r, g, b]) => [r! ** 0.8, g!, b! * 0.9]), 'look', 'hald'],
    ['an abstract profile', wholeIcc('abst'), 'look', 'icc'],
    ['an input profile', wholeIcc('scnr'), 'camera-profile', 'icc'],
    ['a printer profile', wholeIcc('prtr'), 'icc-profile', 'icc'],
    ['a camera profile', dcp(), 'camera-profile', 'dcp'],
    ['a camera profile, big-endian', dcp(false), 'camera-profile', 'dcp'],
    ['an older preset', marlstone(3), 'preset', 'marlstone@3'],
    ['a newer preset', marlstone(4), 'preset', 'marlstone@4'],
    ['our own settings', JSON.stringify({ name: 'A', settings: { level: 0.5 } }), 'preset', 'etagere@1'],
    [
      'an editor’s look archive',
      render(known[1]!.accepts[0]!, {
        title: 'Kiln',
        headings: ['A'],
        position: 0,
        scope: null,
        encoding: null,
        look: identity(5),
        bytes: new Uint8Array(),
        id: 'k',
      }).bytes,
      'look',
      'marlstone@4',
    ],
    [
      'a lens database',
      '<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="2026.1"><mount name="Alder"/><lens maker="Corvane" model="35 mm"><series><sample/><sample/></series></lens></lens-database>',
      'lens-database',
      'lens-xml',
    ],
    ['a descriptor', JSON.stringify(oxbow2), 'descriptor', 'oxbow@2'],
    [
      'a TIFF',
      tiff(42, [
        [256, 4, [640]],
        [257, 4, [400]],
        [271, 2, 'Perrin'],
        [272, 2, 'Alder'],
      ]),
      'frame',
      'tiff',
    ],
    [
      'a DNG',
      tiff(42, [
        [256, 4, [640]],
        [257, 4, [400]],
        [50706, 1, [1, 4, 0, 0]],
      ]),
      'frame',
      'dng',
    ],
    [
      'a photograph of a Hald image’s size',
      hald(4, ([r, g, b]) => [
        Math.sin(r! * 900 + b! * 77) / 2 + 0.5,
        Math.sin(g! * 700) / 2 + 0.5,
        Math.cos(b! * 800) / 2 + 0.5,
      ]),
      'frame',
      'png',
    ],
    [
      'patch values',
      'CGATS.17\nNUMBER_OF_SETS 2\nBEGIN_DATA_FORMAT\nSAMPLE_ID LAB_L\nEND_DATA_FORMAT\n',
      'chart',
      'cgats',
    ],
    ['a program', new Uint8Array([0x7f, 0x45, 0x4c, 0x46, 2, 1]), 'add-on', 'program'],
    ['a script', '#!/bin/sh\necho hi\n', 'add-on', 'program'],
    ['nothing', new Uint8Array(0), 'unknown', 'empty'],
  ])('%s', (_what, bytes, key, format) => {
    for (const name of ['a.bin', 'folder/a.dat']) expect(kind(name, bytes)).toEqual([key, format]);
    const recognised = recognise('a.bin', typeof bytes === 'string' ? strToU8(bytes) : bytes, known);
    expect(recognised.evidence.length).toBeGreaterThan(0);
    expect(recognised.confidence).toBeGreaterThan(0);
  });
  test('what a picture says of camera and lens comes along', () =>
    expect(
      recognise(
        'a',
        tiff(42, [
          [256, 4, [640]],
          [257, 4, [400]],
          [271, 2, 'Perrin'],
          [272, 2, 'Alder'],
        ]),
        known,
      ).facts,
    ).toMatchObject({ width: 640, height: 400, maker: 'Perrin', camera: 'Alder' }));
  test('a camera profile is bound to the camera that it names', () =>
    expect(recognise('a', dcp(), known)).toMatchObject({
      title: 'Alder Standard',
      facts: { cameras: ['Perrin Alder'] },
    }));
});

describe('a file that says what it is and is broken is refused with its place', () => {
  test.each<[string, Uint8Array | string, string]>([
    ['a profile that ends early', icc('scnr').slice(0, 140), 'icc-broken'],
    ['a profile of no class', icc('what'), 'icc-broken'],
    ['a camera profile without matrix', tiff(0x4352, [[50708, 2, 'X']]), 'dcp-matrix'],
    ['a directory outside the file', tiff(42, [[256, 4, [1]]]).slice(0, 12), 'tiff-broken'],
    [
      'a picture of absurd size',
      tiff(42, [
        [256, 4, [900000]],
        [257, 4, [900000]],
      ]),
      'picture-size',
    ],
    [
      'a process list of absurd size',
      '<ProcessList><LUT3D inBitDepth="32f" outBitDepth="32f"><Array dim="1000 1000 1000 3">0</Array></LUT3D></ProcessList>',
      'clf-size',
    ],
    [
      'a process list with a row missing',
      '<ProcessList><LUT3D inBitDepth="32f" outBitDepth="32f"><Array dim="2 2 2 3">0 0 0</Array></LUT3D></ProcessList>',
      'clf-count',
    ],
    [
      'a color decision without a number',
      '<ColorCorrection><SOPNode><Slope>1 x 1</Slope></SOPNode></ColorCorrection>',
      'cdl-number',
    ],
    ['entities', '<!DOCTYPE a [<!ENTITY b "c">]><ProcessList>&b;</ProcessList>', 'xml-doctype'],
    ['a descriptor that breaks a rule', JSON.stringify({ ...oxbow2, sees: 'whenever' }), 'descriptor-invalid'],
  ])('%s', (_what, bytes, c) => expect(code('x', bytes)).toBe(c));
  test('a loop of directories ends', () => {
    const bytes = tiff(42, [
      [256, 4, [10]],
      [257, 4, [10]],
    ]);
    new DataView(bytes.buffer).setUint32(10 + 24, 8, true);
    expect(code('x', bytes)).toBe('tiff-broken');
  });
});

test('a process list is read back as it was written', () => {
  const look = fromFunction(5, 'Kiln', (values) => {
    values[0] = values[0]! ** 1.3;
    values[1] = values[1]! * 0.9;
  });
  const back = readClf(strToU8(writeClf(look, 'id'))).look!;
  expect(back.size).toBe(5);
  expect(Array.from(back.table)).toEqual(Array.from(look.table));
});

describe('names', () => {
  test('releases, copies and variants are told from the design', () => {
    expect(designName('Kiln Dusk v2')).toEqual({ base: 'kiln dusk', mark: null, release: 'v2' });
    expect(designName('Kiln Dusk (JPEG)')).toMatchObject({ base: 'kiln dusk', mark: 'for rendered files' });
    expect(designName('Kiln_Dusk copy 2')).toMatchObject({ base: 'kiln dusk', mark: null });
    expect(designName('Kiln Dusk', 'Pack/Raw')).toMatchObject({ base: 'kiln dusk', mark: 'for camera data' });
    expect(designName('Raw')).toMatchObject({ base: 'raw', mark: null });
  });
  test('what a file says inside against its name and folder', () => {
    expect(mismatches('Warm/kiln_dusk.cube', { fileTitle: 'Kiln Dusk', fileHeadings: ['Warm'] })).toEqual([]);
    expect(mismatches('Cold/Other.cube', { fileTitle: 'Kiln Dusk', fileHeadings: ['Warm'] })).toHaveLength(2);
  });
  test('likeness', () => {
    expect(nameLikeness('Kiln Dusk', 'kiln-dusk')).toBe(1);
    expect(nameLikeness('Kiln Dusk', 'Verdigris')).toBeLessThan(0.3);
  });
  test('settings in another order are the same content, and a change is found', () => {
    expect(canonicalPreset({ settings: { level: 1, contrast: 1.2 } })).toBe(
      canonicalPreset({ settings: { contrast: 1.2, level: 1 } }),
    );
    expect(settingChanges({ level: 1, contrast: 1.2 }, { level: 1, chroma: 1.1 }).map((c) => c.setting)).toEqual([
      'contrast',
      'chroma',
    ]);
  });
});

const print = (s: Settings) => fingerprint(compile(s));
const warm: Settings = { warmth: 30, contrast: 1.2 };
const almost: Settings = { warmth: 30.1, contrast: 1.2005 };
const other: Settings = { warmth: -30, chroma: 0.6 };

describe('fingerprints by effect', () => {
  test('agree with the full residual about what is the same', () => {
    for (const [settings, changed] of [
      [warm, almost],
      [warm, other],
      [almost, { ...almost, level: 0.1 }],
      [almost, { ...almost, level: 0.004 }],
    ] as const) {
      const distance = fingerprintDistance(print(settings), print(changed));
      const apart = residual(compile(settings), compile(changed));
      expect(distance.p95 <= 0.5 && distance.max <= 2).toBe(isSame(apart));
      expect(distance.mean).toBeCloseTo(apart.meanDeltaE, 0);
    }
  });
  test('survive their bytes', () => expect(fingerprintOfBytes(bytesOfFingerprint(print(warm)))).toEqual(print(warm)));
  test.each([
    [undefined, 0.5, 2, 10],
    [{ p95: 0.1, max: 0.3 }, 0.1, 0.3, 1],
    [{ p95: 1.5, max: 5 }, 1.5, 5, 40],
    [{ p95: 3, max: 10 }, 3, 10, 200],
  ])('all pairs within %o are found that comparing each with each finds', (tolerance, p95, max, least) => {
    const list = Array.from({ length: 120 }, (_, i) =>
      print({
        warmth: (i % 12) * 9 - 50 + (i > 100 ? 0.05 : 0),
        contrast: 1 + Math.floor((i % 60) / 12) * 0.07,
        ...(i >= 60 && i < 80 ? { chroma: 1.3 } : {}),
      }),
    );
    const all = new Int16Array(list.length * 192);
    list.forEach((f, i) => all.set(f, i * 192));
    const slow: string[] = [];
    for (let i = 0; i < list.length; i++)
      for (let j = i + 1; j < list.length; j++) {
        const distance = fingerprintDistance(list[i]!, list[j]!);
        if (distance.max <= max + 0.05 && distance.p95 <= p95 + 0.05) slow.push(`${i} ${j}`);
      }
    expect(slow.length).toBeGreaterThanOrEqual(least);
    expect(
      nearPairs(all, list.length, tolerance)
        .map(([a, b]) => `${Math.min(a, b)} ${Math.max(a, b)}`)
        .sort(),
    ).toEqual(slow.sort());
  });
});

describe('what an incoming file is', () => {
  let n = 0;
  const of = (entry: Partial<Incoming> & { settings: Settings }): Incoming => ({
    id: ++n,
    path: `${entry.title ?? 'X'}.cube`,
    kind: 'look',
    format: 'cube',
    title: 'X',
    headings: [],
    sha: `s${n}`,
    content: `c${JSON.stringify(entry.settings)}`,
    internalId: '',
    fingerprint: print(entry.settings),
    outside: '',
    ...entry,
  });
  const heldOf = (held: Partial<Held> & { settings: Settings }): Held => ({
    itemId: `i${++n}`,
    versionId: `v${n}`,
    kind: 'look',
    format: 'cube',
    title: 'X',
    aliases: [],
    headings: [],
    fileName: 'none',
    sha: `h${n}`,
    content: `c${JSON.stringify(held.settings)}`,
    internalId: '',
    fingerprint: print(held.settings),
    outside: '',
    variant: '',
    newest: true,
    ...held,
  });
  const one = (e: Incoming, held: Held[]) => propose([e], new HeldIndex(held), fingerprintDistance).get(e.id)!;

  test('byte for byte the same', () =>
    expect(one(of({ settings: warm, sha: 'same' }), [heldOf({ settings: warm, sha: 'same' })])).toMatchObject({
      outcome: 'duplicate',
      likeness: { by: 'bytes' },
    }));
  test('the same table in another format', () =>
    expect(one(of({ settings: warm }), [heldOf({ settings: warm, format: 'clf' })])).toMatchObject({
      outcome: 'duplicate',
      likeness: { by: 'content' },
    }));
  test('another name, the same effect', () =>
    expect(
      one(of({ settings: almost, title: 'Ember' }), [heldOf({ settings: warm, title: 'Kiln Dusk' })]),
    ).toMatchObject({ outcome: 'duplicate', likeness: { by: 'effect' } }));
  test('the same name and a kindred effect: a new version', () =>
    expect(
      one(of({ settings: { ...warm, contrast: 1.3 }, title: 'Kiln Dusk v2' }), [
        heldOf({ settings: warm, title: 'Kiln Dusk' }),
      ]),
    ).toMatchObject({ outcome: 'version', likeness: { by: 'title' } }));
  test('the same name and quite another effect: new, with a caution', () =>
    expect(
      one(of({ settings: { level: -3, warmth: -100 }, title: 'Kiln Dusk' }), [
        heldOf({ settings: { level: 2 }, title: 'Kiln Dusk' }),
      ]),
    ).toMatchObject({ outcome: 'new', caution: expect.stringContaining('Another item has this name') as string }));
  test('the same identity inside, whatever the name', () =>
    expect(
      one(of({ settings: other, title: 'Renamed', internalId: 'abc' }), [
        heldOf({ settings: warm, title: 'Kiln Dusk', internalId: 'abc' }),
      ]),
    ).toMatchObject({ outcome: 'version', likeness: { by: 'identity' } }));
  test('a variant for rendered files', () =>
    expect(
      one(of({ settings: { ...warm, level: 0.2 }, title: 'Kiln Dusk (JPEG)' }), [
        heldOf({ settings: warm, title: 'Kiln Dusk' }),
      ]),
    ).toMatchObject({ outcome: 'variant', likeness: { mark: 'for rendered files' } }));
  test('the same settings in another editor’s language are a variant, in the same language a copy', () => {
    const preset = { kind: 'preset', format: 'marlstone@3' };
    expect(
      one(of({ settings: warm, kind: 'preset', format: 'marlstone@4' }), [heldOf({ settings: warm, ...preset })]),
    ).toMatchObject({ outcome: 'variant' });
    expect(one(of({ settings: warm, ...preset }), [heldOf({ settings: warm, ...preset })])).toMatchObject({
      outcome: 'duplicate',
      likeness: { by: 'content' },
    });
  });
  test('presets alike in color but not in what no table carries are no copies', () =>
    expect(
      one(
        of({ settings: warm, kind: 'preset', format: 'oxbow@2', content: 'p', outside: '{"grain":20}', title: 'A' }),
        [heldOf({ settings: warm, kind: 'preset', format: 'oxbow@2', content: 'q', title: 'B' })],
      ),
    ).toMatchObject({ outcome: 'new' }));
  test('most settings the same under a like name: a revision', () => {
    const base: Settings = { level: 0.1, contrast: 1.2, chroma: 1.1, toe: 10, shoulder: 5, warmth: 20 };
    expect(
      one(
        of({
          settings: { ...base, warmth: 60 },
          kind: 'preset',
          format: 'oxbow@2',
          content: 'p',
          title: 'Kiln Dusk Warm',
        }),
        [heldOf({ settings: base, kind: 'preset', format: 'oxbow@2', content: 'q', title: 'Kiln Dusk' })],
      ),
    ).toMatchObject({ outcome: 'version', likeness: { by: 'likeness' } });
  });
  test('within an arrival, later files are measured by earlier ones', () => {
    const incoming = of({ settings: warm, title: 'Kiln', path: 'P/Kiln.cube' });
    const preset = of({ settings: warm, title: 'Kiln', path: 'P/b.cube' });
    const alike = of({ settings: almost, title: 'Ember', path: 'P/c.cube' });
    const different = of({ settings: other, title: 'Kiln', path: 'P/JPEG/Kiln.cube' });
    const all = propose([incoming, preset, alike, different], new HeldIndex([]), fingerprintDistance);
    expect([incoming, preset, alike, different].map((e) => [all.get(e.id)!.outcome, all.get(e.id)!.entryId])).toEqual([
      ['new', null],
      ['duplicate', incoming.id],
      ['duplicate', incoming.id],
      ['variant', incoming.id],
    ]);
  });
});

test('a table and what its sampler does have one fingerprint', () => {
  const evaluate = compile(warm);
  const look = fromFunction(33, 'x', (v) => evaluate(v[0]!, v[1]!, v[2]!, v, 0));
  expect(fingerprintDistance(fingerprint(sampler(look)), fingerprint(evaluate)).max).toBeLessThan(0.6);
});
test('archives that are no editor’s own stay archives', () =>
  expect(kind('a.zip', zipSync({ 'a.txt': strToU8('x') }))).toEqual(['unknown', 'zip']));
