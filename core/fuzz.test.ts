/**
 * A fuzz run over every reader: valid files are cut, flipped, stretched and spliced by a seeded generator. Each result is
 * read or refused with a Problem that says where and what to do; nothing else is thrown, nothing hangs, nothing swells.
 * FUZZ_ROUNDS=5000 runs more of it; a seed that once found a fault is kept below.
 */
import { strToU8, zipSync } from 'fflate';
import { expect, test } from 'vitest';
import { made } from './camera/testing';
import { cubeOf, marlstonePreset, oxbowPreset, warm } from './preset/testing';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { parseDescriptor } from './editor/descriptor';
import { render } from './editor/rendition';
import { identity, writeClf } from './look';
import { profileOf, readDcp } from './camera/dcp';
import { renderer } from './camera/render';
import { demosaic } from './frame/demosaic';
import { linearPreview, readDng, writeDng } from './frame/dng';
import { readChart } from './chart/cgats';
import { iccHeader } from './icc/header';
import { readAnyLook } from './icc/look';
import { writeTableProfile } from './icc/write';
import { writeHaldTiff } from './look/hald-file';
import { writeDcp } from './camera/dcp';
import { readLook } from './look/read';
import { calibrations } from './lens/calibrated';
import { lensRecords } from './lens/records';
import { recognise } from './recognise';
import { writeTitle } from './pack/write-title';
import { Problem } from './problem';
import { seeded } from './random';
import { tries } from './tries';
import { dcp, hald, wholeIcc, tiff } from './testing';

