import { describe as describeTags, readDcp, writeDcp } from '../camera/dcp';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { parseDescriptor } from '../editor/descriptor';
import { render } from '../editor/rendition';
import { identity, writeClf } from '../look';
import { made } from '../camera/testing';
import { cubeOf, marlstonePreset, oxbowPreset, warm } from '../preset/testing';
import { recognise } from '../recognise';
import { writeTitle } from './write-title';

const known = [marlstone3, marlstone4, oxbow2].map((d) => parseDescriptor(d));
const steps =
  '<?xml version="1.0"?>\n<!-- kept -->\n<marlstone-steps edition="4" title="Old &amp; gone" drawer="A/B">\n <fire raise="0.5" odd="kept"/>\n</marlstone-steps>\n';
const files: [string, string, string][] = [
  ['cube', 'a.cube', cubeOf(warm, 3)],
  ['cube', 'b.cube', '# kept\r\nLUT_3D_SIZE 2\r\n' + '0 0 0\r\n1 1 1\r\n'.repeat(4)],
  ['clf', 'a.clf', writeClf(identity(2), 'id')],
  [
    'marlstone@3',
    'a.mpreset',
    marlstonePreset('; kept\n[light]\namount=140\nsnap=20', { headings: ['Ceramics', 'Presets'] }),
  ],
  ['marlstone@4', 'a.msteps', steps],
  [
    'oxbow@2',
    'a.xmp',
    oxbowPreset('<rdf:li run:step="lamp" run:stops="0.3"/>', { title: 'Rehearsal', headings: ['Stage'] }),
  ],
];

/** A text without the places where titles and headings stand. */
const rest = (text: string): string =>
  text
    .replace(/TITLE .*\r?\n/, '')
    .replace(/^(name|drawer)=.*$/gm, '')
    .replace(/ (name|title|drawer)="[^"]*"/g, '')
    .replace(/<dc:(title|subject)>[\s\S]*?<\/dc:\1>/g, '');

test.each(files)('%s, %s: the title is written, and every other byte stays', (format, name, text) => {
  for (const title of ['Kiln “Dusk” & <Ember> $1 {n}', 'Größe Nr. 5']) {
    const after = writeTitle(format, strToU8(text), title, ['Glazes', 'Kiln & Fire'], known);
    const recognised = recognise(name, after, known);
    const was = recognise(name, strToU8(text), known);
    expect(recognised.title).toBe(title);
    if (was.headings.length) expect(recognised.headings).toEqual(['Glazes', 'Kiln & Fire']);
    expect(rest(strFromU8(after))).toBe(rest(text));
    expect({ ...recognised.facts, fileTitle: 0, fileHeadings: 0, unknown: 0 }).toEqual({
      ...was.facts,
      fileTitle: 0,
      fileHeadings: 0,
      unknown: 0,
    });
  }
});

/** Text as files of one byte a letter have it; only letters that Latin-1 has. */
const oneByteEach = (text: string): Uint8Array => Uint8Array.from(text, (letter) => letter.charCodeAt(0));

test.each([
  ['cube', 'a.cube', '# Töpferei\nTITLE "Grün"\nLUT_3D_SIZE 2\n' + '0 0 0\n1 1 1\n'.repeat(4)],
  ['marlstone@3', 'a.mpreset', marlstonePreset('; Töpferei\n[light]\namount=140', { headings: ['Öfen'] })],
])('%s of one byte a letter: it stays so, and nothing of it is mixed up', (format, name, text) => {
  const after = writeTitle(format, oneByteEach(text), 'Größe', ['Öfen'], known);
  expect(recognise(name, after, known).title).toBe('Größe');
  expect(String.fromCharCode(...after)).toContain('Töpferei');
  // with a letter that there is no byte for, all of it is UTF-8
  const wide = writeTitle(format, oneByteEach(text), 'Жар', ['Öfen'], known);
  expect(recognise(name, wide, known).title).toBe('Жар');
  expect(strFromU8(wide)).toContain('Töpferei');
});

test('XML in another encoding is UTF-8 afterwards, and says so', () => {
  const declared = steps.replace('?>', ' encoding="windows-1251"?>');
  // "Жар" as windows-1251 has it
  const [before = '', after = ''] = declared.split('Old');
  const given = Uint8Array.of(...oneByteEach(before), 0xc6, 0xe0, 0xf0, ...oneByteEach(after));
  expect(recognise('a.msteps', given, known).title).toBe('Жар & gone');
  const written = writeTitle('marlstone@4', given, 'Пепел', ['A'], known);
  expect(recognise('a.msteps', written, known).title).toBe('Пепел');
  expect(strFromU8(written)).toContain('<?xml version="1.0" encoding="UTF-8"?>\n<!-- kept -->');
});

test('any title comes back as it was written', () => {
  fc.assert(
    fc.property(
      fc
        .string({ unit: 'grapheme', minLength: 1, maxLength: 60 })
        .map((text) =>
          text
            .replace(/[\u0000-\u001f\u007f-\u009f"]/g, '')
            .replace(/\s+/g, ' ')
            .trim(),
        )
        .filter((s) => s.length > 0 && !s.includes('\ufffe') && !s.includes('\uffff')),
      (title) => {
        for (const [format, name, text] of files)
          expect(recognise(name, writeTitle(format, strToU8(text), title, ['H'], known), known).title).toBe(title);
      },
    ),
    { numRuns: 60 },
  );
});

test('an editor’s archive gets a new about, and the same table', () => {
  const before = render(known[1]!.accepts[0]!, {
    title: 'Old',
    headings: ['A'],
    position: 3,
    scope: { input: 'camera data' },
    encoding: null,
    look: identity(4),
    bytes: new Uint8Array(),
    id: 'k',
  }).bytes;
  const unzipped = unzipSync(before);
  // a number that the archive bears besides, longer than a double
  const about = strFromU8(unzipped['about.json']!).replace('{', '{"made": 638412345678901234,');
  const given = zipSync({ ...unzipped, 'about.json': strToU8(about) });
  const after = writeTitle('marlstone@4', given, 'New', ['B'], known);
  const reread = unzipSync(after);
  expect(JSON.parse(strFromU8(reread['about.json']!))).toMatchObject({
    title: 'New',
    headings: ['B'],
    position: 3,
    scope: { input: 'camera data' },
  });
  expect(strFromU8(reread['about.json']!)).toContain('"made": 638412345678901234');
  expect(reread['table.clf']).toEqual(unzipped['table.clf']);
});

test('what has no place for a title is refused with words', () =>
  expect(() => writeTitle('hald', new Uint8Array(9), 'X', [], known)).toThrow(/cannot write a title/));
test('a camera profile bears the title, and every other tag as it was', () => {
  const before = made();
  const was = describeTags(before);
  const is = describeTags(readDcp(writeTitle('dcp', writeDcp(before), 'Wëst lamp', [], known)));
  expect(is.ProfileName).toBe('Wëst lamp');
  expect({ ...is, ProfileName: was.ProfileName }).toEqual(was);
});
