/** Which of two versions of the agent comes first. */
import { expect, test } from 'vitest';
import { isBefore } from './update';

test.each([
  ['0.9.0', '0.10.0', true],
  ['0.10', '0.9.9', false],
  ['1', '1.0.0', false],
  ['1.0', '1.0.1', true],
])('version %s before %s: %s', (version, other, is) => {
  expect(isBefore(version, other)).toBe(is);
});
