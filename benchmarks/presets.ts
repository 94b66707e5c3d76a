/** Presets: evaluated over pictures, made into finer tables; and a chart that came back. */
import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { makeChart } from '@/core/editor-chart/make';
import { readChart } from '@/core/editor-chart/read';
import { writeCubeBytes } from '@/core/look';
import { pngOfRows } from '@/core/look/png-rows';
import { applyPreset } from '@/core/preset/apply';
import { bake } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { Computing } from '@/server/threads/computing';
import type { PresetSource } from '@/server/threads/tasks';
import { timeAtFullSpeed } from './full-speed';
import { median, type Row } from './rows';

/** Twelve settings, as a preset of some effort has them. */
const twelve: Settings = {
  level: 0.3,
  contrast: 1.2,
  warmth: 12,
  tintShift: 3,
  toe: -10,
  shoulder: 8,
  blackPoint: 0.01,
  curve: [
    [0, 0],
    [0.3, 0.27],
    [0.7, 0.74],
    [1, 1],
  ],
  chroma: 1.1,
  lowChroma: 10,
  hueSectors: [{ center: 20, width: 80, turn: 4, chroma: 1.2, lightness: 0.01 }],
  tintDark: { hue: 250, amount: 0.02 },
};

/** Milliseconds of the middle run, without those that only warm up. */
function timed(runs: number, warmUp: number, work: () => void): number {
  const times: number[] = [];
  for (let run = 0; run < runs; run++) {
    const began = performance.now();
    work();
    if (run >= warmUp) times.push(performance.now() - began);
  }
  return median(times);
}

/** A picture with the texture of photographs, of so many pixels across. */
function picture(width: number): { data: Uint8ClampedArray; height: number } {
  const height = Math.round((width * 2) / 3);
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  let seed = 7;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 4) {
      seed = (Math.imul(seed, 1664525) + 1013904223) | 0;
      const grain = ((seed >>> 24) & 7) - 4;
      const [u, v] = [x / width, y / height];
      data[i] = 128 + 110 * Math.sin(4 * u + 2 * v) + grain;
      data[i + 1] = 128 + 100 * Math.sin(4 * v + 1) + grain;
      data[i + 2] = 120 + 110 * Math.cos(7 * u - 2 * v) + grain;
    }
  return { data, height };
}

async function overPicture(width: number, target: number): Promise<Row> {
  const { data, height } = picture(width);
  const out = new Uint8ClampedArray(data.length);
  const effect = { settings: twelve, look: null };
  return {
    name: `a preset of twelve settings evaluated over ${width} × ${height} pixels, one thread`,
    ...(await timeAtFullSpeed(() => timed(9, 2, () => applyPreset(effect, 1, data, out)))),
    unit: 'ms',
    target,
  };
}

async function fineTable(): Promise<Row> {
  const bakeOnce = () =>
    createHash('sha256')
      .update(writeCubeBytes(bake(twelve, 65, 'Bench').look))
      .digest();
  return {
    name: 'bake a preset at 65 points, written as .cube',
    ...(await timeAtFullSpeed(() => timed(7, 2, bakeOnce))),
    unit: 'ms',
    target: 300,
  };
}

/** From the bytes of a PNG of 16 bits to the table. */
export async function chartRow(): Promise<Row> {
  const { width, height, data } = makeChart({ size: 33, kind: '16 bits', id: 1 });
  const line = width * 3;
  const png = pngOfRows(width, height, (y, out) => out.set(data.subarray(y * line, (y + 1) * line)));
  const times: number[] = [];
  for (let run = 0; run < 4; run++) {
    const began = performance.now();
    const { data: raw } = await sharp(png, { ignoreIcc: true })
      .toColourspace('rgb16')
      .raw({ depth: 'ushort' })
      .toBuffer({ resolveWithObject: true });
    const samples = new Uint16Array(raw.buffer, raw.byteOffset, raw.length / 2);
    readChart({ width, height, channels: 3, data: samples, top: 65535, lossy: false });
    if (run > 0) times.push(performance.now() - began);
  }
  return { name: 'a chart of 33 points and 16 bits read', figure: median(times), unit: 'ms', target: 2000 };
}

const MANY = 300;

/** Seconds that so many threads take to make tables of many presets, as a conversion does. */
async function tablesOn(threads: number): Promise<number> {
  const computing = new Computing({ threads, seconds: 180, megabytes: 1536 });
  const source = (place: number): PresetSource => ({
    kind: 'preset',
    title: `Bench ${place}`,
    settings: { ...twelve, warmth: place % 40 },
    classes: {},
    called: null,
  });
  const make = (place: number) =>
    computing.run('baked', {
      source: source(place),
      size: 33,
      title: `Bench ${place}`,
      wanted: undefined,
      above: null,
    });
  try {
    // each thread has loaded what it needs
    await Promise.all(Array.from({ length: threads }, (_, place) => make(place)));
    const began = performance.now();
    await Promise.all(Array.from({ length: MANY }, (_, place) => make(place)));
    return (performance.now() - began) / 1000;
  } finally {
    await computing.close();
  }
}

/** The time of two threads for many tables as a share of one thread's: two shall be at least 1.7 times as fast. */
export async function threadsRow(): Promise<Row> {
  const one = await tablesOn(1);
  const two = await tablesOn(2);
  return {
    name: `${MANY} presets to tables of 33 points with their error: two threads, as a share of one`,
    figure: two / one,
    unit: '',
    target: 1 / 1.7,
    reference: { name: 'one thread', figure: one, unit: 's' },
  };
}

export const presetRows: (() => Promise<Row>)[] = [() => overPicture(320, 60), () => overPicture(1600, 800), fineTable];
