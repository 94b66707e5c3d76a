import { expect, test } from 'vitest';
import { countedFor, delayAfter } from './sign-in-delay';

test('the wait grows with each failed try, and never beyond a quarter of an hour', () => {
  expect([0, 4, 5, 6, 7, 12, 40].map((failures) => delayAfter(failures, 5))).toEqual([0, 0, 2, 4, 8, 256, 900]);
});

test('where a person is known, what others try elsewhere is not counted', () => {
  const subjects = (known: boolean) => countedFor('odile', '192.0.2.7', known).map(({ subject }) => subject);
  expect(subjects(true)).toEqual(['account:odile from:192.0.2.7', 'from:192.0.2.7']);
  expect(subjects(false)).toContain('account:odile');
});
