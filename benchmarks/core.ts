/** The computation: a table over a picture against ffmpeg's lut3d on one thread, and the bake of a preset. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { applyTo, fromFunction, prepare, writeCube, writeCubeBytes } from '@/core/look';
import { bake } from '@/core/preset/bake';
import { timeAtFullSpeed } from './full-speed';
import { median, type Row } from './rows';

const WIDTH = 3000;
const HEIGHT = 2000;
const FRAMES = 6;

/** A picture with the smoothness of photographs: slow gradients with some texture. */
function picture(): Uint8Array {
  const data = new Uint8Array(WIDTH * HEIGHT * 4);
  let seed = 7;
  for (let y = 0, i = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, i += 4) {
      seed = (Math.imul(seed, 1664525) + 1013904223) | 0;
      const grain = ((seed >>> 24) & 15) - 8;
      data[i] = Math.max(0, Math.min(255, 128 + 110 * Math.sin(x / 700 + y / 900) + grain));
      data[i + 1] = Math.max(0, Math.min(255, 128 + 100 * Math.sin(y / 500 + 1) + grain));
      data[i + 2] = Math.max(0, Math.min(255, 120 + 110 * Math.cos(x / 400 - y / 1100) + grain));
      data[i + 3] = 255;
    }
  return data;
}

const cpu = (work: () => void): number => {
  const cpuUsage = process.cpuUsage();
  work();
  return process.cpuUsage(cpuUsage).user / 1000;
};

export function applyRow(): Row {
  const folder = mkdtempSync(join(tmpdir(), 'etagere-bench-'));
  try {
    const look = fromFunction(33, 'Bench', (values) => {
      const r = values[0]!;
      const g = values[1]!;
      const b = values[2]!;
      values[0] = r ** 1.2;
      values[1] = g * 0.95 + 0.03 * r;
      values[2] = b ** 0.9;
    });
    const source = picture();
    const out = new Uint8ClampedArray(source.length);
    const prepared = prepare(look);
    writeFileSync(join(folder, 'x.cube'), writeCube(look));
    writeFileSync(join(folder, 'x.raw'), source);
    const ffmpeg = (filter: string): number => {
      const result = spawnSync(
        'ffmpeg',
        [
          '-hide_banner',
          '-benchmark',
          '-threads',
          '1',
          '-filter_threads',
          '1',
          '-stream_loop',
          String(FRAMES - 1),
          '-f',
          'rawvideo',
          '-pix_fmt',
          'rgba',
          '-s',
          `${WIDTH}x${HEIGHT}`,
          '-i',
          join(folder, 'x.raw'),
          '-vf',
          filter,
          '-f',
          'null',
          '-',
        ],
        { encoding: 'utf8' },
      );
      const time = /bench: utime=([\d.]+)s/.exec(result.stderr)?.[1];
      if (result.status !== 0 || !time) throw new Error(`ffmpeg failed: ${result.stderr.slice(-400)}`);
      return Number(time) * 1000;
    };
    for (let i = 0; i < 3; i++) applyTo(prepared, source, out);
    const ours: number[] = [];
    const theirs: number[] = [];
    // in turns, so that a busy machine troubles both alike
    for (let i = 0; i < 5; i++) {
      ours.push(
        cpu(() => {
          for (let k = 0; k < FRAMES; k++) applyTo(prepared, source, out);
        }),
      );
      theirs.push(ffmpeg(`lut3d=file=${join(folder, 'x.cube')}:interp=tetrahedral`) - ffmpeg('null'));
    }
    const a = Math.min(...ours);
    const b = Math.min(...theirs);
    const mp = (WIDTH * HEIGHT * FRAMES) / 1000;
    return {
      name: 'apply a 33-point table, 8-bit RGBA, one thread',
      figure: a / b,
      unit: '× ffmpeg',
      target: 0.5,
      reference: { name: 'ffmpeg lut3d, one thread', figure: mp / b, unit: 'MP/s' },
      note: `ours ${(mp / a).toFixed(1)} MP/s`,
    };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

export async function bakeRow(): Promise<Row> {
  const settings = {
    level: 0.3,
    contrast: 1.15,
    warmth: 20,
    chroma: 1.1,
    curve: [
      [0, 0.02],
      [0.3, 0.27],
      [1, 0.98],
    ],
    hueSectors: [{ center: 40, width: 80, turn: 5, chroma: 1.2, lightness: 0 }],
    tintDark: { hue: 250, amount: 0.02 },
  };
  const bakeOnce = (): number => {
    const began = performance.now();
    createHash('sha256')
      .update(writeCubeBytes(bake(settings, 33, 'Bench').look))
      .digest();
    return performance.now() - began;
  };
  const measure = (): number => median(Array.from({ length: 30 }, bakeOnce).slice(10));
  return {
    name: 'bake a preset at 33 points, written as .cube',
    ...(await timeAtFullSpeed(measure)),
    unit: 'ms',
    target: 40,
  };
}
