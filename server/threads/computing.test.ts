/** Heavy work is done in threads: the one that answers requests goes on meanwhile, and a task without end is ended. */
import { writeFileSync } from 'node:fs';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { afterAll, describe, expect, test } from 'vitest';
import { fromFunction, writeCubeBytes } from '@/core/look';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import { programOf } from '../program';
import { buffersIn, ownBytes } from './buffers';
import { compute, Computing } from './computing';
import { tasks } from './tasks';

const cube = (size: number): Uint8Array =>
  writeCubeBytes(
    fromFunction(size, 'Large', (values) => {
      values[0] = must(values[0]) ** 1.2;
    }),
  );

describe('computing in threads', () => {
  test('gives what the task gives', async () => {
    const source = { kind: 'look' as const, bytes: cube(17), encoding: null };
    const asked = { source, points: 9 };
    const here = await tasks.look(asked);
    const there = await compute('look', asked);
    expect(there.table).toEqual(here.table);
    expect({ ...there, table: null }).toEqual({ ...here, table: null });
    // what was given is still whole
    expect(source.bytes.length).toBeGreaterThan(1000);
  });

  test('holds nobody up: a look of 128 points is read, inspected and converted, and meanwhile others are answered', async () => {
    const bytes = cube(128);
    const asked = { form: 'clf' as const, title: 'x', points: 64, created: new Date(0) };
    await compute('selvedge', { bytes: cube(2) }); // the first thread is there
    const delay = monitorEventLoopDelay({ resolution: 5 });
    delay.enable();
    const began = performance.now();
    const [inspection, derived] = await Promise.all([
      compute('inspection', { kind: 'look', bytes, encoding: null }),
      compute('deriveLook', { bytes, asked }),
    ]);
    const took = performance.now() - began;
    delay.disable();
    expect(inspection.findings).toBeDefined();
    expect(derived.extension).toBe('clf');
    // a part of the time that it took, whatever the machine; bin/bench has the figure
    expect(delay.max / 1e6).toBeLessThan(took / 4);
  });

  test('tells a Problem as it is, and a bug with its place', async () => {
    const broken = compute('selvedge', { bytes: new TextEncoder().encode('LUT_3D_SIZE 1\n') });
    await expect(broken).rejects.toBeInstanceOf(Problem);
    await expect(broken).rejects.toMatchObject({ code: 'cube-size' });
    await expect(compute('apart', { before: null, after: null, pictures: [] } as never)).rejects.toThrow(
      /computing apart/,
    );
    expect(await compute('selvedge', { bytes: cube(2) })).toBeDefined();
  });
});

describe('a task that comes to no end', () => {
  const folder = mkdtempSync(join(tmpdir(), 'etagere-threads-'));
  const program = join(folder, 'thread.mjs');
  writeFileSync(
    program,
    `import { parentPort } from 'node:worker_threads';
    parentPort.on('message', ({ name }) => {
      if (name === 'look') for (;;);
      if (name === 'full') { const all = []; for (;;) all.push(new Array(1e6).fill(all.length)); }
      if (name === 'linear') process.exit(3);
      parentPort.postMessage({ result: name });
    });`,
  );
  const few = new Computing({ threads: 1, seconds: 0.5, megabytes: 64 }, program);
  afterAll(() => few.close());
  test.each([
    ['look', /longer than 0.5 seconds/],
    ['full', /more than 64 MB|longer than/],
    ['linear', /ended with 3/],
  ] as const)('%s is ended with its thread, and the next ones are done', async (name, words) => {
    const others = [few.run('effect', {} as never), few.run('selvedge', {} as never)];
    const bad = few.run(name, {} as never);
    const after = few.run('baked', {} as never);
    await expect(bad).rejects.toThrow(words);
    expect(await Promise.all([...others, after])).toEqual(['effect', 'selvedge', 'baked']);
  });
});

test('memory goes along once, and what was given keeps its own', () => {
  const bytes = Buffer.from('some bytes');
  const own = ownBytes({ bytes, deep: { list: [bytes], at: new Date(0) } });
  expect(own.bytes.buffer).not.toBe(bytes.buffer);
  expect(own.deep.at).toEqual(new Date(0));
  expect(buffersIn(own)).toHaveLength(2);
  expect(programOf('computing.mjs')).toMatch(/dist\/computing\.mjs$/);
});
