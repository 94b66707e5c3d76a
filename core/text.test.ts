import { describe, expect, test } from 'vitest';
import fc from 'fast-check';
import { strFromU8, strToU8 } from 'fflate';
import { decodeText, escapeXml, storable } from './text';
import { decodeXml, encodeXml, xmlRoot } from './xml';
import { lensFacts } from './lens/facts';

describe('text', () => {
  test('UTF-8 with and without a byte order mark; older files of one byte a letter', () => {
    expect(decodeText(strToU8('Glasur — grün'), 'x')).toBe('Glasur — grün');
    expect(decodeText(Uint8Array.of(0xef, 0xbb, 0xbf, 0x61), 'x')).toBe('a');
    expect(decodeText(Uint8Array.of(0x67, 0x72, 0xfc, 0x6e, 0x80), 'x')).toBe('grün€');
  });
  test.each([
    ['little end first', Uint8Array.of(0xff, 0xfe, 0x61, 0)],
    ['big end first', Uint8Array.of(0xfe, 0xff, 0, 0x61)],
    ['without a mark', Uint8Array.of(0x61, 0, 0x62, 0)],
  ])('UTF-16, %s, is told as such', (_, bytes) => {
    expect(() => decodeText(bytes, 'table')).toThrow(
      expect.objectContaining({ code: 'text-utf16', remedy: expect.stringContaining('UTF-8') as string }) as Error,
    );
  });
  test('what holds a zero byte is no text, and its place is told', () => {
    expect(() => decodeText(Uint8Array.of(1, 2, 3, 4, 5, 0, 7), 'table')).toThrow(
      expect.objectContaining({ code: 'text-binary', where: 'byte 5' }) as Error,
    );
  });
  test('whatever is escaped comes back from a parser as it was, but for characters that XML forbids', () => {
    const hard = `a < b & "c" > 'd' \u{1f3fa} ]]> é`;
    expect(xmlRoot(strToU8(`<a t="${escapeXml(hard)}"/>`)).attributes.t).toBe(hard);
    expect(escapeXml('a\u0000b\u0008c\u001fd\ufffee\nf\tg')).toBe('abcde\nf\tg');
  });
});

describe('XML as text', () => {
  const declared = (label: string): Uint8Array => strToU8(`<?xml version="1.0" encoding="${label}"?><a/>`);
  test('is read by the encoding that it names where it is no UTF-8, and by an older one where that is unknown', () => {
    const letters = [0xc6, 0xe0, 0xf0];
    const of = (label: string) => decodeXml(Uint8Array.of(...declared(label), ...letters), 'x').slice(-3);
    expect(of('windows-1251')).toBe('Жар');
    // one that says Unicode and is none is as little help as one that nobody knows
    for (const label of ['no-such-encoding', 'UTF-8', 'utf-16']) expect(of(label)).toBe('Æàð');
    expect(decodeXml(Uint8Array.of(...declared('windows-1251'), ...strToU8('Ж')), 'x').slice(-1)).toBe('Ж');
  });
  test('is written as UTF-8, and says so', () => {
    expect(strFromU8(encodeXml('<?xml version="1.0" encoding=\'ISO-8859-1\' standalone="yes"?><a b="é"/>'))).toBe(
      '<?xml version="1.0" encoding=\'UTF-8\' standalone="yes"?><a b="é"/>',
    );
    for (const same of ['<?xml version="1.0" encoding="utf-8"?><a/>', '<a encoding="windows-1252"/>'])
      expect(strFromU8(encodeXml(same))).toBe(same);
  });
});

