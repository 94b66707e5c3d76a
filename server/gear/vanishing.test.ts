/** A stand-in editor lives on where a file is gone between the moment when it finds it and the moment when it reads it. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, unlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, vi } from 'vitest';
import { must } from '@/core/must';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';

test('it looks again, and lists what is there then', async () => {
  const root = mkdtempSync(join(tmpdir(), 'etagere-vanishing-'));
  const looks = join(root, 'Oxbow/Looks');
  mkdirSync(looks, { recursive: true });
  const child = spawn(
    process.execPath,
    ['dist/standins/oxbow.mjs', '--root', root, '--system', 'linux', '--edition', '2'],
    {
      stdio: ['ignore', 'pipe', 'pipe'],
    },
  );
  let said = '';
  child.stderr.on('data', (part: Buffer) => (said += part.toString()));
  try {
    await new Promise<void>((done) => child.stdout.once('data', () => done()));
    // a name that leads to nothing: found, and not to be read
    symlinkSync(join(root, 'nowhere'), join(looks, 'gone.cube'));
    await vi.waitFor(() => expect(said).toContain('it looks again'), { timeout: 20_000 });
    unlinkSync(join(looks, 'gone.cube'));
    writeFileSync(join(looks, 'here.cube'), cubeOf(must(houseLooks[0]), 9));
    const listed = () =>
      (JSON.parse(readFileSync(join(root, '.config/oxbow/contents.json'), 'utf8')) as { listed: { path: string }[] })
        .listed;
    await vi.waitFor(() => expect(listed().map(({ path }) => path)).toEqual(['Oxbow/Looks/here.cube']), {
      timeout: 20_000,
    });
    expect(child.exitCode).toBeNull();
  } finally {
    // it writes its list until it is gone
    const gone = child.exitCode === null ? once(child, 'exit') : null;
    child.kill();
    await gone;
    rmSync(root, { recursive: true, force: true });
  }
}, 60_000);
