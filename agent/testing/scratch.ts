/** Stations of tests on a real file system, and a process that carries out a plan there until it is killed. */
import { spawnSync, type SpawnSyncReturns } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from 'esbuild';
import type { Plan } from '@/core/sync/protocol';

export interface ScratchStation {
  root: string;
  /** of the agent */ state: string;
  /** what the server has, each content under its hash */ contents: string;
}

export const sha = (text: string): string => createHash('sha256').update(text).digest('hex');

export class Scratch {
  readonly base: string;
  private readonly program: string;
  private made = 0;

  constructor(name: string) {
    this.base = mkdtempSync(join(tmpdir(), name));
    this.program = join(this.base, 'crash.mjs');
  }

  /** A fresh station with nothing in it. */
  station(): ScratchStation {
    const at = join(this.base, String(++this.made));
    const station = { root: join(at, 'root'), state: join(at, 'state'), contents: join(at, 'contents') };
    for (const folder of Object.values(station)) mkdirSync(folder, { recursive: true });
    return station;
  }

  buildProgram(): Promise<unknown> {
    return build({
      entryPoints: ['agent/testing/crash.fixture.ts'],
      bundle: true,
      platform: 'node',
      format: 'esm',
      mainFields: ['module', 'main'],
      outfile: this.program,
      alias: { '@': process.cwd() },
      banner: { js: "import { createRequire as __c } from 'node:module'; const require = __c(import.meta.url);" },
    });
  }

  /** Carries the plan out in a process of its own, killed before its step number `dieAt`; 0 lets it live. */
  carryOut(station: ScratchStation, plan: Plan | null, dieAt: number): SpawnSyncReturns<string> {
    const input = join(station.state, 'input.json');
    writeFileSync(input, JSON.stringify({ ...station, plan, dieAt }));
    return spawnSync(process.execPath, [this.program, input], { encoding: 'utf8' });
  }

  remove(): void {
    rmSync(this.base, { recursive: true, force: true });
  }
}
