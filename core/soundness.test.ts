/** What can be read but not used is refused, with the place and what to do; what is usable comes with a caution. */
import { describe, expect, test } from 'vitest';
import { strToU8 } from 'fflate';
import { readDcp, setNumbers, setText, writeDcp } from './camera/dcp';
import { made } from './camera/testing';
import { read } from './camera/tags';
import { checkWhole } from './frame/whole';
import { checkedIcc } from './icc/soundness';
import { Block } from './icc/write';
import { Problem } from './problem';
import { recognise } from './recognise';
import { dcp as bareDcp, hald, wholeIcc } from './testing';

const told = (name: string, bytes: Uint8Array): Problem => {
  try {
    recognise(name, bytes, []);
  } catch (error) {
    expect(error).toBeInstanceOf(Problem);
    expect((error as Problem).where).toBeTruthy();
    expect((error as Problem).remedy).toBeTruthy();
    return error as Problem;
  }
  throw new Error(`${name} was taken`);
};
const cautionOf = (bytes: Uint8Array): unknown => recognise('x', bytes, []).facts.caution;

describe('a camera profile', () => {
  const changed = (tag: number, type: number, values: number[]): Uint8Array => {
    const profile = { ...made(), tags: new Map(made().tags) };
    setNumbers(profile, tag, type, values);
    return writeDcp(profile);
  };
  const matrix = (...values: number[]) => changed(read.color[0], 10, values);
  test.each([
    ['a zero matrix', matrix(0, 0, 0, 0, 0, 0, 0, 0, 0), 'all zero'],
    ['a singular matrix', matrix(1, 0.5, 0.2, 2, 1, 0.4, 0.1, 0.3, 0.9), 'singular'],
    ['an absurd matrix', matrix(1e5, 0, 0, 0, 1, 0, 0, 0, 1), 'no camera has'],
    ['a matrix that sees no white', matrix(-0.8, 0.1, 0, 0, 1, 0, 0, 0.1, 0.7), 'sees nothing'],
    ['a flat curve', changed(read.curve, 11, [0, 0.5, 1, 0.5]), 'flat'],
    ['an absurd exposure', changed(read.exposure, 10, [90]), '90 EV'],
    ['a forward matrix far from white', changed(read.forward[0], 10, [1, 0, 0, 0, 0.2, 0, 0, 0, 1]), 'far from white'],
  ])('with %s is refused', (_, bytes, words) => {
    expect(told('x.dcp', bytes).message).toContain(words);
  });
  test.each([
    ['turns by absurd angles', [1e6, 1, 1], 'no rendering'],
    ['takes saturation below zero', [0, -1, 1], 'no rendering'],
    ['makes all black', [0, 1, 0], 'everything black'],
  ])('whose table %s is refused', (_, entry, words) => {
    const profile = { ...made(), tags: new Map(made().tags) };
    profile.tags.delete(read.map[1]);
    setNumbers(profile, read.mapDims, 4, [6, 2, 1]);
    setNumbers(profile, read.map[0], 11, Array.from({ length: 12 }, () => entry).flat());
    expect(told('x.dcp', writeDcp(profile)).message).toContain(words);
  });
  test('of the usual kind is taken; one without a name or a camera with a caution', () => {
    expect(cautionOf(bareDcp())).toBeUndefined();
    const profile = readDcp(bareDcp());
    setText(profile, read.camera, '');
    expect(cautionOf(writeDcp(profile))).toContain('names no camera');
    setText(profile, read.name, '');
    expect(cautionOf(writeDcp(profile))).toContain('neither a name nor a camera');
  });
});

