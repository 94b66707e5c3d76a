// Where things are: the clone, the data folder, the programs built from the clone. No dependencies: it runs before npm ci.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));
export const isRoot = process.getuid?.() === 0;

/** $ETAGERE_DATA, else /var/lib/etagere for root, else the user's data folder. */
export function dataFolder() {
  const folder =
    process.env.ETAGERE_DATA ||
    (isRoot ? '/var/lib/etagere' : join(process.env.XDG_DATA_HOME || join(homedir(), '.local', 'share'), 'etagere'));
  mkdirSync(folder, { recursive: true });
  return folder;
}

export const say = (text) => process.stderr.write(`etagere: ${text}\n`);

export function run(command, args, options = {}) {
  const r = spawnSync(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], ...options });
  if (r.status !== 0) throw new Error(`${command} ${args.join(' ')} ended with ${r.status ?? r.signal}`);
}

/** Hash of all files below the given folders and files of the clone, by content. */
export function hashOf(paths) {
  const hash = createHash('sha256');
  const walk = (path) => {
    const full = join(root, path);
    if (!existsSync(full)) return;
    if (statSync(full).isDirectory())
      for (const name of readdirSync(full).sort()) {
        if (name !== 'node_modules' && name !== '.out') walk(join(path, name));
      }
    else if (!/\.(test|spec)\.tsx?$|\.md$|\.png$/.test(path))
      hash.update(path).update('\0').update(readFileSync(full)).update('\0');
  };
  paths.forEach(walk);
  return hash.digest('hex');
}

/** Runs `make` when the stamp does not say this hash yet. */
export function onceFor(stamp, hash, make) {
  const file = join(root, stamp);
  if (existsSync(file) && readFileSync(file, 'utf8') === hash) return false;
  make();
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(file, hash);
  return true;
}

/** node_modules as the lock file says. */
export function ensurePackages() {
  onceFor('node_modules/.etagere-stamp', hashOf(['package-lock.json']), () => {
    say('installing packages (npm ci)');
    run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { stdio: ['ignore', 2, 2] });
  });
}

/** Installs Debian packages where a program is missing; root only. */
export function ensureDebian(program, packages) {
  if (spawnSync('sh', ['-c', `command -v ${program}`], { stdio: 'ignore' }).status === 0) return;
  if (!isRoot) throw new Error(`${program} is not installed. Install Debian's ${packages.join(' ')} and start again.`);
  say(`installing ${packages.join(' ')} from Debian`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env, stdio: ['ignore', 2, 2] });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...packages], { env, stdio: ['ignore', 2, 2] });
}
