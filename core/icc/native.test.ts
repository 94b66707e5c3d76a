/** Against the native Little CMS (Debian's transicc, which bin/test installs): the same colors, ΔE00 ≤ 0.05. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from 'vitest';
import { profileOf } from '../camera/dcp';
import { deltaE2000 } from '../color/difference';
import { haltonPoints } from '../look/residual';
import { made } from '../camera/testing';
import { compile } from '../preset/render';
import { pale } from '../preset/testing';
import { toAbstract, toDeviceLink, toInputProfile } from './convert';
import { once } from './transform';

const dir = mkdtempSync(join(tmpdir(), 'etagere-icc-'));
const created = new Date('2026-03-04T05:06:07Z');
const points = haltonPoints(400);
const evaluate = compile(pale);
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** Colors through transicc: RGB is 0…255 there. */
function native(args: string[], values: ArrayLike<number>, scale: number): number[] {
  const lines = Array.from({ length: values.length / 3 }, (_, i) =>
    [0, 1, 2].map((c) => (values[i * 3 + c]! * scale).toFixed(6)).join(' '),
  ).join('\n');
  const result = spawnSync('transicc', ['-n', '-c0', ...args], {
    input: `${lines}\n`,
    encoding: 'utf8',
    maxBuffer: 1 << 26,
  });
  const out = result.stdout
    .trim()
    .split('\n')
    .flatMap((l) => l.trim().split(/\s+/).map(Number));
  if (out.length !== values.length || out.some((v) => !Number.isFinite(v)))
    throw new Error(`transicc: ${result.stderr.slice(0, 300)} ${result.stdout.slice(0, 200)}`);
  return out;
}
const worst = (one: ArrayLike<number>, other: ArrayLike<number>): number => {
  let most = 0;
  for (let i = 0; i < one.length; i += 3)
    most = Math.max(most, deltaE2000(one[i]!, one[i + 1]!, one[i + 2]!, other[i]!, other[i + 1]!, other[i + 2]!));
  return most;
};

describe('ICC against the native library', () => {
  test.each([
    ['relative', '1'],
    ['perceptual', '0'],
    ['absolute', '3'],
  ] as const)('sRGB to Lab, %s', async (intent, type) => {
    expect(
      worst(await once('srgb', 'lab', points, intent), native(['-i*sRGB', '-o*Lab', `-t${type}`], points, 255)),
    ).toBeLessThan(0.05);
  });
  test('an input profile of a table to Lab', async () => {
    const { bytes } = await toInputProfile(profileOf(made()), 5200, {
      title: 'Ondine',
      created,
      grid: 17,
    });
    const file = join(dir, 'input.icc');
    writeFileSync(file, bytes);
    const ours = await once(bytes, 'lab', points);
    const theirs = native([`-i${file}`, '-o*Lab', '-t1'], points, 255);
    expect(worst(ours, theirs)).toBeLessThan(0.05);
    expect(worst(ours, native(['-i*sRGB', '-o*Lab', '-t1'], points, 255))).toBeGreaterThan(2); // and not just anything
  });
  test('a device link, and an abstract profile', async () => {
    const link = join(dir, 'link.icc');
    const made = await toDeviceLink(evaluate, { title: 'Link', created, grid: 17 });
    writeFileSync(link, made.bytes);
    const ours = await once(made.bytes, null, points);
    const theirs = native([`-l${link}`, '-t1'], points, 255).map((v) => v / 255);
    expect(Math.max(...theirs.map((v, i) => Math.abs(v - ours[i]!)))).toBeLessThan(2e-4);
    const abstract = join(dir, 'abstract.icc');
    const converted = await toAbstract(evaluate, { title: 'Abstract', created, grid: 17 });
    const lab = await once('srgb', 'lab', points);
    writeFileSync(abstract, converted.bytes);
    expect(
      worst(await once(converted.bytes, 'lab', lab), native([`-i${abstract}`, '-o*Lab', '-t1'], lab, 1)),
    ).toBeLessThan(0.05);
  });
});
