/** Eight presets of usual strength, smooth in color: a table of 33 points is as good as the settings themselves. */
import { readdirSync, readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { parseDescriptor } from '@/core/editor/descriptor';
import { bake, bakeResidual } from '@/core/preset/bake';
import { readPreset } from '@/core/recognise/presets';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';

const folder = 'demo/precision';
const files = readdirSync(folder).filter((name) => name.endsWith('.xmp'));
const descriptors = [parseDescriptor(oxbow2)];

test('there are eight', () => {
  expect(files).toHaveLength(8);
});

test.each(files)('%s at 33 points: mean ΔE00 at most 0.1, largest at most 1', (name) => {
  const { read } = readPreset(name, readFileSync(`${folder}/${name}`), descriptors);
  expect(Object.keys(read.settings).length).toBeGreaterThan(1);
  expect(read.unknown).toEqual({});
  const { meanDeltaE, maxDeltaE } = bakeResidual(bake(read.settings, 33, read.name));
  expect(meanDeltaE).toBeLessThanOrEqual(0.1);
  expect(maxDeltaE).toBeLessThanOrEqual(1);
});
