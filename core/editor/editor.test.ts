import { strFromU8, unzipSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { must } from '../must';
import { fromFunction, readCube, residual, sampler, writeCube } from '../look';
import { readHald } from '../look/hald-file';
import { parseDescriptor } from './descriptor';
import { fileName } from './file-name';
import { render, sizeUnder } from './rendition';

const look = fromFunction(64, 'Night Market', (values) => {
  values[0] = values[0]! ** 1.1;
  values[2] = values[2]! * 0.9 + 0.05;
});
const source = {
  title: 'Night Market',
  headings: ['A', 'B'],
  position: 3,
  scope: { result: null },
  encoding: null,
  look,
  bytes: new TextEncoder().encode(writeCube(look)),
  id: 'abc',
};

describe('renditions, by descriptor alone', () => {
  test('the card gets exactly 33 points, whatever the source has', () => {
    const rendition = render(parseDescriptor(perrinAlder).accepts[0]!, source);
    const out = readCube(rendition.bytes);
    expect(out.size).toBe(33);
    expect(residual(sampler(look), sampler(out)).maxDeltaE).toBeLessThan(0.5);
    expect(rendition.residual!.maxDeltaE).toBeCloseTo(residual(sampler(look), sampler(out)).maxDeltaE, 3);
  });
  test('Marlstone’s look file holds title, headings and a table of a size that it takes', () => {
    const rendition = render(parseDescriptor(marlstone4).accepts[0]!, source);
    const files = unzipSync(rendition.bytes);
    expect(JSON.parse(strFromU8(files['about.json']!))).toMatchObject({
      title: 'Night Market',
      headings: ['A', 'B'],
      position: 3,
    });
    expect(strFromU8(files['table.clf']!)).toContain('<Array dim="33 33 33 3">');
  });
  test('Oxbow’s table is in its own encoding, and says how far it is off', () => {
    const rendition = render(parseDescriptor(oxbow2).accepts[0]!, source);
    const out = readCube(rendition.bytes);
    expect(out.size).toBe(33);
    expect(residual(sampler(look), sampler(out)).meanDeltaE).toBeGreaterThan(1); // another encoding: other numbers
    expect(rendition.residual!.meanDeltaE).toBeLessThan(1);
  });
  test('the same source gives the same bytes', () => {
    const accepts = parseDescriptor(marlstone4).accepts[0]!;
    expect(render(accepts, source).bytes).toEqual(render(accepts, source).bytes);
  });
  test('sizes follow the rule', () => {
    expect([
      sizeUnder({ exact: 33 }, 17),
      sizeUnder({ min: 2, max: 48, prefer: 33 }, 17),
      sizeUnder({ min: 2, max: 48, prefer: 33 }, 64),
      sizeUnder({ max: 20 }, 64),
    ]).toEqual([33, 17, 33, 20]);
  });
});

describe('entries of a bundle', () => {
  const [pane, preset] = parseDescriptor(tessel7).accepts;
  const entryOf = (rendition: { bytes: Uint8Array }) =>
    JSON.parse(new TextDecoder().decode(rendition.bytes)) as Record<string, unknown>;

  test('a look becomes a Hald image in the encoding that the editor applies, and says how far it is off', () => {
    const rendition = render(must(pane), source);
    const entry = entryOf(rendition);
    expect(Object.keys(entry)).toEqual(['hald', 'label', 'suits', 'trays']);
    expect(entry).toMatchObject({ label: 'Night Market', trays: ['A', 'B'] });
    const table = readHald(Uint8Array.from(atob(String(entry.hald)), (sign) => sign.charCodeAt(0)));
    expect([table.size, rendition.size]).toEqual([25, 25]);
    // in Display P3 the same look has other numbers
    const { meanDeltaE } = must(rendition.residual);
    expect(meanDeltaE).toBeLessThan(0.1);
    expect(residual(sampler(look), sampler(table)).meanDeltaE).toBeGreaterThan(3 * meanDeltaE);
    expect(rendition.bytes).toEqual(render(must(pane), source).bytes);
  });
  test('a preset is the same entry whatever its layout; one that is no JSON is refused', () => {
    const made = (text: string) => render(must(preset), { ...source, bytes: new TextEncoder().encode(text) });
    expect(made('{"tessel": 7,\n "name": "x"}').bytes).toEqual(made('{"name":"x","tessel":7}').bytes);
    expect(() => made('<x/>')).toThrow('Only what is written in JSON');
  });
});

describe('a descriptor with a bundle', () => {
  const changed = (part: object) => () => parseDescriptor({ ...tessel7, ...part });
  const pane = tessel7.accepts[0]!;
  const places = (macos: string) => ({ places: { ...tessel7.places, panes: { ...tessel7.places.panes, macos } } });

  test.each([
    ['a list in a file that is no .json', places('{config}/Tessel/tessel.sh#panes'), 'a list in a .json file'],
    ['a list within a list', places('{config}/Tessel/tessel.json#a#b'), 'a list in a .json file'],
    ['a folder on one system', places('{config}/Tessel/Panes'), 'on one system, and a folder on another'],
    ['its list in a bundle', { listing: { macos: '{config}/Tessel/a.json#b' } }, 'name folders below it'],
    ['entries with an extension', { accepts: [{ ...pane, extension: '.pane' }] }, 'have no extension'],
    ['entries in folders', { accepts: [{ ...pane, headings: 'folder' }] }, 'have no extension, folders or index'],
    ['entries as files', { accepts: [{ ...pane, writer: { asIs: true } }] }, 'have no extension, folders or index'],
    ['files without an extension', { accepts: [{ ...marlstone4.accepts[0], extension: '' }] }, 'names the place'],
    [
      'a Hald image of 33 points, which is no square',
      { accepts: [{ ...pane, writer: { entry: { json: {}, table: { ...hald(), size: { exact: 33 } } } } }] },
      'exactly the square of a whole number',
    ],
    ['an entry of nothing', { accepts: [{ ...pane, writer: { entry: {} } }] }, 'must say one of asIs and json'],
  ])('that has %s is refused', (_, part, message) => expect(changed(part)).toThrow(message));
});

function hald() {
  const { writer } = tessel7.accepts[0]!;
  return must(writer.entry?.table);
}

describe('what a descriptor accepts', () => {
  const profile = oxbow2.accepts.find(({ kind }) => kind === 'camera-profile');
  const accepting = (part: object) => () => parseDescriptor({ ...oxbow2, accepts: [{ ...profile, ...part }] });

  test('is of every kind, each with what it has to meet', () => {
    for (const descriptor of [marlstone4, oxbow2, tessel7]) expect(() => parseDescriptor(descriptor)).not.toThrow();
    expect(accepting({ kind: 'add-on', formats: ['zip'], meets: undefined, headings: 'none' })).not.toThrow();
    expect(
      accepting({ kind: 'icc-profile', formats: ['icc'], meets: { classes: ['display'] }, headings: 'none' }),
    ).not.toThrow();
  });

  test.each([
    ['a kind that there is not', { kind: 'font' }, 'one of the following values'],
    ['files of no named format', { formats: undefined }, 'must name the formats'],
    ['a profile that is written anew', { writer: { table: { codec: 'cube' } } }, 'is written as it is'],
    ['a folder by camera without asking for one', { meets: undefined }, 'must name one'],
    ['classes of what has none', { meets: { camera: true, classes: ['input'] } }, 'only files of the format icc'],
    ['a class that ICC does not know', { formats: ['icc'], meets: { camera: true, classes: ['film'] } }, 'one of'],
    ['a language of what has none', { language: 'oxbow@2' }, 'which only presets have'],
    ['a way to see that there is not', { sees: 'sometimes' }, 'one of'],
  ])('but not %s', (_, part, message) => expect(accepting(part)).toThrow(message));

  test('formats of presets, which are told by their language', () => {
    const preset = oxbow2.accepts.find(({ kind }) => kind === 'preset');
    expect(() => parseDescriptor({ ...oxbow2, accepts: [{ ...preset, formats: ['xmp'] }] })).toThrow('has no formats');
  });
});

describe('file names', () => {
  test('are legal on every system, short enough, unique, and keep the extension', () =>
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 300 }), (title) => {
        const name = fileName(title, '.cube', {}, new Set(['item.cube']));

        expect(name).not.toMatch(/[\u0000-\u001f<>:"/\\|?*]/);
        expect(name.endsWith('.cube')).toBe(true);
        expect(new TextEncoder().encode(name).length).toBeLessThan(256);
        expect(name).not.toBe('item.cube');
      }),
    ));
  test('follow a narrow rule', () => {
    expect(fileName('Café au lait, très long nom de fichier', '.cube', { max: 28, allowed: 'A-Za-z0-9_-' })).toBe(
      'Cafe_au_lait_tres_long_.cube',
    );
  });
  test('number what is taken, and avoid reserved names', () => {
    expect(fileName('A', '.cube', {}, new Set(['a.cube']))).toBe('A 2.cube');
    expect(fileName('con', '.cube')).toBe('item-con.cube');
  });
});

test.each([
  ['without its upper end', { below: -9 }],
  ['with no number', { below: Number.NaN, above: 4 }],
  ['of thousands of stops', { below: -9, above: 4500 }],
  ['whose ends are crossed', { below: 4, above: -0.05 }],
])('a log range %s is refused', (_, log) => {
  const descriptor = structuredClone(oxbow2) as unknown as { accepts: { writer: { table: { encoding: object } } }[] };
  must(descriptor.accepts[0]).writer.table.encoding = { primaries: 'rec2020', transfer: { log } };
  expect(() => parseDescriptor(descriptor)).toThrow('a log range of at most 30 stops');
});
