import { describe, expect, test } from 'vitest';
import fc from 'fast-check';
import { must } from '../../must';
import { openIni } from './ini';

const encoded = (text: string): Uint8Array => new TextEncoder().encode(text);
const texts = (bytes: Uint8Array): string => new TextDecoder('utf-8', { ignoreBOM: true }).decode(bytes);

/** What a file becomes when a key of a section of it is set. */
function written(text: string | Uint8Array, section: string, key: string, value: string): Uint8Array {
  const open = openIni(typeof text === 'string' ? encoded(text) : text);
  must(open.steps().find((step) => step.name === section)).set(key, { text: value, json: value });
  return open.bytes();
}

describe('an INI file that is written', () => {
  const windows = '; made there\r\n[Light]\r\n  stops = 1.5  \r\nside=warm\r\n\r\n[Room]\r\nwall = red\r\n';

  test('keeps spaces and line ends, in the line that changes too', () =>
    expect(texts(written(windows, 'Light', 'stops', '2'))).toBe(windows.replace('1.5', '2')));

  test('has new keys end as the others do, before the empty lines of their section', () =>
    expect(texts(written(windows, 'Light', 'heat', '7'))).toBe(windows.replace('warm\r\n', 'warm\r\nheat=7\r\n')));

  test('has new keys spaced as the ones before them', () =>
    expect(texts(written('[a]\n  x = 1\n', 'a', 'y', '2'))).toBe('[a]\n  x = 1\n  y = 2\n'));

  test('has a new section, and loses one', () => {
    const open = openIni(encoded(windows));
    open.add('Film').set('name', { text: 'gray', json: 'gray' });
    open.drop(must(open.steps().find(({ name }) => name === 'Light')));
    expect(texts(open.bytes())).toBe('; made there\r\n[Room]\r\nwall = red\r\n[Film]\r\nname=gray\r\n');
  });

  test('ends without a line end where it did, and begins one for what comes behind', () => {
    expect(texts(written('[a]\nx=1', 'a', 'x', '2'))).toBe('[a]\nx=2');
    expect(texts(written('[a]\nx=1', 'a', 'y', '2'))).toBe('[a]\nx=1\ny=2\n');
  });

  test('has a value where there was none', () =>
    expect(['x=', 'x =', 'x = '].map((line) => texts(written(`[a]\n${line}\ny = \n`, 'a', 'x', 'one')))).toEqual([
      '[a]\nx=one\ny = \n',
      '[a]\nx = one\ny = \n',
      '[a]\nx = one\ny = \n',
    ]));

  test('keeps its byte order mark', () =>
    expect(texts(written('\ufeff[a]\nx=1\n', 'a', 'x', 'ä'))).toBe('\ufeff[a]\nx=ä\n'));

  test('stays in Windows-1252, unless that has no sign for what is written', () => {
    // "[a]", a name of "é" and the sign of the euro at 80, which Latin-1 has not
    const given = Uint8Array.of(...encoded('[a]\nx='), 0xe9, 0x80, ...encoded('\ny=1\n'));
    expect(written(given, 'a', 'y', 'ü€')).toEqual(
      Uint8Array.of(...encoded('[a]\nx='), 0xe9, 0x80, ...encoded('\ny='), 0xfc, 0x80, 0x0a),
    );
    expect(texts(written(given, 'a', 'y', 'Ж'))).toBe('[a]\nx=é€\ny=Ж\n');
  });

  test('is the same to the byte where nothing is changed', () => {
    const part = fc.stringMatching(/^[a-z ]{0,6}$/);
    const end = fc.constantFrom('\n', '\r\n');
    const line = fc.oneof(
      fc.tuple(fc.constant('k'), part, fc.constant('='), part, part).map((words) => words.join('')),
      part.map((name) => `[${name}x]`),
      part.map((words) => `;${words}`),
      fc.constant(''),
    );
    const file = fc.array(
      fc.tuple(line, end).map((words) => words.join('')),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(file, line, (lines, last) => {
        const text = lines.join('') + last;
        expect(texts(openIni(encoded(text)).bytes())).toBe(text);
      }),
    );
  });
});
