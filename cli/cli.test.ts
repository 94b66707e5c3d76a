import { must } from '@/core/must';
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decode } from 'fast-png';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { fullSamples, readDng } from '@/core/frame/dng';
import { readCube, sampler } from '@/core/look';
import { writeDcp } from '@/core/camera/dcp';
import { cameras } from '@/demo/cameras/cameras';
import { lensDatabase } from '@/demo/cameras/gear';
import { profileFor } from '@/demo/cameras/profiles';
import { houseLooks, oxbowPresets } from '@/demo/designs';
import { cubeOf, oxbowOf } from '@/demo/files';
import { fathomPack } from '@/demo/packs';

const dir = mkdtempSync(join(tmpdir(), 'etagere-cli-'));
const at = (n: string) => join(dir, n);
const options = { encoding: 'utf8', maxBuffer: 1 << 28 } as const;
/** The program itself, without looking each time whether it has to be made anew. */
const run = (...args: string[]) => spawnSync(process.execPath, ['dist/cli.mjs', ...args], options);
const json = (...args: string[]): never => {
  const result = run(...args, '--json');
  expect(result.stderr, args.join(' ')).toBe('');
  expect(result.status).toBe(0);
  return JSON.parse(result.stdout) as never;
};
const refusal = (...args: string[]): { code: string; message: string; where: string; remedy: string } => {
  const result = run(...args, '--json');
  expect(result.status).toBe(2);
  expect(result.stdout).toBe('');
  return (JSON.parse(result.stderr) as { error: never }).error;
};
const points = [
  [0.1, 0.5, 0.9],
  [0, 0, 0],
  [1.2, -0.1, 0.4],
];

// each command is a process of its own, and some tests call ten
vi.setConfig({ testTimeout: 120_000 });
afterAll(() => vi.resetConfig());

beforeAll(() => {
  spawnSync('bin/etagere', ['look'], options); // makes itself, once
  writeFileSync(at('amber.cube'), cubeOf(must(houseLooks[0]), 33));
  writeFileSync(at('slate.cube'), cubeOf(must(houseLooks[1]), 17));
  writeFileSync(at('p.json'), JSON.stringify(points));
  writeFileSync(at('x.xmp'), oxbowOf(must(oxbowPresets[0])));
  writeFileSync(at('a.settings.json'), JSON.stringify({ level: 1 }));
}, 60_000);
afterAll(() => rmSync(dir, { recursive: true, force: true }));

describe('camera', () => {
  test('split, merge and convert', () => {
    writeFileSync(at('two.dcp'), writeDcp(profileFor(must(cameras[0]), 'Standard', 'Two lights')));
    const whole = json('camera', 'info', at('two.dcp')) as { tags: Record<string, unknown> };
    for (const light of ['1', '2']) json('camera', 'split', at('two.dcp'), '--light', light, '-o', at(`${light}.dcp`));
    expect((json('camera', 'info', at('2.dcp')) as typeof whole).tags.ColorMatrix1).toEqual(whole.tags.ColorMatrix2);
    expect(
      (json('camera', 'merge', at('1.dcp'), at('2.dcp'), '-o', at('merged.dcp')) as typeof whole).tags.ForwardMatrix2,
    ).toEqual(whole.tags.ForwardMatrix2);
    expect(
      (
        json('camera', 'convert', at('two.dcp'), '--kelvin', '5500', '-o', at('in.icc')) as {
          residual: { meanDeltaE: number };
        }
      ).residual.meanDeltaE,
    ).toBeLessThan(1);
    expect(json('icc', 'info', at('in.icc'))).toMatchObject({ class: 'input', space: 'RGB' });
    expect(refusal('camera', 'merge', at('1.dcp'), at('1.dcp'), '-o', at('x.dcp')).code).toBe('camera-illuminant');
    expect(refusal('camera', 'split', at('1.dcp'), '--light', '2', '-o', at('x.dcp')).code).toBe('camera-illuminant');
  });
});

