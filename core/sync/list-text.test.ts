import { expect, test } from 'vitest';
import { asLines, linesOf, withoutMark } from './list-text';

const text = (bytes: Uint8Array): string => new TextDecoder('utf-8', { ignoreBOM: true }).decode(bytes);

test('lines are read and written as they were: mark, ends of lines, an end missing at the end', () => {
  expect(linesOf('\ufeffa\r\n\r\nb')).toEqual(['a', '', 'b']);
  expect(linesOf('')).toEqual([]);
  expect(withoutMark('\ufeff[]')).toBe('[]');
  for (const before of ['a\nb\n', '\ufeffa\r\nb\r\n', '\ufeffa\nb\n'])
    expect(text(asLines(linesOf(before), before))).toBe(before);
  expect(text(asLines([], ''))).toBe('');
});
