import { expect, test } from 'vitest';
import { entryName } from './entry-name';
import { entryPath } from './entry-rules';

const bytes = (...parts: (string | number)[]): Uint8Array =>
  Uint8Array.from(parts.flatMap((part) => (typeof part === 'number' ? [part] : [...part].map((c) => c.charCodeAt(0)))));

test.each([
  ['UTF-8', new TextEncoder().encode('Größe 暖.cube'), 'Größe 暖.cube'],
  ['code page 437', bytes('Gr', 0x81, 'n.cube'), 'Grün.cube'],
  ['code page 437', bytes('caf', 0x82, '/', 0x8e, 'pfel.cube'), 'café/Äpfel.cube'],
  ['code page 437', bytes('Gr', 0x94, 0xe1, 'e.cube'), 'Größe.cube'],
  ['Shift-JIS', bytes(0x83, 0x65, 0x83, 0x58, 0x83, 0x67, '.cube'), 'テスト.cube'],
  // 表示: the second byte of the first sign is that of a back slash
  ['Shift-JIS', bytes('a/', 0x95, 0x5c, 0x8e, 0xa6, '.cube'), 'a/表示.cube'],
])('names in %s are read as they were meant', (_, raw, name) => {
  expect(entryName(raw)).toBe(name);
});

test('a back slash inside a double byte splits no path', () => {
  expect(entryPath(entryName(bytes(0x95, 0x5c, 0x8e, 0xa6, '\\b.cube')))).toBe('表示/b.cube');
});
