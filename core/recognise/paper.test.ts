import { describe, expect, test } from 'vitest';
import { paperText } from './paper';

const utf8 = (text: string) => new TextEncoder().encode(text);

describe('the text of a paper', () => {
  test('is read as what it is encoded in', () => {
    expect(paperText(utf8('Für Größe'), 'txt')).toBe('Für Größe');
    expect(paperText(Uint8Array.from([0xef, 0xbb, 0xbf, ...utf8('mark')]), 'txt')).toBe('mark');
    expect(paperText(Uint8Array.from([0xff, 0xfe, 0x41, 0, 0xe4, 0]), 'txt')).toBe('Aä');
    expect(paperText(Uint8Array.from([0xfe, 0xff, 0, 0x41, 0, 0xe4]), 'txt')).toBe('Aä');
    expect(paperText(Uint8Array.from([0x46, 0xfc, 0x72]), 'txt')).toBe('Für');
  });
  test('has one kind of line end', () => {
    expect(paperText(utf8('a\r\nb\rc\nd'), 'md')).toBe('a\nb\nc\nd');
  });
  test('is none for what another program is needed for', () => {
    expect(paperText(utf8('%PDF-1.7'), 'pdf')).toBeNull();
    expect(paperText(utf8('{\\rtf'), 'rtf')).toBeNull();
  });
  test('is cut where it is very long', () => {
    expect(paperText(utf8('x'.repeat(500_000)), 'txt')).toHaveLength(400_000);
  });
});
