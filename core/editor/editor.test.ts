import { strFromU8, unzipSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import { fromFunction, readCube, residual, sampler, writeCube } from '../look';
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
