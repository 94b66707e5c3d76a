import { expect, test } from 'vitest';
import { isProvisional } from './display';

const now = Date.parse('2026-11-25T12:00:00Z');
test.each([
  ['p3', '2026-11-20', false],
  ['srgb', '2026-08-28', false],
  ['srgb', '2026-08-20', true],
  ['', '2026-11-20', true],
  ['p3', '', true],
  ['p3', 'nonsense', true],
  ['p3', '2027-01-01', true],
] as const)('on a display of gamut "%s" calibrated on "%s", a verdict is provisional: %s', (gamut, calibrated, is) =>
  expect(isProvisional({ gamut, calibrated }, now)).toBe(is),
);