describe('an ICC profile', () => {
  const xyz = (x: number, y: number, z: number) => new Block().text('XYZ ').u32(0).s15(x, y, z).bytes();
  const curve = (...points: number[]) =>
    new Block()
      .text('curv')
      .u32(0, points.length)
      .u16(...points)
      .bytes();
  const para = (kind: number, ...numbers: number[]) =>
    new Block()
      .text('para')
      .u32(0)
      .u16(kind, 0)
      .s15(...numbers)
      .bytes();
  const table = (inputs: number, outputs: number, grid: number, values = 0) =>
    new Block()
      .text('mft2')
      .u32(0)
      .u8(inputs, outputs, grid, 0)
      .s15(1, 0, 0, 0, 1, 0, 0, 0, 1)
      .u16(2, 2)
      .u16(...Array.from({ length: values }, () => 7))
      .bytes();
  const withoutTags = () => {
    const bytes = wholeIcc('mntr').slice(0, 132);
    const view = new DataView(bytes.buffer);
    view.setUint32(0, bytes.length);
    view.setUint32(128, 0);
    return bytes;
  };
  const edited = (bytes: Uint8Array, at: number, text: string) => {
    bytes.set(strToU8(text), at);
    return bytes;
  };
  test.each([
    ['no tags', withoutTags(), 'no tags'],
    ['no curve', wholeIcc('mntr', 'x', { gTRC: null }), 'needs "gTRC"'],
    ['a flat curve', wholeIcc('mntr', 'x', { gTRC: curve(9, 9, 9) }), 'flat'],
    [
      'a curve without room',
      wholeIcc('mntr', 'x', { gTRC: new Block().text('curv').u32(0, 1e6).bytes() }),
      'more than there is room',
    ],
    ['an unknown parametric form', wholeIcc('mntr', 'x', { gTRC: para(9, 1) }), 'form 9'],
    ['a gamma of zero', wholeIcc('mntr', 'x', { gTRC: para(0, 0) }), 'gamma of zero'],
    ['something else for a curve', wholeIcc('mntr', 'x', { gTRC: xyz(1, 1, 1) }), 'Where a curve should be'],
    ['the same primary twice', wholeIcc('mntr', 'x', { gXYZ: xyz(0.4361, 0.2225, 0.0139) }), 'no three different'],
    ['absurd primaries', wholeIcc('mntr', 'x', { gXYZ: xyz(900, 1, 1) }), 'no color'],
    ['zero input channels', wholeIcc('link', 'x', { A2B0: table(0, 3, 2) }), 'takes 0 channels'],
    ['fifteen input channels', wholeIcc('link', 'x', { A2B0: table(15, 3, 2) }), 'takes 15 channels'],
    ['a table larger than the file', wholeIcc('link', 'x', { A2B0: table(3, 3, 33) }), 'asks for'],
    ['a table of one color', wholeIcc('link', 'x', { A2B0: table(3, 3, 2, 36) }), 'one color of all'],
    ['no table', wholeIcc('prtr', 'x', { B2A0: null }), 'needs "B2A0"'],
    ['a text for a table', wholeIcc('link', 'x', { A2B0: strToU8('text\0\0\0\0no table') }), 'holds no table'],
    ['a space that is none', edited(wholeIcc('mntr'), 16, 'XXXX'), 'no color space'],
    ['another space than its tables', edited(wholeIcc('prtr'), 16, 'CMYK'), 'says 4 to 3'],
    ['a connection space that is none', edited(wholeIcc('mntr'), 20, 'RGB '), 'connect by'],
  ])('with %s is refused', (_, bytes, words) => {
    expect(told('x.icc', bytes).message).toContain(words);
  });
  test.each(['scnr', 'mntr', 'prtr', 'link', 'spac', 'abst', 'nmcl'])(
    'of class %s with all that it needs is sound',
    (cls) => {
      expect(checkedIcc(wholeIcc(cls)).caution).toBe('');
    },
  );
  test('with junk behind it, or without a description, comes with a caution', () => {
    const junk = new Uint8Array([...wholeIcc('mntr'), 1, 2, 3]);
    expect(cautionOf(junk)).toContain('3 bytes follow');
    expect(cautionOf(wholeIcc('mntr', 'x', { desc: null }))).toContain('no description');
  });
});

describe('a table', () => {
  const cube = (...rows: string[]) => strToU8(['LUT_3D_SIZE 2', ...rows].join('\n') + '\n');
  const usual = ['0 0 0', '1 0 0', '0 1 0', '1 1 0', '0 0 1', '1 0 1', '0 1 1', '1 1 1'];
  test.each([
    ['all zero', cube(...Array<string>(8).fill('0 0 0')), 'look-flat'],
    ['one gray', cube(...Array<string>(8).fill('0.5 0.5 0.5')), 'look-flat'],
    ['of 1e30', cube('1e30 0 0', ...usual.slice(1)), 'look-absurd'],
    ['with hexadecimal numbers', cube('0x1 0 0', ...usual.slice(1)), 'cube-number'],
    ['with an absurd domain', cube('DOMAIN_MAX 1e30 1 1', ...usual), 'look-absurd'],
    ['with a hexadecimal size', strToU8(`LUT_3D_SIZE 0x2\n${usual.join('\n')}\n`), 'cube-size'],
  ])('%s is refused', (_, bytes, code) => {
    expect(told('x.cube', bytes).code).toBe(code);
  });
  test('with values beyond white, as HDR looks have them, is taken', () => {
    expect(recognise('x.cube', cube('120 0 0', ...usual.slice(1)), []).kind).toBe('look');
  });
});

describe('a picture', () => {
  const png = hald(4);
  test('that is whole is taken, wherever it is cut it is refused', () => {
    expect(() => checkWhole(png)).not.toThrow();
    for (const share of [0.3, 0.7, 0.99]) {
      expect(() => checkWhole(png.slice(0, Math.floor(png.length * share)))).toThrow('cut off or damaged');
    }
  });
  test('with a wrong byte in it is refused', () => {
    const bad = png.slice();
    bad[bad.length >> 1]! ^= 1;
    expect(() => checkWhole(bad)).toThrow('cut off or damaged');
  });
  test('whose only end is that of its thumbnail is refused', () => {
    const thumbnail = [0xff, 0xe1, 0, 6, 0xff, 0xd8, 0xff, 0xd9];
    const scan = [0xff, 0xda, 0, 2, 1, 2, 3];
    expect(() => checkWhole(Uint8Array.of(0xff, 0xd8, ...thumbnail, ...scan))).toThrow('cut off');
    expect(() => checkWhole(Uint8Array.of(0xff, 0xd8, ...thumbnail, ...scan, 0xff, 0xd9))).not.toThrow();
  });
});
