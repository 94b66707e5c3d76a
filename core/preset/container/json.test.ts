import { describe, expect, test } from 'vitest';
import fc from 'fast-check';
import { must } from '../../must';
import { openJson } from './json';

const encoded = (text: string): Uint8Array => new TextEncoder().encode(text);
const texts = (bytes: Uint8Array): string => new TextDecoder('utf-8', { ignoreBOM: true }).decode(bytes);
const opened = (text: string) => openJson(encoded(text));
const step = (text: string, name: string) =>
  must(
    opened(text)
      .steps()
      .find((one) => one.name === name),
  );

describe('a JSON preset that is written', () => {
  test('keeps whole numbers that no double holds', () => {
    const text = '{\n  "made": 638412345678901234,\n  "tone": {\n    "gain": 1.5\n  }\n}\n';
    const open = opened(text);
    must(open.steps().find(({ name }) => name === 'tone')).set('gain', { text: '2', json: 2 });
    expect(texts(open.bytes())).toBe(text.replace('1.5', '2'));
  });

  test('has them read as their digits', () =>
    expect(step('{"a":{"id":-9223372036854775808}}', 'a').attributes()).toEqual({ id: '-9223372036854775808' }));

  test('takes no digits of a text or of a fraction for one', () => {
    const text = '{\n  "a": "id 638412345678901234",\n  "b": 0.12345678901234568,\n  "c\\"": [\n    1\n  ]\n}\n';
    expect(texts(opened(text).bytes())).toBe(text);
  });

  test('stays JSON where a key of it looks like our own mark', () => {
    const open = opened('{"\\u0000integer:7": 1, "made": 638412345678901234}');
    expect(Object.keys(JSON.parse(texts(open.bytes())) as object)).toEqual(['\u0000integer:7', 'made']);
  });

  test.each([
    ['tabs', '{\n\t"a": 1\n}\n'],
    ['four spaces and the line ends of Windows', '{\r\n    "a": 1\r\n}\r\n'],
    ['a byte order mark', '\ufeff{\n  "a": 1\n}\n'],
  ])('keeps %s', (_, text) => expect(texts(opened(text).bytes())).toBe(text));

  test('says the same where nothing is changed', () =>
    fc.assert(
      fc.property(fc.dictionary(fc.string(), fc.jsonValue()), (value) => {
        const text = JSON.stringify(value);
        expect(JSON.parse(texts(opened(text).bytes()))).toEqual(JSON.parse(text));
      }),
    ));
});

test('what is no JSON is refused with the reason', () =>
  expect(() => opened('{"a": 638412345678901234,}')).toThrow(
    expect.objectContaining({ code: 'json-malformed' }) as Error,
  ));
