/** Files shown in the file manager of a workstation: real programs, and what they are given. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildSync } from 'esbuild';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { ServerError } from './faults';
import { showAsked } from './reveal';

let folder: string;
let told: [id: string, fault: string][];
let asked = 0;
const place = { id: 'oxbow@2/looks', path: 'Oxbow/Looks' };
const bundle = { id: 'tessel@7/lists', path: 'Tessel/tessel.json#presets' };

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'etagere-show-'));
  mkdirSync(join(folder, 'root/Oxbow/Looks'), { recursive: true });
  writeFileSync(join(folder, 'root/Oxbow/Looks/Wet Clay.cube'), 'x');
  writeFileSync(
    join(folder, 'manager.mjs'),
    "import { writeFileSync } from 'node:fs';\nwriteFileSync(new URL('given', import.meta.url), process.argv[2]);\n",
  );
  told = [];
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** Has it show a path, under an id of its own unless one is said. */
async function show(path: string, own = join(folder, 'manager.mjs'), id = `id ${++asked}`): Promise<void> {
  const tellShown = async (id: string, fault: string): Promise<void> => void told.push([id, fault]);
  const context = { server: { tellShown }, root: join(folder, 'root'), system: 'linux' as const, own };
  await showAsked(context, { places: [place, bundle], show: { id, path } });
}
const given = (): string | null =>
  existsSync(join(folder, 'given')) ? readFileSync(join(folder, 'given'), 'utf8') : null;
const fault = (): string | undefined => told.at(-1)?.[1];

test('a file is given to the file manager, whole and once', async () => {
  await show('Oxbow/Looks/Wet Clay.cube', undefined, 'once');
  expect([given(), fault()]).toEqual([join(folder, 'root/Oxbow/Looks/Wet Clay.cube'), '']);
  await show('Oxbow/Looks/Wet Clay.cube', undefined, 'once');
  expect(told).toEqual([['once', '']]);
});

test('of an entry of a bundle, the bundle', async () => {
  mkdirSync(join(folder, 'root/Tessel'));
  writeFileSync(join(folder, 'root/Tessel/tessel.json'), '{}');
  await show('Tessel/tessel.json#presets/Late Gallery');
  expect(given()).toBe(join(folder, 'root/Tessel/tessel.json'));
});

test('what lies outside, or behind a link that leads there, is not shown', async () => {
  await show('Documents/letter.txt');
  expect(fault()).toMatch(/outside/);
  await show('Oxbow/Looks/../../../etc/passwd');
  expect(fault()).toMatch(/outside/);
  symlinkSync('/etc', join(folder, 'root/Oxbow/Looks/away'));
  await show('Oxbow/Looks/away/passwd');
  expect(fault()).toBeTruthy();
  expect(given()).toBeNull();
});

test('that there is no file manager, or that it fails, is told', async () => {
  await show('Oxbow/Looks/Wet Clay.cube', join(folder, 'none'));
  expect(fault()).toMatch(/^there is no .*none there$/);
  writeFileSync(join(folder, 'bad.mjs'), 'process.exit(3);\n');
  await show('Oxbow/Looks/Wet Clay.cube', join(folder, 'bad.mjs'));
  expect(fault()).toMatch(/ended with 3/);
});

test('an agent that has nothing else to do lives on while it waits for the file manager', () => {
  const program = join(folder, 'alone.mjs');
  buildSync({
    stdin: {
      contents: `
        import { showAsked } from './agent/reveal';
        const server = { tellShown: async (id, fault) => console.log('told', fault) };
        const place = { id: 'x', path: 'Oxbow/Looks' };
        const show = { id: 'one', path: 'Oxbow/Looks/Wet Clay.cube' };
        await showAsked({ server, root: process.argv[2], system: 'linux', own: process.argv[3] }, { places: [place], show });
      `,
      resolveDir: process.cwd(),
    },
    bundle: true,
    platform: 'node',
    format: 'esm',
    mainFields: ['module', 'main'],
    banner: { js: "import { createRequire as __c } from 'node:module'; const require = __c(import.meta.url);" },
    alias: { '@': process.cwd() },
    outfile: program,
  });
  const words = [program, join(folder, 'root'), join(folder, 'manager.mjs')];
  const { status, stdout } = spawnSync(process.execPath, words, { encoding: 'utf8' });
  expect([status, stdout]).toEqual([0, 'told \n']);
});

test('a server that does not wait for it any more holds nothing up', async () => {
  const server = { tellShown: () => Promise.reject(new ServerError('gone')) };
  const context = { server, root: join(folder, 'root'), system: 'linux' as const, own: join(folder, 'manager.mjs') };
  await expect(
    showAsked(context, { places: [place], show: { id: 'late', path: 'Oxbow/Looks/Wet Clay.cube' } }),
  ).resolves.toBeUndefined();
});
