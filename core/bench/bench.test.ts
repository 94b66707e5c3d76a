import { describe, expect, test } from 'vitest';
import { profileOf } from '../camera/dcp';
import { renderer, STAGES } from '../camera/render';
import { made } from '../camera/testing';
import { developPlain, developTo, profileTable } from '../camera/table';
import { prepare } from '../look/apply';
import { kernel } from '../look/kernel/kernel';
import { linearPreview, readDng, writeDng } from '../frame/dng';
import { applyTrim, differenceMap, endsPlain, figuresOf, MAP_TOP, mapColor, noTrim } from './measure';
import { applyRange, compressRange, rangeField, usualRange } from './range';

const picture = (color: (x: number, y: number) => number[], w = 40, h = 30) => {
  const pixels = new Uint8ClampedArray(w * h * 4);
  for (let y = 0, i = 0; y < h; y++)
    for (let x = 0; x < w; x++, i += 4) {
      const [r, g, b] = color(x / (w - 1), y / (h - 1));
      pixels.set([r!, g!, b!, 255], i);
    }
  return pixels;
};

describe('what is said under a cell', () => {
  test('clipped pixels at both ends, levels of shadow, neutrals', () => {
    const pixels = picture((x) => {
      if (x < 0.25) return [255, 200, 100];
      if (x < 0.5) return [0, 40, 40];
      return [128, 128, 128];
    });
    const cellFigures = figuresOf(pixels, pixels);
    expect(cellFigures.clippedHigh).toBeCloseTo(25, 0);
    expect(cellFigures.clippedLow).toBeCloseTo(25, 0);
    expect(cellFigures.tint!.chroma).toBeLessThan(0.1);
    expect(
      figuresOf(
        picture((x) => [x * 31, x * 31, x * 31]),
        pixels,
      ).shadows,
    ).toBe(32);
  });
  test('the tint is that of what was neutral before', () => {
    const before = picture(() => [120, 120, 120]);
    const after = picture(() => [140, 120, 90]);
    const tint = figuresOf(after, before).tint!;
    expect(tint.chroma).toBeGreaterThan(10);
    expect(tint.hue).toBeGreaterThan(50);
    expect(tint.hue).toBeLessThan(95);
    expect(
      figuresOf(
        after,
        picture(() => [250, 20, 20]),
      ).tint,
    ).toBeNull();
  });
});
describe('the kernel is its plain steps', () => {
  const noise = (n: number) => Uint16Array.from({ length: n }, (_, i) => Math.imul(i + 1, 2654435761) >>> 16);
  test('developing camera values', () => {
    const profile = profileOf(made());
    const neutral = [0.72, 1, 0.42];
    const prepared = prepare(profileTable(profile, neutral, STAGES, 17));
    const weights = neutral.map((v) => 1 / (65535 * v));
    const source = noise(3 * 20_001);
    const pixels = new Uint8ClampedArray(4 * 20_001);
    const drawn = new Uint8ClampedArray(4 * 20_001);
    developPlain(prepared, weights, source, pixels);
    expect(kernel()!.develop(prepared, weights, source, drawn)).toBe(true);
    let most = 0;
    let off = 0;
    pixels.forEach((v, i) => {
      const d = Math.abs(v - drawn[i]!);
      most = Math.max(most, d);
      off += Number(d > 0);
    });
    expect(most).toBeLessThanOrEqual(1);
    expect(off / pixels.length).toBeLessThan(0.001);
    expect(pixels.some((v, i) => i % 4 !== 3 && v > 0 && v < 255)).toBe(true);
  });
  test('counting the ends, over more than a strip of pixels', () => {
    const pixels = new Uint8ClampedArray(4 * 40_000);
    noise(pixels.length).forEach((v, i) => {
      pixels[i] = v % 300;
    });
    expect(kernel()!.ends(pixels)).toEqual(endsPlain(pixels));
    pixels.fill(90);
    expect(kernel()!.ends(pixels)).toEqual(endsPlain(pixels));
  });
});
describe('the map of differences', () => {
  test('of a picture and itself is none', () => {
    const pixels = picture((x, y) => [255 * x, 255 * y, 90]);
    const out = new Uint8ClampedArray(pixels.length);
    expect(differenceMap(pixels, pixels, out)).toEqual({ mean: 0, p95: 0, max: 0 });
    expect([...out.slice(0, 3)]).toEqual(mapColor(0));
  });
  test('grows with the difference, and is lighter where it is larger', () => {
    const pixels = picture(() => [120, 120, 120]);
    const redder = picture((x) => [120 + 60 * x, 120, 120]);
    const out = new Uint8ClampedArray(pixels.length);
    const difference = differenceMap(pixels, redder, out);
    expect(difference.max).toBeGreaterThan(difference.p95);
    expect(difference.p95).toBeGreaterThan(difference.mean);
    expect(out[4 * 39]! + out[4 * 39 + 1]!).toBeGreaterThan(out[0]! + out[1]!);
    let last = 0;
    for (let e = 0; e <= MAP_TOP; e += 0.5) {
      const [r, g, b] = mapColor(e);
      const y = 0.21 * r + 0.72 * g + 0.07 * b;
      expect(y).toBeGreaterThanOrEqual(last);
      last = y;
    }
  });
});
describe('trim and range', () => {
  test('a trim of nothing changes nothing; slope, offset and power do what they say', () => {
    const pixels = picture((x, y) => [255 * x, 255 * y, 80]);
    const twice = pixels.slice();
    applyTrim(twice, noTrim);
    expect(twice).toEqual(pixels);
    applyTrim(twice, { slope: [0.5, 1, 1], offset: [0, 0.1, 0], power: [1, 1, 2] });
    expect(twice[4 * 39]).toBe(128);
    expect(twice[1]).toBe(26);
    expect(twice[2]).toBe(Math.round(255 * (80 / 255) ** 2));
  });
  test('range in equal to range out leaves the picture, a smaller range out brings the ends together and keeps their order', () => {
    const pixels = picture((x) => [10 + 235 * x, 10 + 235 * x, 10 + 235 * x], 64, 48);
    const same = pixels.slice();
    compressRange(same, 64, 48, { ...usualRange, outLow: usualRange.inLow, outHigh: usualRange.inHigh });
    same.forEach((v, i) => expect(Math.abs(v - pixels[i]!)).toBeLessThanOrEqual(1));
    const less = pixels.slice();
    compressRange(less, 64, 48, { ...usualRange, outLow: -3, outHigh: 1 });
    const row = Array.from({ length: 64 }, (_, x) => less[x * 4]!);
    expect(row[0]!).toBeGreaterThan(pixels[0]!);
    expect(row[63]!).toBeLessThan(pixels[63 * 4]!);
    row.slice(1).forEach((v, i) => expect(v).toBeGreaterThanOrEqual(row[i]! - 1));
  });
});
describe('range in parts', () => {
  test('a part compressed by the whole’s field is what the whole has there, at the same size and from a smaller one', () => {
    const scene = (w: number, h: number) =>
      picture(
        (x, y) => {
          const v = 20 + 200 * x * (0.6 + 0.4 * Math.sin(9 * y));
          return [v, v * 0.8, v * 0.6];
        },
        w,
        h,
      );
    const crop = (pixels: Uint8ClampedArray, w: number, x0: number, y0: number, cw: number, ch: number) =>
      Uint8ClampedArray.from(
        { length: cw * ch * 4 },
        (_, i) => pixels[((y0 + Math.floor(i / 4 / cw)) * w + x0 + (Math.floor(i / 4) % cw)) * 4 + (i % 4)]!,
      );
    const narrow = { ...usualRange, outLow: -3, outHigh: 1.2 };
    const whole = scene(240, 160);
    const small = scene(60, 40);
    const done = whole.slice();
    compressRange(done, 240, 160, narrow);
    const part = crop(whole, 240, 100, 50, 64, 48);
    applyRange(part, 64, 48, narrow, rangeField(whole, 240, 160, narrow), { x: 100, y: 50, width: 240, height: 160 });
    expect(part).toEqual(crop(done, 240, 100, 50, 64, 48));
    const near = crop(whole, 240, 100, 50, 64, 48);
    applyRange(near, 64, 48, narrow, rangeField(small, 60, 40, narrow), { x: 100, y: 50, width: 240, height: 160 });
    let most = 0;
    near.forEach((v, i) => {
      most = Math.max(most, Math.abs(v - part[i]!));
    });
    expect(most).toBeLessThanOrEqual(4);
  });
});
describe('a camera’s data', () => {
  test('a profile’s table renders as the profile does, within a code value of 8 bits for most colors', () => {
    const profile = profileOf(made());
    const neutral = [0.52, 1, 0.61];
    const table = profileTable(profile, neutral, STAGES);
    const run = renderer(profile, neutral, STAGES, 'srgb');
    const linear = new Uint16Array(3000);
    for (let i = 0; i < linear.length; i++)
      linear[i] = ((Math.imul(i + 5, 2654435761) >>> 16) & 65535) * neutral[i % 3]!;
    const out = new Uint8ClampedArray(4000);
    const values = Float64Array.from(linear, (x) => x / 65535);
    developTo(prepare(table), neutral, linear, out);
    run(values);
    let far = 0;
    for (let i = 0; i < 1000; i++)
      for (let c = 0; c < 3; c++)
        if (Math.abs(out[i * 4 + c]! - 255 * Math.min(1, Math.max(0, values[i * 3 + c]!))) > 3) far++;
    expect(far / 3000).toBeLessThan(0.03);
  });
  test('a DNG that is written comes back: mosaic, levels, neutral, profile, JPEG', () => {
    const mosaic = Uint16Array.from({ length: 64 * 48 }, (_, i) => 512 + ((i * 7919) % 15000));
    const jpeg = Uint8Array.of(0xff, 0xd8, 0xff, 0xd9);
    const dng = readDng(
      writeDng({
        width: 64,
        height: 48,
        cfa: [1, 0, 2, 1],
        mosaic,
        black: 512,
        white: 16383,
        neutral: [0.5, 1, 0.25],
        maker: 'Perrin',
        model: 'Alder',
        unique: 'Perrin Alder',
        serial: 's',
        lens: 'l',
        focal: 50,
        aperture: 4,
        iso: 100,
        date: '2026:01:01 00:00:00',
        profile: made(),
        jpeg: { bytes: jpeg, width: 4, height: 3 },
      }),
    );
    expect(dng).toMatchObject({
      width: 64,
      height: 48,
      cfa: [1, 0, 2, 1],
      black: [512, 512, 512, 512],
      camera: 'Perrin Alder',
      serial: 's',
    });
    expect([...dng.samples]).toEqual([...mosaic]);
    expect(dng.neutral).toEqual([0.5, 1, 0.25]);
    expect(dng.jpeg).toEqual(jpeg);
    expect(profileOf(dng.profile).maps).toHaveLength(2);
    const linear = linearPreview(dng, 8);
    expect([linear.width, linear.height]).toEqual([8, 6]);
    const sums = [0, 0, 0];
    const counts = [0, 0, 0];
    mosaic.forEach((v, i) => {
      const c = [1, 0, 2, 1][((Math.floor(i / 64) & 1) << 1) + (i & 1)]!;
      sums[c]! += (v - 512) / 15871;
      counts[c]!++;
    });
    for (let c = 0; c < 3; c++) {
      let m = 0;
      for (let i = c; i < linear.data.length; i += 3) m += linear.data[i]! / 65535;
      expect(m / 48).toBeCloseTo(sums[c]! / counts[c]!, 3);
    }
  });
});
