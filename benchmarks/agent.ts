/** The agent at its workstation: an inventory of many files of which none has changed. */
import { mkdirSync, mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { takeInventory } from '@/agent/inventory';
import { median, type Row } from './rows';

const FOLDERS = 100;

export async function inventoryRow(files: number): Promise<Row> {
  const base = mkdtempSync(join(tmpdir(), 'etagere-bench-'));
  const [root, state] = [join(base, 'root'), join(base, 'state')];
  try {
    mkdirSync(state);
    for (let n = 0; n < files; n++) {
      const folder = join(root, 'Looks', String(n % FOLDERS));
      if (n < FOLDERS) mkdirSync(folder, { recursive: true });
      writeFileSync(join(folder, `${n}.cube`), `TITLE "${n}"\n`);
    }
    const taken = await takeInventory(root, state, ['Looks']);
    if (taken.files.length !== files) throw new Error(`${taken.files.length} of ${files} files were found`);
    const times: number[] = [];
    for (let round = 0; round < 5; round++) {
      const began = performance.now();
      await takeInventory(root, state, ['Looks']);
      times.push(performance.now() - began);
    }
    return {
      name: `the agent’s inventory of ${files.toLocaleString('en')} files, none of them changed`,
      figure: median(times),
      unit: 'ms',
      target: 1000,
      reference: { name: 'reading the folders and asking for each file', figure: plainly(root), unit: 'ms' },
    };
  } finally {
    rmSync(base, { recursive: true, force: true });
  }
}

/** What the file system takes for it at least. */
function plainly(root: string): number {
  const began = performance.now();
  const looks = join(root, 'Looks');
  for (const folder of readdirSync(looks))
    for (const name of readdirSync(join(looks, folder))) statSync(join(looks, folder, name));
  return performance.now() - began;
}
