/** How true the computation is: against ffmpeg's table, a second implementation of camera profiles, and the native Little CMS. And what the largest tables take. */
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { profileOf } from '@/core/camera/dcp';
import { renderer, STAGES } from '@/core/camera/render';
import { independent, made } from '@/core/camera/testing';
import { deltaE2000 } from '@/core/color/difference';
import { once } from '@/core/icc/transform';
import { haltonPoints, readCube, sampler, writeCube, fromFunction } from '@/core/look';
import type { Row } from './rows';

/** Tetrahedral sampling of a table, in floats, against ffmpeg's lut3d. */
function samplingRow(folder: string): Row {
  const points = haltonPoints(4000);
  const count = points.length / 3;
  const file = join(folder, 'a.cube');
  const planes = new Float32Array(count * 3);
  writeFileSync(
    file,
    writeCube(
      fromFunction(17, 'Bench', (values) => {
        const r = values[0]!;
        const g = values[1]!;
        const b = values[2]!;
        values[0] = r ** 1.3 + 0.05 * g;
        values[1] = g * 0.9 + 0.1 * b * r;
        values[2] = b ** 0.8;
      }),
    ),
  );
  for (let i = 0; i < count; i++) {
    planes[i] = points[i * 3 + 1]!;
    planes[count + i] = points[i * 3 + 2]!;
    planes[2 * count + i] = points[i * 3]!;
  } // green, blue, red
  writeFileSync(join(folder, 'in.raw'), planes);
  const result = spawnSync(
    'ffmpeg',
    [
      '-hide_banner',
      '-loglevel',
      'error',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'gbrpf32le',
      '-s',
      `${count}x1`,
      '-i',
      join(folder, 'in.raw'),
      '-vf',
      `lut3d=file=${file}:interp=tetrahedral`,
      '-f',
      'rawvideo',
      '-pix_fmt',
      'gbrpf32le',
      join(folder, 'out.raw'),
    ],
    { encoding: 'utf8' },
  );
  if (result.status !== 0) throw new Error(`ffmpeg failed: ${result.stderr.slice(-300)}`);
  const nonSharedBuffer = readFileSync(join(folder, 'out.raw'));
  const theirs = new Float32Array(
    nonSharedBuffer.buffer.slice(nonSharedBuffer.byteOffset, nonSharedBuffer.byteOffset + nonSharedBuffer.length),
  );
  const evaluate = sampler(readCube(new Uint8Array(readFileSync(file))));
  const out = new Float64Array(3);
  let most = 0;
  for (let i = 0; i < count; i++) {
    evaluate(points[i * 3]!, points[i * 3 + 1]!, points[i * 3 + 2]!, out, 0);
    most = Math.max(
      most,
      Math.abs(out[0]! - theirs[2 * count + i]!),
      Math.abs(out[1]! - theirs[i]!),
      Math.abs(out[2]! - theirs[count + i]!),
    );
  }
  return {
    name: 'a table sampled, largest difference to ffmpeg’s lut3d in floats',
    figure: most * 1e6,
    unit: 'millionths',
    target: 10,
    note: `${count.toLocaleString('en')} points`,
  };
}

function profileRow(): Row {
  const profile = made();
  const rendered = profileOf(profile);
  const points = haltonPoints(1500);
  const neutral = [0.52, 1, 0.61];
  const values = Float64Array.from(points);
  renderer(rendered, neutral, STAGES, 'prophoto-linear')(values);
  let most = 0;
  for (let i = 0; i < points.length; i += 3)
    independent(profile, neutral, [points[i]!, points[i + 1]!, points[i + 2]!], STAGES).forEach((x, c) => {
      most = Math.max(most, Math.abs(x - values[i + c]!));
    });
  return {
    name: 'a camera profile rendered, largest difference to a second implementation, linear',
    figure: most * 1e6,
    unit: 'millionths',
    target: 100,
  };
}

async function iccRow(): Promise<Row> {
  const points = haltonPoints(2000);
  const ours = await once('srgb', 'lab', points);
  const result = spawnSync('transicc', ['-n', '-c0', '-i*sRGB', '-o*Lab', '-t1'], {
    encoding: 'utf8',
    input:
      Array.from({ length: points.length / 3 }, (_, i) =>
        [0, 1, 2].map((c) => (points[i * 3 + c]! * 255).toFixed(6)).join(' '),
      ).join('\n') + '\n',
  });
  const theirs = result.stdout
    .trim()
    .split('\n')
    .flatMap((l) => l.trim().split(/\s+/).map(Number));
  let most = 0;
  for (let i = 0; i < points.length; i += 3)
    most = Math.max(most, deltaE2000(ours[i]!, ours[i + 1]!, ours[i + 2]!, theirs[i]!, theirs[i + 1]!, theirs[i + 2]!));
  return { name: 'ICC, largest difference to the native Little CMS', figure: most, unit: 'ΔE00', target: 0.05 };
}

/** A Hald image of level 16 written and read by the command line: its peak of resident memory. */
async function haldRow(folder: string): Promise<Row> {
  const file = join(folder, 'h.cube');
  const image = join(folder, 'h.png');
  writeFileSync(
    file,
    writeCube(
      fromFunction(17, 'Bench', (values) => {
        values[0] = values[0]! ** 1.1;
      }),
    ),
  );
  const run = (args: string[]): Promise<number> =>
    new Promise((done, fail) => {
      const child = spawn(process.execPath, ['dist/cli.mjs', ...args], { stdio: 'ignore' });
      let most = 0;
      const look = setInterval(() => {
        try {
          most = Math.max(
            most,
            Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1] ?? 0) / 1000,
          );
        } catch {
          /* it has ended */
        }
      }, 10);
      child.on('exit', (code) => {
        clearInterval(look);
        if (code) fail(new Error(`the command line ended with ${code}`));
        else done(most);
      });
    });
  spawnSync('bin/etagere', ['look'], { stdio: 'ignore' }); // makes itself
  const written = await run(['look', 'convert', file, '-o', image, '--size', '256', '--json']);
  const read = await run(['look', 'info', image, '--json']);
  return {
    name: 'memory for a Hald image of level 16, written and read',
    figure: Math.max(written, read),
    unit: 'MB',
    target: 600,
    note: `written ${written.toFixed(0)}, read ${read.toFixed(0)}`,
  };
}

export async function accuracyRows(): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'etagere-bench-'));
  try {
    return [samplingRow(folder), profileRow(), await iccRow(), await haldRow(folder)];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
