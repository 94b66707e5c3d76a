/** A stand-in editor on a folder tree, as its station has it: what it lists, refuses and offers, in its own words. */
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Descriptor } from '@/core/editor/descriptor';
import type { System } from '@/core/editor/place-schema';
import { must } from '@/core/must';
import { resolveTemplate } from '@/core/sync/place-templates';

export interface Card {
  path: string;
  card: 'shown' | 'empty';
  reason: string;
  offers: string[];
  calibration?: string;
}
export interface Catalogue {
  listed: { path: string; title: string; kind: string }[];
  refused: { path: string; reason: string }[];
  cards: Card[];
}

/** Starts the program as its station does, waits for its list, ends it. */
export async function runEditor(root: string, system: System, descriptor: Descriptor): Promise<Catalogue> {
  const list = join(root, resolveTemplate(must(descriptor.listing[system]), system));
  const words = ['--root', root, '--system', system, '--edition', descriptor.version];
  const child = spawn(process.execPath, [`dist/standins/${descriptor.editor}.mjs`, ...words], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((done, fail) => {
    child.stdout.once('data', () => done());
    child.once('exit', (status) => fail(new Error(`ended with ${status}`)));
  });
  const out = JSON.parse(readFileSync(list, 'utf8')) as Catalogue;
  child.removeAllListeners('exit');
  await new Promise((done) => {
    child.once('exit', done);
    child.kill();
  });
  return out;
}
