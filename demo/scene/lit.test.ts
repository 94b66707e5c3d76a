import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encode } from 'fast-png';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { colorist, litScene, type Shade } from './lit';

const folder = mkdtempSync(join(tmpdir(), 'etagere-layers-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** Light as it is stored: 12-bit square roots of up to 4.0. */
const stored = (light: number): number => Math.round(4095 * Math.sqrt(light / 4));
const save = (file: string, width: number, data: Uint8Array | Uint16Array, channels: 1 | 4 = 1) =>
  writeFileSync(
    join(folder, `costume.${file}.png`),
    encode({ width, height: 1, data, channels, depth: data instanceof Uint16Array ? 16 : 8 }),
  );

// two places of light, a dark one of material 1 and a bright one of material 2; eight pixels, the edge between the third and the fourth
const LIGHT = [0.25, 1];
const MATERIALS = [1, 1, 1, 2, 2, 2, 2, 2];
beforeAll(() => {
  save('lit', 2, Uint8Array.of(1, 1, 255, 0, 2, 2, 255, 0), 4);
  for (const kind of ['light0', 'light1', 'dome']) {
    save(`${kind}.irradiance`, 2, Uint16Array.from(kind === 'light0' ? LIGHT : [0, 0], stored));
    save(`${kind}.specular`, 2, Uint16Array.of(0, 0));
  }
  save('surfaces', 8, Uint8Array.from(MATERIALS.flatMap((material) => [material, material, 255, 0])), 4);
  save('pattern', 8, new Uint8Array(8));
});

test('light is brought up along surfaces and bleeds over no edge, wherever the edge lies', () => {
  const scene = litScene(folder, 'costume');
  expect([scene.width, scene.height, scene.kinds]).toEqual([8, 1, 3]);
  const light = [...scene.row(0).irradianceA[0]!];
  for (const [x, value] of light.entries()) expect(value).toBeCloseTo(MATERIALS[x] === 1 ? 0.25 : 1, 1);
});

test('what comes from a place is its color under each light', () => {
  const row = litScene(folder, 'costume').row(0);
  const dark = [0, 0, 0];
  const flat = (value: number): Shade => {
    const lit = [[value, value, value], dark, dark];
    return { a: lit, b: lit, shine: 0 };
  };
  const shades = [undefined, flat(0.5), flat(0.1)];
  const bare = Array.from({ length: 3 }, () => [1, 1, 1]);
  const colors = new Float32Array(8 * 3);
  colorist(shades, bare)(row, colors);
  expect([...colors.slice(0, 3)].map((value) => Math.round(value * 100))).toEqual([13, 13, 13]);
  expect([...colors.slice(21)].map((value) => Math.round(value * 100))).toEqual([10, 10, 10]);
});
