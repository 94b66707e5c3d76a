/**
 * What the stand-in editors have in common as programs: arguments, a walk of their folders, their own list on disk, and a
 * life until they are told to quit. Shares nothing with Etagere: it is told of by a descriptor, like any editor.
 */
import { mkdirSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { parseArgs } from 'node:util';

export interface Listed {
  path: string;
  title: string;
  kind: string;
  headings: string[];
  /** what it holds, of things that it keeps elsewhere than where they were put */ sha256?: string;
}
export interface Contents {
  listed: Listed[];
  refused: { path: string; reason: string }[];
  /** paths of what its user has put into the short list, in that order */ favorites?: string[];
  /** the photos on its desk */ cards?: {
    path: string;
    card: 'shown' | 'empty';
    reason: string;
    offers: string[];
    calibration?: string;
    opens?: Record<string, string | number | boolean>;
  }[];
}

export const options = (() => {
  const { values } = parseArgs({
    options: { root: { type: 'string' }, system: { type: 'string' }, edition: { type: 'string' } },
  });
  if (!values.root || !values.system) {
    process.stderr.write('use: --root DIR --system macos|windows|linux [--edition N]\n');
    process.exit(2);
  }
  return { root: values.root, system: values.system, edition: values.edition ?? '' };
})();

/** Files below a folder of the root, as root-relative paths, in order. */
export function files(folder: string): string[] {
  const out: string[] = [];
  const walk = (at: string): void => {
    let names: string[];
    try {
      names = readdirSync(join(options.root, at)).sort();
    } catch {
      return;
    }
    for (const name of names) {
      const path = `${at}/${name}`;
      if (statSync(join(options.root, path)).isDirectory()) walk(path);
      else if (!name.startsWith('.')) out.push(path);
    }
  };
  walk(folder);
  return out;
}

/** When a file was last changed, in milliseconds. */
export const modified = (path: string): number => statSync(join(options.root, path)).mtimeMs;

export const read = (path: string): Buffer => readFileSync(join(options.root, path));

/** Reads each file by its own reader; what it throws is the reason of the refusal. */
export function take(paths: string[], reader: (path: string) => Omit<Listed, 'path'>): Contents {
  const out: Contents = { listed: [], refused: [] };
  for (const path of paths) {
    try {
      out.listed.push({ path, ...reader(path) });
    } catch (error) {
      out.refused.push({ path, reason: (error as Error).message });
    }
  }
  return out;
}

interface Habits {
  /** milliseconds after which it looks again whether something in its folders changed; without, it reads them at launch alone */
  again?: number;
  /** what it does before it ends */
  atQuit?: () => void;
  /** works off the pictures that it is asked for */
  print?: () => Promise<void>;
  /** what it does when a person has it take in what lies in its hand-off folder; it looks again afterwards */
  takeIn?: () => void;
}

/** Milliseconds after which it looks again whether a picture is asked for. */
const PRINTS_EVERY = 400;

/** All files below the root with their sizes and times, as one text, but for some. */
const stateOf = (but: readonly string[]): string =>
  JSON.stringify(
    files('')
      .filter((path) => !but.includes(path))
      .map((path) => {
        try {
          const stats = statSync(join(options.root, path));
          return [path, stats.size, stats.mtimeMs];
        } catch {
          return [path];
        }
      }),
  );

/** Runs until SIGTERM. `scan` is called at launch, and again where the program rescans. */
export function live(
  listFile: string,
  logFile: string,
  scan: () => Contents,
  { again, atQuit, takeIn, print }: Habits = {},
): void {
  let last = '';
  const write = (running: boolean, contents: Contents): void => {
    const target = join(options.root, listFile);
    mkdirSync(dirname(target), { recursive: true });
    writeFileSync(
      `${target}.new`,
      JSON.stringify({ at: new Date().toISOString(), running, pid: process.pid, ...contents }, null, 1),
    );
    renameSync(`${target}.new`, target);
  };
  const look = (): Contents => {
    const contents = scan();
    writeFileSync(
      join(options.root, logFile),
      [...contents.refused, ...(contents.cards ?? []).filter((c) => c.card === 'empty')]
        .map((r) => `${r.path}: ${r.reason}\n`)
        .join(''),
    );
    return contents;
  };
  const target = join(options.root, listFile);
  mkdirSync(dirname(target), { recursive: true });
  let contents = look();
  write(true, contents);
  const state = (): string => stateOf([`/${listFile}`, `/${logFile}`]);
  last = again ? state() : '';
  const timer = setInterval(() => {
    if (!again) return;
    try {
      const now = state();
      if (now === last) return;
      contents = look();
      write(true, contents);
      last = now;
    } catch (error) {
      // a file that was just found may be gone when it is read: the next look finds how it is then
      process.stderr.write(`it looks again: ${(error as Error).message}\n`);
    }
  }, again ?? 60_000);
  let printing = false;
  const printer = setInterval(() => {
    if (!print || printing) return;
    printing = true;
    void print().finally(() => {
      printing = false;
    });
  }, PRINTS_EVERY);
  const quit = (): void => {
    clearInterval(timer);
    clearInterval(printer);
    atQuit?.();
    write(false, contents);
    process.exit(0);
  };
  process.on('SIGUSR2', () => {
    takeIn?.();
    contents = look();
    write(true, contents);
    process.stdout.write('taken in\n');
  });
  process.on('SIGTERM', quit);
  process.on('SIGINT', quit);
  process.stdout.write('ready\n');
}
