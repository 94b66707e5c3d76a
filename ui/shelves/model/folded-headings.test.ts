import { expect, test } from 'vitest';
import { foldedIn, withFolding } from './folded-headings';

const folded = (text: string) => foldedIn(new URLSearchParams({ folded: text }));

test('headings are folded and unfolded one by one, and the address says which', () => {
  expect(foldedIn(new URLSearchParams())).toEqual(new Set());
  expect(withFolding(new Set(), 'House / Stage', true)).toBe('House / Stage');
  expect(withFolding(folded('House / Stage'), 'House', true)).toBe('House / Stage|House');
  expect(withFolding(folded('House / Stage|House'), 'House / Stage', false)).toBe('House');
  expect(withFolding(folded('House'), 'House', false)).toBeNull();
});

test('what is folded twice, or is not, changes nothing', () => {
  expect(withFolding(folded('House'), 'House', true)).toBe('House');
  expect(withFolding(folded('House'), 'Stage', false)).toBe('House');
});
