/** The journal: one JSON line a fact, synced before the deed it announces. What was begun and not ended is finished or undone at the next start. */
import { existsSync } from 'node:fs';
import { mkdir, open, readFile, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { OperationResult, Plan } from '@/core/sync/protocol';

export type Fact =
  | { fact: 'begin'; plan: Plan }
  | { fact: 'staged'; n: number }
  | { fact: 'broken'; n: number }
  | { fact: 'kept'; n: number; before: string | null }
  | { fact: 'intent'; n: number; madeFolders: string[] }
  | { fact: 'result'; result: OperationResult }
  | { fact: 'end' }
  | { fact: 'reported' };

export class Journal {
  constructor(private readonly file: string) {}

  async read(): Promise<Fact[]> {
    if (!existsSync(this.file)) return [];
    const facts: Fact[] = [];
    for (const line of (await readFile(this.file, 'utf8')).split('\n')) {
      if (!line) continue;
      // a line cut off by a crash was never acted upon
      try {
        facts.push(JSON.parse(line) as Fact);
      } catch {
        break;
      }
    }
    return facts;
  }

  async write(fact: Fact): Promise<void> {
    await mkdir(dirname(this.file), { recursive: true });
    const handle = await open(this.file, 'a', 0o600);
    try {
      await handle.appendFile(JSON.stringify(fact) + '\n');
      await handle.sync();
    } finally {
      await handle.close();
    }
  }

  /** Starts over: a line that was cut off would spoil the next. */
  async restart(facts: Fact[]): Promise<void> {
    await mkdir(dirname(this.file), { recursive: true });
    const part = `${this.file}.part`;
    const handle = await open(part, 'w', 0o600);
    try {
      await handle.writeFile(facts.map((f) => JSON.stringify(f) + '\n').join(''));
      await handle.sync();
    } finally {
      await handle.close();
    }
    await rename(part, this.file);
  }

  /** A finished journal is kept beside, for `undo`. */
  async close(folder: string): Promise<void> {
    await rename(this.file, join(folder, 'journal.last')).catch(async () => {
      await rm(this.file, { force: true });
    });
  }
}