const known = [marlstone3, marlstone4, oxbow2].map((d) => parseDescriptor(d));
const rounds = Number(process.env.FUZZ_ROUNDS ?? tries(300, 120));
const jpeg = new Uint8Array([
  0xff,
  0xd8,
  0xff,
  0xe1,
  0,
  40,
  69,
  120,
  105,
  102,
  0,
  0,
  ...tiff(42, [[271, 2, 'A long maker']]).slice(0, 32),
  ...new Array<number>(Math.max(0, 32 - tiff(42, [[271, 2, 'A long maker']]).length)).fill(0),
  0xff,
  0xc0,
  0,
  17,
  8,
  0,
  40,
  0,
  64,
  3,
  1,
  0x11,
  0,
  2,
  0x11,
  1,
  3,
  0x11,
  1,
  0xff,
  0xda,
  0,
  2,
  0xff,
  0xd9,
]);
const seeds: Record<string, Uint8Array> = {
  cube: strToU8(cubeOf(warm, 3)),
  cube1d: strToU8(
    'TITLE "Bend"\n# x\nLUT_1D_SIZE 4\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 2 2 2\n0 0 0\n0.3 0.3 0.3\n0.7 0.7 0.7\n1 1 1\n',
  ),
  clf: strToU8(writeClf(identity(3), 'id')),
  cdl: strToU8(
    '<ColorDecisionList><ColorDecision><ColorCorrection id="a"><SOPNode><Slope>1 1 1</Slope><Offset>0 0 0</Offset><Power>1 1 1</Power></SOPNode><SatNode><Saturation>1</Saturation></SatNode></ColorCorrection></ColorDecision></ColorDecisionList>',
  ),
  chain: strToU8(
    '<ProcessList id="c"><Range inBitDepth="32f" outBitDepth="32f"><minInValue>0</minInValue><maxInValue>1</maxInValue><minOutValue>0</minOutValue><maxOutValue>1</maxOutValue></Range><LUT1D inBitDepth="10i" outBitDepth="10i"><Array dim="3 1">0 512 1023</Array></LUT1D></ProcessList>',
  ),
  haldTiff: writeHaldTiff(identity(4)),
  profile: writeDcp(made()),
  camera: writeDng({
    width: 16,
    height: 12,
    cfa: [0, 1, 1, 2],
    mosaic: Uint16Array.from({ length: 192 }, (_, i) => 600 + i * 40),
    black: 512,
    white: 16383,
    neutral: [0.6, 1, 0.5],
    maker: 'Perrin',
    model: 'Alder',
    unique: 'Perrin Alder',
    serial: '1',
    lens: 'L',
    focal: 50,
    aperture: 4,
    iso: 100,
    date: '2026:01:01 00:00:00',
    profile: made(),
    jpeg: null,
  }),
  hald: hald(4),
  dcp: dcp(),
  dcpBig: dcp(false),
  icc: wholeIcc('scnr'),
  iccLink: wholeIcc('link'),
  tiff: tiff(42, [
    [256, 4, [640]],
    [257, 4, [400]],
    [34665, 4, [60]],
    [271, 2, 'Perrin'],
    [330, 4, [8]],
  ]),
  dng: tiff(
    42,
    [
      [256, 4, [64]],
      [257, 4, [40]],
      [50706, 1, [1, 4, 0, 0]],
      [330, 4, [8, 8, 8]],
    ],
    false,
  ),
  jpeg,
  xmp: strToU8(
    oxbowPreset(
      '<rdf:li run:step="lamp" run:stops="0.3"/>\n<rdf:li run:step="line" run:through="0,0 51,102 255,255"/>',
      { title: 'Rehearsal', headings: ['Stage', 'Lamps'] },
    ),
  ),
  ini: strToU8(marlstonePreset('[light]\namount=120\nsnap=20\n\n[pigment]\ndepth=90', { headings: ['Ceramics'] })),
  steps: strToU8(
    '<marlstone-steps edition="4" title="T" drawer="A"><fire raise="0.5" bite="3"/><sinew whole="0:0;1:1"/></marlstone-steps>',
  ),
  lens: strToU8(
    '<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="1"><lens maker="A" model="B" crop="1.5"><alias>C</alias><series quantity="distortion"><sample focal="50"/></series></lens></lens-database>',
  ),
  descriptor: strToU8(JSON.stringify(oxbow2)),
  settings: strToU8(
    JSON.stringify({
      name: 'S',
      settings: { level: 0.5, hueSectors: [{ center: 20, width: 60, turn: 4, chroma: 1.1, lightness: 0 }] },
    }),
  ),
  archive: render(known[1]!.accepts[0]!, {
    title: 'Kiln',
    headings: ['A'],
    position: 0,
    scope: null,
    encoding: null,
    look: identity(3),
    bytes: new Uint8Array(),
    id: 'k',
  }).bytes,
  zip: zipSync({ 'a.txt': strToU8('x') }),
  cgats: strToU8(
    'CGATS.17\nNUMBER_OF_SETS 1\nBEGIN_DATA_FORMAT\nSAMPLE_ID LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nLGOROWLENGTH 2\nBEGIN_DATA\nA1 90 0 0\nA2 "50" -3.5 2\nEND_DATA\n',
  ),
};
/** Seeds of faults that were found and mended: [file, seed]. */
const found: [string, number][] = [
  ['archive', 7],
  ['hald', 519],
  ['dng', 23],
  ['camera', 906],
];

const words = [
  '1e999',
  'NaN',
  '-',
  '99999999999',
  '0',
  '',
  '\u0000',
  '<',
  '&#x0;',
  '&a;',
  ']]>',
  '"',
  '0x10',
  '1e-400',
  '65536',
  'LUT_3D_SIZE 256',
  '\ufeff',
  '<?xml version="1.0"?>',
  '{"__proto__":{}}',
  '../',
].map((w) => strToU8(w));

function mutate(base: Uint8Array, seed: number): Uint8Array {
  const next = seeded(seed);
  const at = () => Math.floor(next() * out.length);
  const splice = (i: number, n: number, by: Uint8Array) => {
    const longer = new Uint8Array(out.length - n + by.length);
    longer.set(out.subarray(0, i));
    longer.set(by, i);
    longer.set(out.subarray(i + n), i + by.length);
    return longer;
  };
  let out = base.slice();
  for (let k = 1 + Math.floor(next() * 5); k > 0 && out.length > 1; k--) {
    const i = at();
    switch (Math.floor(next() * 8)) {
      case 0:
        out = out.slice(0, i);
        break;
      case 1:
        out[i] = Math.floor(next() * 256);
        break;
      case 2:
        out[i]! ^= 1 << Math.floor(next() * 8);
        break;
      case 3: {
        const n = Math.min(4, out.length - i);
        const v = [0xff, 0, 0x7f, 0x80][Math.floor(next() * 4)]!;
        out.fill(v, i, i + n);
        break;
      }
      case 4:
        out = splice(i, 0, words[Math.floor(next() * words.length)]!);
        break;
      case 5: {
        const n = Math.min(out.length - i, 1 + Math.floor(next() * 40));
        out = splice(i, n, new Uint8Array(0));
        break;
      }
      case 6: {
        const n = Math.min(out.length - i, 1 + Math.floor(next() * 60));
        out = splice(at(), 0, out.slice(i, i + n));
        break;
      }
      case 7: {
        const j = at();
        const n = Math.min(8, out.length - Math.max(i, j));
        out.copyWithin(i, j, j + n);
        break;
      }
    }
  }
  return out;
}