describe('the root of an XML file', () => {
  test('its name, namespace and attributes, and its children in order', () => {
    const root = xmlRoot(
      strToU8(
        '<?xml version="1.0"?><p:shelf xmlns:p="urn:made-up" p:size="2" b="x"><p:one><deep/></p:one><two/></p:shelf>',
      ),
    );
    expect(root).toMatchObject({ name: 'shelf', uri: 'urn:made-up', children: ['one', 'two'], elements: 4 });
    expect(root.attributes).toMatchObject({ 'p:size': '2', b: 'x' });
  });
  test('of children, the first two hundred are named and all are counted', () => {
    const root = xmlRoot(strToU8(`<a>${'<b/>'.repeat(500)}</a>`));
    expect(root.children).toHaveLength(200);
    expect(root.elements).toBe(501);
  });
  test.each([
    ['a document type', '<!DOCTYPE a><a/>', 'xml-doctype'],
    ['an entity of its own', '<a>&kiln;</a>', 'xml-entity'],
    ['a tag left open', '<a>\n<b>\n</a>', 'xml-malformed'],
    ['two roots', '<a/><b/>', 'xml-malformed'],
    ['nothing', '', 'xml-malformed'],
    ['depth', '<a>'.repeat(70) + '</a>'.repeat(70), 'xml-depth'],
    ['an unbound prefix', '<p:a/>', 'xml-malformed'],
    ['an attribute twice', '<a b="1" b="2"/>', 'xml-malformed'],
  ])('%s is refused with its line', (_, text, code) => {
    expect(() => xmlRoot(strToU8(text))).toThrow(
      expect.objectContaining({ code, where: expect.stringMatching(/^line \d/) as string }) as Error,
    );
  });
});

describe('the facts of a lens database', () => {
  const of = (
    inner: string,
    root = '<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="2026.2">',
  ) => strToU8(`${root}${inner}</lens-database>`);
  test('counted: mounts, cameras, lenses, series, samples', () => {
    const series = (n: number) => `<series>${'<sample/>'.repeat(n)}</series>`;
    expect(
      lensFacts(
        of(
          `<mount name="Alder"/><mount name="Ley"/><camera/><lens maker="Corvane" model="35 mm">${series(4)}${series(2)}</lens><lens model="Unmarked 50"/>`,
        ),
      ),
    ).toEqual({
      release: '2026.2',
      bodies: 1,
      mounts: ['Alder', 'Ley'],
      lenses: ['Corvane 35 mm', 'Unmarked 50'],
      series: 2,
      samples: 6,
    });
  });
  test('another namespace, and a nest without end, are refused', () => {
    expect(() => lensFacts(of('', '<lens-database xmlns="urn:other">'))).toThrow(
      expect.objectContaining({ code: 'lens-root' }) as Error,
    );
    expect(() => lensFacts(of('<a>'.repeat(30) + '</a>'.repeat(30)))).toThrow(
      expect.objectContaining({ code: 'xml-depth' }) as Error,
    );
  });
});

describe('text that can be stored', () => {
  test.each([
    ['a zero character', 'a\u0000b', 'a\ufffdb'],
    ['the first half of a sign', 'a\ud83d', 'a\ufffd'],
    ['the second half of a sign', '\udd25b', '\ufffdb'],
    ['halves in the wrong order', '\udd25\ud83d', '\ufffd\ufffd'],
    ['a whole sign', 'kiln 🔥', 'kiln 🔥'],
  ])('has a mark in the place of %s', (_, given, stored) => expect(storable(given)).toBe(stored));

  test('at any depth, in the names of fields too; all else is as it was', () => {
    const bytes = Uint8Array.of(0, 1);
    const given = { 'a\u0000': [{ b: '\ud800' }, null, 3, true, bytes], c: undefined };
    expect(storable(given)).toEqual({ 'a\ufffd': [{ b: '\ufffd' }, null, 3, true, bytes], c: undefined });
  });

  test('is taken by JSON and by UTF-8 as it is', () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 0xffff })), (units) => {
        const text = storable(String.fromCharCode(...units));
        expect(text).not.toContain('\u0000');
        expect(new TextDecoder().decode(new TextEncoder().encode(text))).toBe(text.replace(/^\ufeff/, ''));
      }),
    ));
});
