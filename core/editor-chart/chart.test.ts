/** Charts that come back: through known colors they read as these; whatever was done besides is told, and clean ones pass. */
import sharp, { type Sharp } from 'sharp';
import { describe, expect, test } from 'vitest';
import { evaluateOf } from '../preset/apply';
import type { Settings } from '../preset/kinds';
import { faded, pale, settingsAtRandom, warm } from '../preset/testing';
import { Problem } from '../problem';
import { seeded } from '../random';
import { tries } from '../tries';
import { residual } from '../look/residual';
import { sampler } from '../look/sample';
import type { ChartImage } from './image';
import { codeBits, layoutOf, nameOfBits, PATCH, ROLE, type ChartName } from './layout';
import { makeChart } from './make';
import { readChart } from './read';

const name = (size: number, kind: ChartName['kind'] = '16 bits'): ChartName => ({ size, kind, id: 4711 });

/** A chart as an editor of these settings would export it, clipped and rounded to its depth. */
function through(settings: Settings, size = 9, kind: ChartName['kind'] = '16 bits'): ChartImage {
  const { width, height, data, layout } = makeChart(name(size, kind));
  const top = kind === '8 bits' ? 255 : 65535;
  const evaluate = evaluateOf({ settings, look: null });
  const out = new Float64Array(3);
  const colors = new Uint16Array(layout.columns * layout.rows * 3);
  for (let patch = 0; patch < colors.length; patch += 3) {
    const [r, g, b] = [0, 1, 2].map((c) => Math.round(layout.colors[patch + c]! * top) / top);
    evaluate(r!, g!, b!, out, 0);
    for (let c = 0; c < 3; c++) colors[patch + c] = Math.floor(Math.min(1, Math.max(0, out[c]!)) * top + 0.5);
  }
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 3) {
      const patch = (Math.floor(y / PATCH) * layout.columns + Math.floor(x / PATCH)) * 3;
      for (let c = 0; c < 3; c++) data[i + c] = colors[patch + c]!;
    }
  return { width, height, channels: 3, data, top, lossy: false };
}

/** Plain loops: these arrays are large, and `from` with a function walks them by an iterator. */
function eightBits(data: Uint16Array): Uint8Array {
  const eight = new Uint8Array(data.length);
  for (let at = 0; at < eight.length; at++) eight[at] = Math.round(data[at]! / 257);
  return eight;
}
const toSharp = ({ width, height, data }: ChartImage): Sharp => {
  const eight = data instanceof Uint16Array ? eightBits(data) : data;
  return sharp(Buffer.from(eight), { raw: { width, height, channels: 3 } });
};

async function fromSharp(image: Sharp, lossy = false): Promise<ChartImage> {
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, channels: 3, data: new Uint8Array(data), top: 255, lossy };
}

function codeOf(run: () => unknown): string {
  try {
    run();
  } catch (error) {
    if (error instanceof Problem) {
      expect(error.remedy.length).toBeGreaterThan(10);
      return error.code;
    }
    throw error;
  }
  return 'read';
}
const read = (image: ChartImage): string => codeOf(() => readChart(image));

describe('a chart', () => {
  test('says its own name, with a check sum', () => {
    const own = { size: 33, kind: 'camera data' as const, id: 123456 };
    expect(nameOfBits(codeBits(own))).toEqual(own);
    const bits = codeBits(own);
    bits[20] = !bits[20];
    expect(nameOfBits(bits)).toBeNull();
  });
  test.each([2, 9, 17, 33])('of %d points has each of them once, probes, and colors in two surroundings', (size) => {
    const { role, index, columns, rows } = layoutOf(name(size));
    const points = [...role.keys()].filter((patch) => role[patch] === ROLE.point).map((patch) => index[patch]!);
    expect(new Set(points).size).toBe(size ** 3);
    expect(points).toHaveLength(size ** 3);
    expect(role.filter((one) => one === ROLE.probe)).toHaveLength(512);
    expect(columns).toBeGreaterThan(rows);
    for (const surrounding of [ROLE.dark, ROLE.bright])
      expect([...role.keys()].filter((patch) => role[patch] === surrounding && index[patch]! >= 0)).toHaveLength(
        4 * 12,
      );
  });
  test('has no more points than anybody needs, nor fewer than two', () => {
    expect(codeOf(() => layoutOf(name(1)))).toBe('chart-size');
    expect(codeOf(() => layoutOf(name(66)))).toBe('chart-size');
    expect(codeOf(() => layoutOf(name(9.5)))).toBe('chart-size');
  });
});