describe('look', () => {
  test('info says what the file is, and that its encoding is assumed', () =>
    expect(json('look', 'info', at('amber.cube'))).toMatchObject({
      format: 'cube',
      kind: '3d',
      size: 33,
      title: 'Amber Proscenium',
      domain: { min: [0, 0, 0], max: [1, 1, 1] },
      encoding: { assumed: true },
      warnings: [],
    }));
  test('eval gives triples in the order of the points, clamped to the domain, with strength', () => {
    const evaluate = sampler(readCube(readFileSync(at('amber.cube'))), 'trilinear', 0.5);
    const out = new Float64Array(3);
    const got = json(
      'look',
      'eval',
      at('amber.cube'),
      '--points',
      at('p.json'),
      '--interpolation',
      'trilinear',
      '--strength',
      '50',
    ) as number[][];
    points.forEach((point, i) => {
      evaluate(must(point[0]), must(point[1]), must(point[2]), out, 0);
      must(got[i]).forEach((v, c) => expect(v).toBe(out[c]));
    });
    expect(
      (json('look', 'eval', at('amber.cube'), '--points', at('p.json'), '--strength', '0') as number[][])[2],
    ).toEqual([1, 0, 0.4]);
  });
  test('convert resamples with the residual, same tells alike from unlike', () => {
    expect(
      (
        json('look', 'convert', at('amber.cube'), '-o', at('small.cube'), '--size', '25', '--title', 'New') as {
          residual: { maxDeltaE: number };
        }
      ).residual.maxDeltaE,
    ).toBeGreaterThan(0);
    expect(json('look', 'info', at('small.cube'))).toMatchObject({ size: 25, title: 'New' });
    expect(json('look', 'same', at('amber.cube'), at('small.cube'))).toMatchObject({ same: true });
    expect(json('look', 'same', at('amber.cube'), at('slate.cube'))).toMatchObject({ same: false });
    json('look', 'convert', at('small.cube'), '-o', at('x.clf'));
    expect(readFileSync(at('x.clf'), 'utf8')).toContain('dim="25 25 25 3"');
  });
  test.each([8, 16])('apply keeps depth (%d bits), alpha and profile, and rounds half up', async (bits) => {
    const width = 7;
    const height = 5;
    const top = bits === 8 ? 255 : 65535;
    const data = bits === 8 ? new Uint8Array(width * height * 4) : new Uint16Array(width * height * 4);
    for (let i = 0; i < data.length; i++) data[i] = (i * 2654435761) % (top + 1);
    const { encodePng } = await import('@/server/pictures/png');
    const icc = Buffer.from(
      await sharp({ create: { width: 1, height: 1, channels: 3, background: '#888' } })
        .withIccProfile('srgb')
        .png()
        .toBuffer()
        .then((b) => sharp(b).metadata())
        .then((m) => must(m.icc)),
    );
    writeFileSync(at('in.png'), encodePng(width, height, 4, data, icc));
    json('look', 'apply', at('amber.cube'), at('in.png'), '-o', at('out.png'), '--force');
    const out = decode(readFileSync(at('out.png')));
    const evaluate = sampler(readCube(readFileSync(at('amber.cube'))));
    const values = new Float64Array(3);
    expect([out.width, out.height, out.depth, out.channels]).toEqual([width, height, bits, 4]);
    expect(Buffer.from(must(out.iccEmbeddedProfile).profile).equals(icc)).toBe(true);
    for (let i = 0; i < data.length; i += 4) {
      evaluate(must(data[i]) / top, must(data[i + 1]) / top, must(data[i + 2]) / top, values, 0);
      for (let c = 0; c < 3; c++)
        expect(out.data[i + c]).toBe(Math.floor(Math.min(1, Math.max(0, must(values[c]))) * top + 0.5));
      expect(out.data[i + 3]).toBe(data[i + 3]);
    }
    json('look', 'apply', at('amber.cube'), at('in.png'), '-o', at('out.tif'), '--force');
    const tif = await sharp(at('out.tif'), { ignoreIcc: true })
      .toColourspace(bits === 8 ? 'srgb' : 'rgb16')
      .raw({ depth: bits === 8 ? 'uchar' : 'ushort' })
      .toBuffer();
    expect(Buffer.from(out.data.buffer, out.data.byteOffset, out.data.byteLength).equals(tif)).toBe(true);
  });
  test('compose, blend and invert: one after the other, mixed, and undone where that can be', () => {
    const evaluate = (f: string) => json('look', 'eval', at(f), '--points', at('p.json')) as number[][];
    const [before, after] = [evaluate('amber.cube'), evaluate('slate.cube')];
    expect(
      (
        json('look', 'compose', at('amber.cube'), at('slate.cube'), '-o', at('both.cube'), '--size', '33') as {
          residual: { meanDeltaE: number };
        }
      ).residual.meanDeltaE,
    ).toBeLessThan(0.5);
    writeFileSync(at('a.json'), JSON.stringify(before));
    const both = json('look', 'eval', at('slate.cube'), '--points', at('a.json')) as number[][];
    evaluate('both.cube')
      .slice(0, 2)
      .forEach((v, i) => v.forEach((x, c) => expect(Math.abs(x - must(must(both[i])[c]))).toBeLessThan(0.02)));
    json('look', 'blend', at('amber.cube'), at('slate.cube'), '--share', '0.25', '-o', at('mix.clf'));
    evaluate('mix.clf')
      .slice(0, 2)
      .forEach((values, i) =>
        values.forEach((x, c) =>
          expect(Math.abs(x - (0.75 * must(must(before[i])[c]) + 0.25 * must(must(after[i])[c])))).toBeLessThan(0.01),
        ),
      );
    const undone = json('look', 'invert', at('slate.cube'), '-o', at('back.cube'), '--size', '17') as {
      residual: { meanDeltaE: number };
      unreached: number;
    };
    expect(undone.residual.meanDeltaE).toBeGreaterThan(0);
    expect(undone.unreached).toBeGreaterThanOrEqual(0);
    json('look', 'compose', at('slate.cube'), at('back.cube'), '-o', at('nothing.cube'));
    must(evaluate('nothing.cube')[0]).forEach((v, c) =>
      expect(Math.abs(v - must(must(points[0])[c]))).toBeLessThan(0.05),
    );
    expect(refusal('look', 'blend', at('amber.cube'), at('slate.cube'), '--share', '2', '-o', at('x.cube')).where).toBe(
      '--share',
    );
    expect(refusal('look', 'compose', at('amber.cube'), at('slate.cube'), '-o', at('x.png')).code).toBe('look-format');
  });
  test('to ICC and back', () => {
    for (const as of ['link', 'abstract']) {
      expect(
        (
          json('look', 'convert', at('slate.cube'), '-o', at(`${as}.icc`), '--class', as) as {
            residual: { meanDeltaE: number };
          }
        ).residual.meanDeltaE,
      ).toBeLessThan(1);
      expect(json('icc', 'info', at(`${as}.icc`))).toMatchObject({ class: as, description: 'Slate Backcloth' });
    }
    json('look', 'convert', at('link.icc'), '-o', at('again.cube'));
    expect(json('look', 'same', at('slate.cube'), at('again.cube'))).toMatchObject({ same: true });
  });
  test('refuses with code, place and remedy, and exit status 2', () => {
    writeFileSync(at('bad.cube'), 'LUT_3D_SIZE 2\n0 0 0\n0 x 0\n');
    expect(refusal('look', 'info', at('bad.cube'))).toMatchObject({ code: 'cube-number', where: 'line 3' });
    expect(refusal('look', 'info', at('nowhere.cube')).code).toBe('file-unreadable');
    expect(refusal('look', 'eval', at('amber.cube'), '--points', at('p.json'), '--strength', '900').where).toBe(
      '--strength',
    );
    expect(refusal('look', 'eval', at('amber.cube'), '--points', at('amber.cube')).code).toBe('points-json');
    expect(refusal('look', 'info', '--nonsense').code).toBe('usage');
    expect(refusal('nothing', 'here').code).toBe('usage');
  });
  test('nothing is overwritten unasked', () => {
    writeFileSync(at('mine.cube'), 'by hand');
    expect(refusal('look', 'convert', at('slate.cube'), '-o', at('mine.cube')).code).toBe('output-exists');
    expect(readFileSync(at('mine.cube'), 'utf8')).toBe('by hand');
    writeFileSync(at('empty.cube'), '');
    json('look', 'convert', at('slate.cube'), '-o', at('empty.cube')); // nothing is lost
    json('look', 'convert', at('slate.cube'), '-o', at('mine.cube'), '--force');
    expect(json('look', 'info', at('mine.cube'))).toMatchObject({ title: 'Slate Backcloth' });
  });
  test('several files and patterns give one result a file, and one that fails does not stop the rest', () => {
    mkdirSync(at('several'));
    for (const name of ['a.cube', 'c.cube']) writeFileSync(at(`several/${name}`), readFileSync(at('slate.cube')));
    writeFileSync(at('several/b.cube'), 'x');
    const got = run('look', 'info', at('several/*.cube'), '--json');
    expect(got.status).toBe(2);
    expect(JSON.parse(got.stderr)).toMatchObject({
      error: { where: expect.stringContaining(at('several/b.cube')) as string },
    });
    expect(JSON.parse(got.stdout)).toMatchObject([
      { file: at('several/a.cube'), size: 17 },
      null,
      { file: at('several/c.cube'), size: 17 },
    ]);
    expect(refusal('look', 'info', at('several/*.clf')).code).toBe('file-unreadable');
    const several = [at('several/a.cube'), at('several/c.cube')];
    expect(refusal('look', 'convert', ...several, '-o', at('one.clf')).message).toMatch(/Several files/);
    json('look', 'convert', ...several, '-o', `${at('several/clf')}/`, '--format', 'clf');
    expect(readdirSync(at('several/clf'))).toEqual(['a.clf', 'c.clf']);
  });
  test('standard input and output take the place of files', () => {
    const input = readFileSync(at('slate.cube'));
    const piped = spawnSync('bin/etagere', ['look', 'convert', '-', '-o', '-', '--format', 'clf'], { input });
    expect(piped.status).toBe(0);
    expect(piped.stdout.toString()).toContain('dim="17 17 17 3"');
    expect(piped.stderr.toString()).toContain('residual');
    const given = spawnSync('bin/etagere', ['look', 'eval', at('slate.cube'), '--points', '-', '--json'], {
      input: '[[0,0,0]]',
      encoding: 'utf8',
    });
    expect(JSON.parse(given.stdout)).toHaveLength(1);
    expect(refusal('look', 'convert', at('slate.cube'), '-o', '-', '--format', 'clf').where).toBe('--json');
    expect(run('look', 'convert', at('slate.cube'), '-o', '-').stderr).toContain('--format');
  });
  test('people read text', () => {
    const { stdout } = run('look', 'info', at('slate.cube'));
    expect(stdout).toMatch(/^format +cube$/m);
    expect(stdout).toMatch(/^encoding\n {2}primaries +sRGB$/m);
    expect(run('look', 'eval', at('slate.cube'), '--points', at('p.json')).stdout.trim().split('\n')).toHaveLength(3);
  });
  test('answers soon, at the best of three tries, on a machine that has other work too', () => {
    const tries = [1, 2, 3].map(() => {
      const begun = Date.now();
      run('look', 'info', at('slate.cube'));
      return Date.now() - begun;
    });
    expect(Math.min(...tries)).toBeLessThan(5000);
  });
});

