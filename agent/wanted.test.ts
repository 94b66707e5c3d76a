import { createHash } from 'node:crypto';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import type { Instructions } from '@/core/sync/protocol';
import { sendWanted } from './wanted';

const root = mkdtempSync(join(tmpdir(), 'etagere-wanted-'));
const outside = mkdtempSync(join(tmpdir(), 'etagere-outside-'));
const sha = (s: string) => createHash('sha256').update(s).digest('hex');
afterAll(() => {
  for (const f of [root, outside]) rmSync(f, { recursive: true, force: true });
});

test('only files of the watched places are sent, as the inventory told them, and no link is followed outwards', async () => {
  mkdirSync(join(root, 'Looks/deep'), { recursive: true });
  writeFileSync(join(root, 'Looks/deep/a.cube'), 'aaa');
  writeFileSync(join(root, 'Looks/changed.cube'), 'new');
  writeFileSync(join(root, 'secret.txt'), 'sss');
  writeFileSync(join(outside, 'o.txt'), 'ooo');
  symlinkSync(join(outside, 'o.txt'), join(root, 'Looks/link.cube'));
  const sent: string[] = [];
  const want = (path: string, text: string) => ({ path, sha256: sha(text), size: text.length });
  const told = {
    places: [{ id: 'x', path: 'Looks' }],
    wanted: [
      want('Looks/deep/a.cube', 'aaa'),
      want('Looks/changed.cube', 'old'),
      want('secret.txt', 'sss'),
      want('Looks/link.cube', 'ooo'),
      want('Looks/../secret.txt', 'sss'),
      want('Looks/gone.cube', 'ggg'),
    ],
  } as Pick<Instructions, 'places' | 'wanted'> as Instructions;
  expect(
    await sendWanted(
      {
        sendContent: async (_sha, path, bytes) => {
          sent.push(`${path}=${bytes.toString()}`);
        },
      },
      root,
      told,
    ),
  ).toBe(1);
  expect(sent).toEqual(['Looks/deep/a.cube=aaa']);
});