describe('a clean chart', () => {
  test.each([
    ['as it was made', {}],
    ['warm', warm],
    ['pale', pale],
    ['faded', faded],
    ['monochrome', { monochrome: { sectors: [] } }],
  ] as [string, Settings][])('%s comes back as the table of what it went through', (_what, settings) => {
    const made = readChart(through(settings));
    const evaluate = evaluateOf({ settings, look: null });
    const grid = new Float64Array(9 ** 3 * 3);
    for (let i = 0; i < 9 ** 3; i++)
      grid.set([(i % 9) / 8, (Math.floor(i / 9) % 9) / 8, Math.floor(i / 81) / 8], i * 3);
    expect(residual(sampler(made.look), evaluate, grid).maxDeltaE).toBeLessThan(0.2);
    expect(made.noise).toBe(0);
    expect(made.spread.max).toBeLessThan(0.01);
    expect(made.warnings).toEqual([]);
    expect(made.validFor).toBe('rendered files');
    expect(made.residual.meanDeltaE).toBeLessThan(1.5);
  });
  test('of 8 bits, with alpha, or with a border around it reads the same', () => {
    const image = through(warm, 9, '8 bits');
    const made = readChart(image);
    const alpha = new Uint8Array(image.width * image.height * 4).fill(255);
    for (let i = 0, o = 0; o < alpha.length; i += 3, o += 4)
      alpha.set([image.data[i]!, image.data[i + 1]!, image.data[i + 2]!], o);
    expect(readChart({ ...image, channels: 4, data: alpha }).look.table).toEqual(made.look.table);
    const [width, height] = [image.width + 4 * PATCH, image.height + 3 * PATCH];
    const framed = new Uint8Array(width * height * 3).fill(128);
    for (let y = 0; y < image.height; y++)
      framed.set(
        image.data.subarray(y * image.width * 3, (y + 1) * image.width * 3),
        ((y + PATCH) * width + 2 * PATCH) * 3,
      );
    const again = readChart({ ...image, width, height, data: framed });
    expect(again.look.table).toEqual(made.look.table);
    expect(again.repaired).toEqual(['a border around the chart was left out']);
  });
  test('through JPEG of quality 90 is near, and said to be lossy', async () => {
    const jpeg = await toSharp(through(warm, 9, '8 bits'))
      .jpeg({ quality: 90 })
      .toBuffer();
    const made = readChart(await fromSharp(sharp(jpeg), true));
    expect(made.warnings.map(({ code }) => code)).toEqual(['chart-lossy']);
    const direct = readChart(through(warm, 9, '8 bits'));
    expect(residual(sampler(made.look), sampler(direct.look)).meanDeltaE).toBeLessThan(1);
  });
  test('with grain is averaged, and the noise is said', () => {
    const image = through(warm);
    const random = seeded(5);
    for (let i = 0; i < image.data.length; i++)
      image.data[i] = Math.min(65535, Math.max(0, image.data[i]! + (random() + random() - 1) * 1200));
    const made = readChart(image);
    expect(made.noise).toBeGreaterThan(0.5);
    expect(residual(sampler(made.look), sampler(readChart(through(warm)).look)).maxDeltaE).toBeLessThan(1.5);
  });
  test('fifty of them, through fifty presets, and nothing is found', () => {
    const random = seeded(17);
    for (let i = 0; i < 50; i++) {
      const code = read(through(settingsAtRandom(random), 5, i % 2 ? '8 bits' : '16 bits'));
      // presets at random may cut off much, which is true
      expect(['read', 'chart-clipped'], `preset ${i}`).toContain(code);
    }
  });
});

