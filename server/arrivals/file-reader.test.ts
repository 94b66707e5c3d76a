/** The reading thread: what it makes of a file, and what becomes of the others when a reader hangs, eats memory or has a bug. */
import { must } from '@/core/must';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from 'esbuild';
import { strToU8 } from 'fflate';
import { afterAll, afterEach, describe, expect, test } from 'vitest';
import { parseDescriptor } from '@/core/editor/descriptor';
import { houseLooks, oxbowPresets } from '@/demo/designs';
import { cubeOf, oxbowOf } from '@/demo/files';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { entryOf } from './arrival-entry';
import { inspectFile } from './inspect';
import { Reader } from './file-reader';

const folder = mkdtempSync(join(tmpdir(), 'etagere-reader-'));
const known = [parseDescriptor(oxbow2)];
const cube = strToU8(cubeOf(must(houseLooks[0]), 5));
let open: Reader[] = [];
afterEach(async () => {
  await Promise.all(open.map((r) => r.close()));
  open = [];
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const of = (...limits: ConstructorParameters<typeof Reader>): Reader => {
  const reader = new Reader(...limits);
  open.push(reader);
  return reader;
};
/** A thread of the test's own: answers with the path as title, but for paths that say what else to do. */
function odd(): string {
  const file = join(folder, 'odd.mjs');
  writeFileSync(
    file,
    `import { parentPort } from 'node:worker_threads';
let told = 0;
parentPort.on('message', (q) => {
  if (q.descriptors) told++;
  if (q.path === 'hangs') for (;;);
  if (q.path === 'eats') { const l = []; for (;;) l.push(new Array(1000).fill(q.n)); }
  if (q.path === 'dies') throw new Error('of itself');
  if (q.path === 'bug') parentPort.postMessage({ n: q.n, bug: 'a bug' });
  else parentPort.postMessage({ n: q.n, entry: { take: false, row: { path: q.path, title: q.path, size: q.bytes.length, told } } });
});`,
  );
  return file;
}

describe('what is read', () => {
  test('is the same as without the thread: looks, presets, and what is refused', async () => {
    const reader = of();
    const files: [string, Uint8Array][] = [
      ['A/Kiln.cube', cube],
      ['B/preset.xmp', strToU8(oxbowOf(must(oxbowPresets[0])))],
      ['broken.cube', cube.subarray(0, 300)],
      ['notes.txt', strToU8('made up')],
    ];
    for (const [path, bytes] of files)
      expect(await reader.read(path, bytes, 'ab', known)).toEqual(
        JSON.parse(
          JSON.stringify(await entryOf({ ...inspectFile(path, Buffer.from(bytes), Buffer.alloc(0), known) }, 'ab')),
        ),
      );
  });
  test('of a hundred asked for at once each has its own answer, in order, and descriptors are sent once', async () => {
    const reader = of(undefined, odd());
    const order: number[] = [];
    const all = await Promise.all(
      Array.from({ length: 100 }, (_, i) =>
        reader.read(String(i), new Uint8Array(i), '', known).then((entry) => {
          order.push(i);
          return entry.row as unknown as { title: string; size: number; told: number };
        }),
      ),
    );
    expect(all.map((e) => [e.title, e.size])).toEqual(Array.from({ length: 100 }, (_, i) => [String(i), i]));
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(all.every((e) => e.told === 1)).toBe(true);
    expect(((await reader.read('later', cube, '', [...known])).row as unknown as { told: number }).told).toBe(2);
  });
  test('a part of a larger memory is sent alone, and the caller keeps it', async () => {
    const large = new Uint8Array(1000).fill(7);
    const entry = await of(undefined, odd()).read('part', large.subarray(10, 15), '', known);
    expect(entry.row.size).toBe(5);
    expect(large[12]).toBe(7);
  });
});

test('a process ends by itself when all is read, and not before', async () => {
  const program = join(process.cwd(), 'dist', `once-${process.pid}.mjs`); // where it finds the packages
  await build({
    stdin: {
      contents: `import { Reader } from '@/server/arrivals/file-reader'; const r = new Reader(); void Promise.all(['a', 'b'].map((p) => r.read(p + '.txt', new TextEncoder().encode('made up'), '', []))).then((l) => { process.stdout.write(l.map((e) => e.row.path).join()); });`,
      resolveDir: process.cwd(),
      loader: 'ts',
    },
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    outfile: program,
    alias: { '@': process.cwd() },
  });
  try {
    expect(spawnSync(process.execPath, [program], { encoding: 'utf8', timeout: 20_000 })).toMatchObject({
      status: 0,
      stdout: 'a.txt,b.txt',
    });
  } finally {
    rmSync(program, { force: true });
  }
});

describe('a file whose reader', () => {
  test('does not come to an end is refused alone, and the thread begins anew', async () => {
    const reader = of({ seconds: 0.6, megabytes: 256 }, odd());
    const [one, two, three] = await Promise.all(['one', 'hangs', 'three'].map((p) => reader.read(p, cube, '', known)));
    expect([must(one).row.title, must(three).row.title]).toEqual(['one', 'three']);
    expect(must(two).row).toMatchObject({
      outcome: 'refused',
      path: 'hangs',
      problem: { code: 'limit-time', where: 'hangs', remedy: expect.stringContaining('anew') as string },
    });
    expect((await reader.read('four', cube, '', known)).row.title).toBe('four');
  });
  test('takes more memory than it may is refused alone', async () => {
    const reader = of({ seconds: 20, megabytes: 48 }, odd());
    const [one, two] = await Promise.all(['eats', 'two'].map((p) => reader.read(p, cube, '', known)));
    expect(must(one).row).toMatchObject({ outcome: 'refused', problem: { code: 'limit-memory' } });
    expect(must(two).row.title).toBe('two');
  });
  test('has a bug fails with it, whether it is caught or not, and the next are read', async () => {
    const reader = of(undefined, odd());
    const results = await Promise.allSettled(['bug', 'dies', 'three'].map((p) => reader.read(p, cube, '', known)));
    expect(results.map((x) => x.status)).toEqual(['rejected', 'rejected', 'fulfilled']);
    expect(String((results[0] as PromiseRejectedResult).reason)).toContain('reading bug: a bug');
  });
  test('two in a row hang: each has its own time', async () => {
    const reader = of({ seconds: 0.4, megabytes: 256 }, odd());
    const all = await Promise.all(['hangs', 'hangs', 'three'].map((p) => reader.read(p, cube, '', known)));
    expect(all.map((e) => e.row.outcome)).toEqual(['refused', 'refused', undefined]);
  });
});