function tryAll(name: string, bytes: Uint8Array, seed: number): 'read' | 'refused' {
  let verdict: 'read' | 'refused' = 'refused';
  for (const run of [
    () => {
      const recognised = recognise('x.bin', bytes, known);
      expect(JSON.stringify(recognised.facts).length).toBeLessThan(8e6);
      verdict = 'read';
      if (recognised.kind !== 'document' && recognised.kind !== 'unknown')
        writeTitle(recognised.format, bytes, 'T', ['H'], known);
    },
    () => readLook(bytes),
    () => renderer(profileOf(readDcp(bytes)), [0.5, 1, 0.6])(new Float64Array(30).fill(0.3)),
    () => {
      const dng = readDng(bytes, 4e6);
      linearPreview(dng, 8);
      if (dng.cfa) demosaic({ ...dng, cfa: dng.cfa });
    },
    () => readChart(bytes),
    () => calibrations(bytes),
    () => lensRecords(bytes),
  ]) {
    const t = performance.now();
    try {
      run();
    } catch (error) {
      if (!(error instanceof Problem))
        throw new Error(`${name} with seed ${seed}: ${(error as Error).stack ?? String(error)}`, { cause: error });
      expect(error.remedy.length, `${name} ${seed}`).toBeGreaterThan(5);
      expect(error.where.length, `${name} ${seed}`).toBeGreaterThan(0);
    }
    expect(performance.now() - t, `${name} with seed ${seed} took too long`).toBeLessThan(2000);
  }
  return verdict;
}

test.each(Object.entries(seeds))(
  '%s: mutated, it is read or refused with place and remedy',
  (name, base) => {
    expect(tryAll(name, base, 0)).toBe('read');
    const before = process.memoryUsage().arrayBuffers;
    let refused = 0;
    for (let seed = 1; seed <= rounds; seed++) if (tryAll(name, mutate(base, seed), seed) === 'refused') refused++;
    // what was allotted on the way can be let go: nothing holds on to a table of absurd size
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(400e6);
    if (!['cgats', 'zip', 'settings'].includes(name)) expect(refused).toBeGreaterThan(rounds / 50);
  },
  120_000,
);

test.each(found)('a fault that was found stays mended: %s, seed %d', (name, seed) => {
  tryAll(name, mutate(seeds[name]!, seed), seed);
});

test('ICC profiles: mutated, the library reads or refuses them, and works on', async () => {
  const link = writeTableProfile({
    class: 'link',
    space: 'RGB ',
    pcs: 'RGB ',
    description: 'Kiln',
    copyright: '',
    created: new Date(0),
    grid: 3,
    f: () => {},
  });
  const abstract = writeTableProfile({
    class: 'abst',
    space: 'Lab ',
    pcs: 'Lab ',
    description: 'Kiln',
    copyright: '',
    created: new Date(0),
    grid: 3,
    f: () => {},
  });
  for (const [name, base] of [
    ['link', link],
    ['abstract', abstract],
  ] as const)
    for (let seed = 1; seed <= rounds / 4; seed++) {
      const bytes = mutate(base, seed);
      try {
        iccHeader(bytes);
        const out = new Float64Array(3);
        (await readAnyLook(bytes)).evaluate()(0.4, 0.5, 0.6, out, 0);
      } catch (error) {
        if (!(error instanceof Problem))
          throw new Error(`${name} with seed ${seed}: ${(error as Error).stack ?? String(error)}`, { cause: error });
      }
    }
  expect((await readAnyLook(link)).look!.size).toBe(65);
}, 240_000);
