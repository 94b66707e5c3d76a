import { expect, test } from 'vitest';
import { illuminantKelvin, illuminantName } from './tags';

test('the lights of profiles are named, and one of no meaning by its code', () => {
  expect([17, 21, 23].map(illuminantName)).toEqual(['standard light A', 'D65', 'D50']);
  expect(illuminantName(255)).toBe('another light (code 255)');
});

test('every light that has a temperature has a name', () => {
  for (let code = 0; code < 256; code++)
    if (illuminantKelvin(code) !== null) expect(illuminantName(code)).not.toContain('code');
});