describe('charts, identities and matches', () => {
  const settled = ['--size', '5'];
  test('a chart goes through a known look as a picture of 16 bits, and comes back as that look', () => {
    expect(json('chart', 'make', ...settled, '--id', '77', '-o', at('chart.png'))).toMatchObject({
      size: 5,
      kind: '16 bits',
      id: 77,
    });
    json('look', 'apply', at('slate.cube'), at('chart.png'), '-o', at('back.png'));
    const made = json('chart', 'read', at('back.png'), '-o', at('returned.cube')) as {
      noise: number;
      validFor: string;
    };
    expect(made).toMatchObject({ noise: 0, repaired: [], warnings: [], validFor: 'rendered files' });
    json('look', 'convert', at('slate.cube'), '--size', '5', '-o', at('slate5.cube'));
    expect(
      (json('look', 'same', at('slate5.cube'), at('returned.cube')) as { maxDeltaE: number }).maxDeltaE,
    ).toBeLessThan(0.2);
    expect(refusal('chart', 'read', at('back.png'), '--size', '9', '-o', at('n.cube')).code).toBe('chart-wrong');
    expect(refusal('chart', 'read', at('slate.cube'), '-o', at('n.cube')).code).toBe('chart-unreadable');
    expect(refusal('chart', 'make', '--size', '99', '-o', at('n.png')).where).toMatch(/size/);
    expect(refusal('chart', 'make', '-o', at('n.jpg')).code).toBe('picture-format');
    expect(refusal('chart', 'make', '--camera', at('none.dcp'), '-o', at('n.dng')).code).toBe('file-unreadable');
    expect(refusal('chart', 'make', '--hald', '1', '-o', at('n.png')).where).toMatch(/size|hald/);
  });
  test('another color space is told from the profile, and loss from the format', async () => {
    json('chart', 'make', ...settled, '--bits', '8', '-o', at('chart8.tif'));
    await sharp(at('chart8.tif')).withIccProfile('p3').png().toFile(at('wide.png'));
    expect(refusal('chart', 'read', at('wide.png'), '-o', at('n.cube')).code).toBe('chart-color-space');
    await sharp(at('chart8.tif')).jpeg({ quality: 90 }).toFile(at('lossy.jpg'));
    const made = json('chart', 'read', at('lossy.jpg'), '-o', at('lossy.cube')) as { warnings: { code: string }[] };
    expect(made.warnings.map(({ code }) => code)).toEqual(['chart-lossy']);
    await sharp(at('chart8.tif')).rotate(180).png().toFile(at('turned.png'));
    expect(refusal('chart', 'read', at('turned.png'), '-o', at('n.cube')).code).toBe('chart-rotated');
  });
  test('an identity changes nothing, as a table and as a Hald image, which reads as one with fewer checks', () => {
    json('look', 'identity', '--size', '7', '-o', at('same.cube'));
    const points = JSON.parse(readFileSync(at('p.json'), 'utf8')) as number[][];
    (json('look', 'eval', at('same.cube'), '--points', at('p.json')) as number[][]).forEach((triple, i) =>
      triple.forEach((value, c) => expect(value).toBeCloseTo(Math.min(1, Math.max(0, must(must(points[i])[c]))), 5)),
    );
    json('look', 'identity', '--hald', '4', '-o', at('hald.png'));
    const made = json('chart', 'read', at('hald.png'), '-o', at('hald.cube')) as { warnings: { code: string }[] };
    expect(made.warnings.map(({ code }) => code)).toEqual(['chart-plain']);
    expect((json('look', 'same', at('same.cube'), at('hald.cube')) as { maxDeltaE: number }).maxDeltaE).toBeLessThan(
      0.01,
    );
    expect(refusal('look', 'identity', '--size', '33', '-o', at('n.png')).code).toBe('hald-size');
  });
  test('a chart of camera data is a linear DNG of that camera, whose colors are the chart’s', () => {
    writeFileSync(at('alder.dcp'), writeDcp(profileFor(must(cameras[0]), 'Standard', 'Alder')));
    const made = json('chart', 'make', ...settled, '--camera', at('alder.dcp'), '-o', at('chart.dng'));
    expect(made).toMatchObject({ kind: 'camera data', camera: 'Perrin Alder' });
    const dng = readDng(new Uint8Array(readFileSync(at('chart.dng'))));
    expect([dng.cfa, dng.width]).toEqual([null, (made as { width: number }).width]);
    // the patch before the code is middle gray: the camera's neutral, times that
    const { samples } = fullSamples(dng);
    const gray = (24 * dng.width + 3 * 16 + 8) * 3;
    const values = [0, 1, 2].map((c) => must(samples[gray + c]) / 65535 / must(dng.neutral[c]));
    for (const value of values) expect(value).toBeCloseTo(0.214, 2);
  });
  test('a lens database is told, matched, mapped through, converted and compared', () => {
    writeFileSync(at('bureau.xml'), lensDatabase());
    writeFileSync(
      at('corners.json'),
      JSON.stringify([
        [0, 0],
        [2999.5, 1999.5],
        [5999, 3999],
      ]),
    );
    const zoom = ['--camera', 'Perrin Alder', '--lens', 'Perrin 24-70 mm f/4'];
    const picture = ['--width', '6000', '--height', '4000'];
    const mapped = [...zoom, ...picture, '--points', at('corners.json')];
    expect(json('lens', 'info', at('bureau.xml'))).toMatchObject({ release: '2026-10', cameras: { length: 3 } });
    expect(json('lens', 'match', at('bureau.xml'), ...zoom, '--focal', '35')).toMatchObject([{ confidence: 1 }]);
    // the demo's zoom draws its corner in by 3.1 % at 24 mm: that is where it lies in the photo
    const radius = Math.hypot(2999.5, 1999.5) / Math.hypot(3000, 2000);
    const [corner] = json(
      'lens',
      'map',
      at('bureau.xml'),
      ...mapped,
      '--focal',
      '24',
      '--direction',
      'to-distorted',
    ) as number[][];
    expect(corner?.[0]).toBeCloseTo(2999.5 * 0.031 * radius ** 2, 2);
    const ideal = json('lens', 'map', at('bureau.xml'), ...mapped, '--focal', '24') as number[][];
    writeFileSync(at('ideal.json'), JSON.stringify(ideal));
    const again = [...zoom, ...picture, '--points', at('ideal.json'), '--focal', '24', '--direction', 'to-distorted'];
    const back = json('lens', 'map', at('bureau.xml'), ...again) as number[][];
    expect(back.flat()).toEqual([0, 0, 2999.5, 1999.5, 5999, 3999].map((value) => expect.closeTo(value, 3) as number));
    const gains = json(
      'lens',
      'vignetting',
      at('bureau.xml'),
      ...mapped,
      '--focal',
      '24',
      '--aperture',
      '4',
    ) as number[];
    expect(gains[0]).toBeGreaterThan(must(gains[1]) * 2);
    const converted = ['--to', 'odd5', '--direction', 'to-ideal', ...picture, '-o', at('other.xml')];
    for (const { maxPixels } of json('lens', 'convert', at('bureau.xml'), ...converted) as { maxPixels: number }[])
      expect(maxPixels).toBeLessThan(2);
    const { changed } = json('lens', 'diff', at('bureau.xml'), at('other.xml'), ...picture) as {
      changed: { maxPixels: number }[];
    };
    expect(changed).toHaveLength(4);
    for (const { maxPixels } of changed) expect(maxPixels).toBeLessThan(2);
  });
  test('what a lens database does not say of a photo is refused, and so is what is typed wrongly', () => {
    writeFileSync(at('middle.json'), '[[1, 2]]');
    const zoom = [
      '--lens',
      'Perrin 24-70 mm f/4',
      '--width',
      '6000',
      '--height',
      '4000',
      '--points',
      at('middle.json'),
    ];
    const refused = (...more: string[]) => refusal('lens', 'map', at('bureau.xml'), ...zoom, ...more);
    expect(refused('--camera', 'Perrin Alder', '--focal', '85').message).toContain('from 24 mm to 70 mm');
    expect(refused('--camera', 'Somebody’s', '--focal', '50').message).toContain('the camera’s sensor is not known');
    expect(refused('--camera', 'Ondine 40', '--focal', '50').message).toContain('smaller sensor');
    expect(refused('--focal', '50').where).toBe('--camera');
    expect(refused('--camera', 'Perrin Alder', '--focal', 'wide').where).toBe('--focal');
    const likely = refusal(
      'lens',
      'map',
      at('bureau.xml'),
      '--camera',
      'Perrin Alder',
      '--lens',
      '50 mm f/2 Quiet',
      ...zoom.slice(2),
    );
    expect([likely.code, likely.message]).toEqual([
      'lens-unknown',
      expect.stringContaining('Perrin 50 mm f/2, which is like it'),
    ]);
    writeFileSync(at('triples.json'), '[[1, 2, 3]]');
    const triples = [...zoom.slice(0, 6), '--points', at('triples.json'), '--camera', 'Perrin Alder', '--focal', '24'];
    expect(refusal('lens', 'map', at('bureau.xml'), ...triples).code).toBe('points-json');
    expect(refusal('lens', 'info', at('middle.json')).code).toBe('xml-malformed');
  });
  test('what a frame carries of its lens is followed plane by plane, and back', () => {
    const numbers = [1, -0.1, 0, 0, 0, 0, 0.5, 0.5];
    const list = new DataView(new ArrayBuffer(4 + 16 + 4 + 8 * numbers.length));
    for (const [n, value] of [1, 1, 0x01030000, 0, 4 + 8 * numbers.length, 1].entries()) list.setUint32(n * 4, value);
    for (const [n, value] of numbers.entries()) list.setFloat64(24 + n * 8, value);
    writeFileSync(at('opcodes.bin'), new Uint8Array(list.buffer));
    writeFileSync(at('one.json'), '[[300, 400]]');
    const of = ['--opcodes', at('opcodes.bin'), '--plane', '0', '--width', '301', '--height', '401', '--points'];
    const there = json('lens', 'map', ...of, at('one.json'));
    expect(there).toEqual([[expect.closeTo(285, 9), expect.closeTo(380, 9)]]);
    writeFileSync(at('there.json'), JSON.stringify(there));
    expect(json('lens', 'map', ...of, at('there.json'), '--direction', 'to-ideal')).toEqual([
      [expect.closeTo(300, 6), expect.closeTo(400, 6)],
    ]);
    const wrongly = (...more: string[]) => refusal('lens', 'map', ...of, at('one.json'), ...more).where;
    expect([wrongly('--plane', '0.5'), wrongly('--width', '4500.5'), wrongly('--height', '-0.05')]).toEqual([
      '--plane',
      '--width',
      '--height',
    ]);
    expect(refusal('lens', 'map', at('bureau.xml'), ...of, at('one.json')).where).toBe('--opcodes');
    expect(refusal('lens', 'vignetting', ...of.slice(0, 2), ...of.slice(4), at('one.json')).code).toBe(
      'opcodes-no-vignette',
    );
  });
  test('two frames of one scene are matched, patch by patch', async () => {
    const squares = Buffer.from(
      Array.from({ length: 30 * 20 }, (_, i) => [
        40 + ((i * 37) % 180),
        40 + ((i * 61) % 180),
        40 + ((i * 97) % 180),
      ]).flat(),
    );
    const scene = sharp(squares, { raw: { width: 30, height: 20, channels: 3 } }).resize(300, 200, {
      kernel: 'nearest',
    });
    await scene.clone().png().toFile(at('one.png'));
    await scene
      .clone()
      .recomb([
        [0.85, 0.1, 0.05],
        [0.05, 0.9, 0],
        [0, 0.15, 0.8],
      ])
      .png()
      .toFile(at('other.png'));
    const made = json('look', 'match', at('one.png'), at('other.png'), '-o', at('match.cube')) as {
      before: { mean: number };
      after: { mean: number };
      patches: unknown[];
    };
    expect(made.after.mean).toBeLessThan(made.before.mean / 2);
    expect(made.patches.length).toBeGreaterThan(400);
    await sharp({ create: { width: 60, height: 40, channels: 3, background: '#000' } })
      .png()
      .toFile(at('black.png'));
    expect(refusal('look', 'match', at('black.png'), at('black.png'), '-o', at('n.cube')).code).toBe('match-patches');
  });
});

