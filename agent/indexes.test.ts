/** Editors' indexes as the agent tells them. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { readIndexes } from './inventory';

const root = mkdtempSync(join(tmpdir(), 'etagere-indexes-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));

test.each([
  ['with a byte order mark and the line ends of Windows', '\ufeffTöpferei.cube\r\n', '\ufeffTöpferei.cube\r\n'],
  ['that is empty', '', ''],
  ['of one byte a letter', Uint8Array.of(0x54, 0xf6, 0x70, 0x66, 0x0a), 'T\ufffdpf\n'],
  ['that is longer than any', 'x.cube\n'.repeat(80_000), null],
])('an index %s', async (_, content, text) => {
  writeFileSync(join(root, 'LOOKS.LST'), content);
  expect(await readIndexes(root, ['LOOKS.LST', 'NONE.LST'])).toEqual(
    text === null ? [] : [{ path: 'LOOKS.LST', text }],
  );
});
