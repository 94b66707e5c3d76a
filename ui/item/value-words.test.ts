import { describe, expect, test } from 'vitest';
import { factName, valueText } from './value-words';

describe('values of files in words', () => {
  test.each([
    [0.123456, '0.123'],
    [[1, 2.5], '1, 2.5'],
    [
      [
        [0, 0],
        [1, 1],
      ],
      '0, 0; 1, 1',
    ],
    [true, 'yes'],
    [null, 'none'],
    [{ slope: 1.1, offset: 0 }, 'slope 1.1, offset 0'],
  ])('%j', (value, words) => expect(valueText(value)).toBe(words));

  test('names of facts', () => {
    expect(factName('colorMatrix')).toBe('Color matrix');
    expect(factName('web_statement')).toBe('Web statement');
  });
});