describe('preset and pack', () => {
  test('read, render and bake take editors’ files and our own', () => {
    expect(json('preset', 'read', at('x.xmp'))).toMatchObject({
      editor: 'oxbow',
      version: '2',
      name: 'Rehearsal Room',
      settings: { level: 0.3, lowChroma: 14 },
      unknown: {},
    });
    expect(refusal('preset', 'read', at('x.xmp'), '--editor', 'marlstone@3').code).toBe('preset-language');
    expect(
      must((json('preset', 'render', at('a.settings.json'), '--points', at('p.json')) as number[][])[0])[1],
    ).toBeCloseTo(0.68584, 4);
    const baked = json(
      'preset',
      'bake',
      at('x.xmp'),
      '--size',
      '17',
      '-o',
      at('b.cube'),
      '--settings',
      'level,contrast',
    ) as { residual: { meanDeltaE: number }; left: { setting: string; reason: string }[] };
    expect(baked.left.map((l) => [l.setting, l.reason])).toContainEqual(['lowChroma', 'was not chosen']);
    expect(baked.left.map((l) => l.setting)).toContain('sharpening');
    expect(json('look', 'info', at('b.cube'))).toMatchObject({ size: 17 });
    writeFileSync(at('bad.settings.json'), '{"level": 40, "colour": 1}');
    expect(refusal('preset', 'bake', at('bad.settings.json'), '-o', at('c.cube')).message).toMatch(
      /level must be a number from -10 to 10\..*colour is not a common setting/,
    );
  });
  test('write makes an editor’s preset of common settings, which reads as they were', () => {
    const settings = { level: 0.5, contrast: 1.2, grain: 20, matrix: [1, 0, 0, 0, 1, 0, 0, 0.1, 0.9] };
    writeFileSync(at('dusk.settings.json'), JSON.stringify({ name: 'Dusk', settings }));
    const made = json('preset', 'write', at('dusk.settings.json'), '--to', 'tessel@7', '-o', at('dusk.json'));
    expect(made).toMatchObject({
      written: ['level', 'contrast', 'grain'],
      left: [{ setting: 'matrix', reason: 'it has no such setting' }],
    });
    expect(json('preset', 'read', at('dusk.json'))).toMatchObject({
      editor: 'tessel',
      version: '7',
      name: 'Dusk',
      settings: { level: 0.5, contrast: 1.2, grain: 20 },
    });
    const titled = ['--to', 'marlstone@3', '--title', 'Late Dusk', '-o', at('dusk.mpreset')];
    json('preset', 'write', at('dusk.settings.json'), ...titled);
    expect(json('preset', 'read', at('dusk.mpreset'))).toMatchObject({ name: 'Late Dusk', editor: 'marlstone' });
    expect(refusal('preset', 'write', at('dusk.settings.json'), ...titled).code).toBe('output-exists');
    expect(refusal('preset', 'write', at('dusk.settings.json'), '-o', at('n')).remedy).toContain('oxbow@2');
    expect(refusal('preset', 'write', at('dusk.settings.json'), '--to', 'no@1', '-o', at('n')).code).toBe(
      'editor-unknown',
    );
  });
  test('convert says of each setting what became of it; an editor that does not ship is named by its descriptor', () => {
    expect(json('preset', 'convert', at('x.xmp'), '--to', 'tessel@7', '-o', at('x.tessel.json'))).toMatchObject({
      carried: expect.arrayContaining(['level', 'contrast']) as string[],
      approximated: [
        { setting: 'toe', figure: expect.any(Number) as number, reason: 'Tessel 7 has it as a curve' },
        { setting: 'shoulder' },
      ],
      left: [{ setting: 'localContrast', reason: 'Tessel 7 has no such setting' }],
    });
    const lantern = {
      ...(JSON.parse(readFileSync('standins/descriptors/oxbow-2.json', 'utf8')) as object),
      editor: 'lantern',
      version: '1',
      title: 'Lantern',
      presets: {
        container: 'ini',
        recognise: { section: '.', key: 'program', value: 'lantern' },
        template: 'program=lantern\n',
        mapping: { ignore: ['.'], entries: [{ step: '.', attribute: 'stops', to: 'level' }] },
      },
    };
    writeFileSync(at('lantern.json'), JSON.stringify(lantern));
    const named = ['--descriptor', at('lantern.json')];
    json('preset', 'convert', at('x.xmp'), '--to', 'lantern@1', ...named, '-o', at('x.lantern'));
    expect(readFileSync(at('x.lantern'), 'utf8')).toBe('program=lantern\nstops=0.3\n');
    expect(json('preset', 'read', at('x.lantern'), ...named)).toMatchObject({
      editor: 'lantern',
      settings: { level: 0.3 },
    });
  });
  test('inspect lists entries, refusals and what is left out', () => {
    writeFileSync(at('pack.zip'), fathomPack());
    const got = json('pack', 'inspect', at('pack.zip')) as {
      entries: { path: string; kind: string; sha256: string }[];
      refused: { path: string; code: string }[];
    };
    expect(
      Object.fromEntries(
        ['look', 'preset', 'document', 'unknown'].map((k) => [k, got.entries.filter((e) => e.kind === k).length]),
      ),
    ).toEqual({ look: 9, preset: 4, document: 1, unknown: 1 });
    expect(got.refused).toMatchObject([
      { path: 'Fathom Color - Stage set/Tables/Size White.cube', code: 'cube-rows-missing' },
    ]);
    writeFileSync(at('cut.zip'), readFileSync(at('pack.zip')).subarray(0, 5000));
    expect(refusal('pack', 'inspect', at('cut.zip')).code).toBe('zip-truncated');
    // larger than can be held at once: it is walked where it lies
    writeFileSync(at('large.zip'), '');
    truncateSync(at('large.zip'), 2.3e9);
    expect(refusal('pack', 'inspect', at('large.zip')).code).toBe('zip-truncated');
    expect(refusal('pack', 'inspect', tmpdir()).code).toBe('file-unreadable');
  });
  test('the pages written from the code are up to date', () => {
    expect(run('docs', 'settings').stdout).toBe(readFileSync('docs/common-settings.md', 'utf8'));
    expect(run('docs', 'three-way').stdout).toBe(readFileSync('docs/three-way.md', 'utf8'));
  });
});
