import { expect, test } from 'vitest';
import { listsShown, MOST_LISTS, placesOf } from './shown';

const list = (id: string, state: string, path = 'a') => ({ station: { id }, state, path });

test('stations where something would change come first, whole, and a large fleet is cut', () => {
  const lists = [list('1', 'in-step'), list('2', 'in-step'), list('2', 'update-due', 'b'), list('3', 'unread')];
  expect(listsShown(lists).map(({ station, path }) => station.id + path)).toEqual(['2a', '2b', '3a', '1a']);
  const many = Array.from({ length: 1000 }, (_, n) => list(String(n), n === 900 ? 'update-due' : 'in-step'));
  expect(listsShown(many)).toHaveLength(MOST_LISTS);
  expect(listsShown(many)[0]?.station.id).toBe('900');
});

test('an editor that has several lists is planned once, and so many at most', () => {
  const own = (station: string, path: string) => ({
    ...list(station, 'update-due', path),
    editor: { id: 'oxbow', version: '2' },
  });
  expect(placesOf([own('1', 'a'), own('1', 'b'), own('2', 'a')])).toEqual([
    { station: '1', editor: 'oxbow', version: '2' },
    { station: '2', editor: 'oxbow', version: '2' },
  ]);
  expect(placesOf(Array.from({ length: 900 }, (_, n) => own(String(n), 'a')))).toHaveLength(500);
});