describe('what was done besides is told', () => {
  const random = seeded(29);
  /** Fifty presets that keep the tones apart. */
  const gentle = (): Settings => {
    const { level: _level, curve: _curve, monochrome: _gray, ...rest } = settingsAtRandom(random);
    return { ...rest, contrast: 0.9 + 0.2 * random(), chroma: 0.8 + 0.3 * random() };
  };
  const every = (count: number) => Array.from({ length: count }, (_, index) => index);

  test('sharpened, each time', async () => {
    for (const i of every(tries(50, 10))) {
      const sharpened = toSharp(through(gentle(), 5, '8 bits')).sharpen({ sigma: 0.6 + random(), m1: 0.6, m2: 1.5 });
      expect(read(await fromSharp(sharpened)), `try ${i}`).toBe('chart-local-adjustment');
    }
  }, 240_000);
  test('softened', async () => {
    for (const sigma of [0.6, 1, 2])
      expect(read(await fromSharp(toSharp(through(gentle(), 5, '8 bits')).blur(sigma)))).toBe('chart-local-adjustment');
  });
  test('local contrast, each time', async () => {
    for (const i of every(tries(50, 10))) {
      const image = through(gentle(), 5, '8 bits');
      const wide = await fromSharp(toSharp(image).blur(20 + 40 * random()));
      const amount = 0.12 + 0.3 * random();
      const data = new Uint8ClampedArray(image.data.length);
      for (let at = 0; at < data.length; at++) data[at] = image.data[at]! + amount * (image.data[at]! - wide.data[at]!);
      expect(read({ ...image, data }), `try ${i}`).toBe('chart-local-adjustment');
    }
  }, 240_000);
  test('a vignette', () => {
    const image = through(gentle(), 5);
    for (let y = 0, i = 0; y < image.height; y++)
      for (let x = 0; x < image.width; x++, i += 3) {
        const away = Math.hypot(x / image.width - 0.5, y / image.height - 0.5);
        for (let c = 0; c < 3; c++) image.data[i + c] = image.data[i + c]! * (1 - 0.06 * away);
      }
    expect(read(image)).toBe('chart-local-adjustment');
  });
  test('resized by one pixel, each time, and by more', async () => {
    for (const i of every(tries(50, 10))) {
      const image = through(gentle(), 5, '8 bits');
      const by = i % 2 ? 1 : -1;
      const resized = toSharp(image).resize(image.width + by, image.height + by, { fit: 'fill' });
      expect(read(await fromSharp(resized)), `try ${i}`).toBe('chart-resized');
    }
    const image = through(gentle(), 5, '8 bits');
    for (const scale of [0.37, 0.5, 1.5])
      expect(read(await fromSharp(toSharp(image).resize(Math.round(image.width * scale))))).toBe('chart-resized');
  }, 240_000);
  test('resized by one pixel and cut to the size that it had', async () => {
    const image = through(gentle(), 5, '8 bits');
    const { width, height } = image;
    const resized = await fromSharp(toSharp(image).resize(width + 1, height + 1, { fit: 'fill' }));
    const cut = sharp(Buffer.from(resized.data), { raw: { width: width + 1, height: height + 1, channels: 3 } });
    expect(read(await fromSharp(cut.extract({ left: 0, top: 0, width, height })))).toBe('chart-resized');
  });
  test('turned, mirrored, upside down, and by a small angle', async () => {
    const image = through(gentle(), 5, '8 bits');
    for (const turned of [
      toSharp(image).rotate(90),
      toSharp(image).rotate(180),
      toSharp(image).flop(),
      toSharp(image).flip(),
    ])
      expect(read(await fromSharp(turned))).toBe('chart-rotated');
    const { width, height } = image;
    const tilted = await fromSharp(toSharp(image).rotate(0.4).resize(width, height, { fit: 'cover' }));
    expect(['chart-rotated', 'chart-resized']).toContain(read(tilted));
  });
  test('cut: by some pixels, by whole patches, and half of it missing', async () => {
    const image = through(gentle(), 5, '8 bits');
    const { width, height } = image;
    const cut = (left: number, top: number, w: number, h: number) =>
      fromSharp(toSharp(image).extract({ left, top, width: w, height: h }));
    expect(read(await cut(5, 3, width - 5, height - 3))).toBe('chart-cropped');
    expect(read(await cut(2 * PATCH, 0, width - 2 * PATCH, height))).toBe('chart-cropped');
    expect(read(await cut(0, 0, width, Math.floor(height / 2 / PATCH) * PATCH))).toBe('chart-cropped');
  });
  test('most of the tones cut off', () => {
    expect(read(through({ level: 3 }, 5))).toBe('chart-clipped');
    expect(readChart(through({ level: 1.2 }, 9)).warnings.map(({ code }) => code)).toEqual(['chart-clipping']);
  });
  test('another chart than the one that was asked for, and no chart at all', async () => {
    expect(codeOf(() => readChart(through({}, 5), 9))).toBe('chart-wrong');
    const noise = sharp({
      create: {
        width: 640,
        height: 480,
        channels: 3,
        background: '#777',
        noise: { type: 'gaussian', mean: 128, sigma: 40 },
      },
    });
    expect(read(await fromSharp(noise))).toBe('chart-unreadable');
    expect(
      read({ width: 64, height: 64, channels: 3, data: new Uint8Array(64 * 64 * 3), top: 255, lossy: false }),
    ).toBe('chart-unreadable');
    const image = through({}, 5, '8 bits');
    // every second bit of the code painted over
    for (let y = 0; y < PATCH * 3; y++)
      for (let x = PATCH * 10; x < PATCH * 30; x++)
        image.data.fill(200, (y * image.width + x) * 3, (y * image.width + x) * 3 + 3);
    expect(read(image)).toBe('chart-cropped');
  });
});
