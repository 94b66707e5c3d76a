import { expect, test } from 'vitest';
import { leftWords } from './approve';

const left = (title: string) => ({ id: title, title, why: 'its encoding is only assumed' });

test('what was not approved is told by the first of it and how many more', () => {
  expect(leftWords([])).toBe('');
  expect(leftWords([left('Ash')])).toBe(' 1 was not approved: Ash (its encoding is only assumed).');
  expect(leftWords([left('Ash'), left('Raku'), left('Slip')])).toBe(
    ' 3 were not approved: Ash (its encoding is only assumed) and 2 more.',
  );
});
