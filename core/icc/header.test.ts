import { describe, expect, test } from 'vitest';
import { compile } from '../preset/render';
import { warm } from '../preset/testing';
import { recognise } from '../recognise';
import { icc, wholeIcc } from '../testing';
import { toAbstract, toDeviceLink } from './convert';
import { iccHeader, isIcc } from './header';

/** As ICC.1:2022, table 18, has them. */
const classes = [
  ['scnr', 'input'],
  ['mntr', 'display'],
  ['prtr', 'output'],
  ['link', 'link'],
  ['spac', 'space'],
  ['abst', 'abstract'],
  ['nmcl', 'named'],
] as const;
const edited = (bytes: Uint8Array, at: number, ...values: number[]): Uint8Array => {
  const out = bytes.slice();
  out.set(values, at);
  return out;
};

describe('the header of an ICC profile', () => {
  test.each(classes)('class %s is %s, in every version, and is recognised whatever its name', (signature, name) => {
    for (const [major, minor, version] of [
      [2, 0x10, '2.1'],
      [2, 0x40, '2.4'],
      [4, 0x20, '4.2'],
      [4, 0x40, '4.4'],
    ] as const) {
      const bytes = edited(icc(signature, 'Kiln room'), 8, major, minor);
      expect(iccHeader(bytes)).toEqual({
        version,
        class: name,
        space: 'RGB',
        pcs: 'XYZ',
        description: 'Kiln room',
        copyright: '',
        tags: ['desc'],
      });
      const whole = edited(wholeIcc(signature, 'Kiln room'), 8, major, minor);
      expect(recognise('no name for it.bin', whole, [])).toMatchObject({
        format: 'icc',
        title: 'Kiln room',
        kind: { input: 'camera-profile', link: 'look', abstract: 'look' }[name as string] ?? 'icc-profile',
      });
    }
  });
  test('spaces are named as they are, without their blanks', () => {
    for (const [space, want] of [
      ['RGB ', 'RGB'],
      ['CMYK', 'CMYK'],
      ['GRAY', 'GRAY'],
      ['Lab ', 'Lab'],
      ['6CLR', '6CLR'],
    ] as const)
      expect(iccHeader(edited(icc('prtr'), 16, ...Buffer.from(space))).space).toBe(want);
  });
  test('profiles that Little CMS wrote, version 4, with Unicode', async () => {
    const evaluate = compile(warm);
    const created = new Date('2026-03-04T05:06:07Z');
    const link = (await toDeviceLink(evaluate, { title: 'Ofen Größe', created, grid: 5 })).bytes;
    const abstract = (await toAbstract(evaluate, { title: 'Kiln', created, grid: 5 })).bytes;
    expect(iccHeader(link)).toMatchObject({ class: 'link', space: 'RGB', pcs: 'RGB', description: 'Ofen Größe' });
    expect(iccHeader(abstract)).toMatchObject({ class: 'abstract', pcs: 'Lab', description: 'Kiln' });
    expect(isIcc(link)).toBe(true);
    expect(isIcc(link.slice(0, 131))).toBe(false);
  });
});
