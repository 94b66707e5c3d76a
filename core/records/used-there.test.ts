import { describe, expect, test } from 'vitest';
import { isBody, usersOf, type UsedCamera } from './used-there';

const camera = (model: string, conversion = '', names: string[] = []): UsedCamera => ({
  maker: 'Perrin',
  model,
  names,
  conversion,
});
const plain = camera('Perrin Alder', '', ['PA-1']);
const infrared = camera('Perrin Alder', 'infrared', ['PA-1']);

describe('a body', () => {
  test.each([
    [plain, 'Perrin Alder', true],
    [plain, 'PERRIN ALDER', true],
    [plain, 'PA-1', true],
    [plain, 'Perrin Alder, infrared', false],
    [infrared, 'Perrin Alder, infrared', true],
    [infrared, 'PA-1, infrared', true],
    [infrared, 'Perrin Alder', false],
  ])('%j is %s: %s', (one, body, is) => expect(isBody(one, body)).toBe(is));
});

test('an item is for the bodies that it names, and for all where it names none', () => {
  expect(usersOf([plain, infrared], ['Perrin Alder, infrared'])).toEqual([infrared]);
  expect(usersOf([plain], ['Ondine 40'])).toEqual([]);
  expect(usersOf([plain, infrared], [])).toEqual([plain, infrared]);
});
