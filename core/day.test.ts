import { expect, test } from 'vitest';
import { isDay } from './day';

test.each([
  ['2026-12-31', true],
  ['2024-02-29', true],
  ['2026-02-29', false],
  ['2026-13-01', false],
  ['2026-00-10', false],
  ['2026-1-1', false],
  ['26-01-01', false],
  ['2026-01-01T00:00', false],
  ['today', false],
  ['', false],
])('%s is a day: %s', (text, is) => expect(isDay(text)).toBe(is));
