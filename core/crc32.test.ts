import { expect, test } from 'vitest';
import { crc32 } from './crc32';

test('the checksum is that of the standard’s own check, and of nothing', () => {
  expect(crc32(new TextEncoder().encode('123456789'))).toBe(0xcbf43926);
  expect(crc32(new Uint8Array())).toBe(0);
});
