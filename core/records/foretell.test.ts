import { describe, expect, test } from 'vitest';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { parseDescriptor, type Descriptor } from '../editor/descriptor';
import { conditions, foretell, type EditorSide, type ItemSide, type PhotoSide } from './foretell';

const item = (more: Partial<ItemSide> = {}): ItemSide => ({
  title: 'Kaolin',
  kind: 'look',
  format: 'cube',
  status: 'approved',
  archived: false,
  cameras: [],
  input: null,
  result: null,
  needs: [],
  away: '',
  ...more,
});
const photo = (more: Partial<PhotoSide> = {}): PhotoSide => ({
  name: 'Bowl',
  camera: { maker: 'Perrin', model: 'Perrin Alder', names: [] },
  body: 'Perrin Alder',
  kind: 'camera data',
  range: more.kind === 'rendered' ? 'SDR' : null,
  result: null,
  ...more,
});
const strict = parseDescriptor({
  ...(marlstone4 as object),
  cameras: ['Perrin Alder'],
  honours: ['camera', 'input', 'result'],
});
const loose: Descriptor = { ...parseDescriptor(oxbow2), cameras: 'all', honours: [] };
const listed = { state: 'listed', reason: 'lists it' };
const at = (descriptor: Descriptor, placed: EditorSide['placed'] = listed): EditorSide => ({
  descriptor,
  system: descriptor.systems[0]!,
  placed,
  lists: ['Kaolin'],
});
const codes = (i: ItemSide, p: PhotoSide, e: EditorSide) => foretell(i, p, e).findings.map((f) => f.code);

test('an item that is listed and fits shows, and nothing is said', () => {
  expect(foretell(item(), photo(), at(strict))).toEqual({ answer: 'yes', findings: [] });
});

/** Each condition is broken by one change, in both editors where it hides it. */
const broken: [string, ItemSide, PhotoSide, EditorSide][] = [
  ['archived', item({ archived: true }), photo(), at(strict, null)],
  ['put-away', item({ away: 'Ceramics' }), photo(), at(strict)],
  ['not-approved', item({ status: 'draft' }), photo(), at(strict, null)],
  ['format', item({ kind: 'lens-database' }), photo(), at(strict)],
  ['system', item(), photo(), { descriptor: strict, system: 'linux', placed: listed, lists: null }],
  [
    'photo-camera',
    item(),
    photo({ camera: { maker: 'Corvane', model: 'Corvane Ley', names: [] }, body: 'Corvane Ley' }),
    at(strict),
  ],
  ['profile-rendered', item({ kind: 'camera-profile' }), photo({ kind: 'rendered' }), at(strict)],
  ['scope-camera', item({ cameras: ['Ondine 40'] }), photo(), at(strict)],
  ['scope-input', item({ input: 'camera data' }), photo({ kind: 'rendered' }), at(strict)],
  ['scope-result', item({ result: 'monochrome' }), photo({ result: 'color' }), at(strict)],
  ['needs', item({ needs: [{ name: 'Base look', held: false }] }), photo(), at(strict)],
  ['photo-open', item({ kind: 'camera-profile', format: 'dcp', cameras: ['Perrin Alder'] }), photo(), at(loose)],
  ['placed', item(), photo(), at(strict, null)],
];
test.each(broken)('%s is told when it does not hold, with what to do', (code, item, photo, editor) => {
  const finding = foretell(item, photo, editor).findings.find((x) => x.code === code)!;
  expect(finding.words.length).toBeGreaterThan(10);
  expect(finding.remedy).toMatch(/\.$/);
  expect(foretell(item, photo, editor).answer).toBe(['needs', 'put-away', 'photo-open'].includes(code) ? 'yes' : 'no');
});
test('no condition is without such a case', () => {
  expect(broken.map((b) => b[0])).toEqual(conditions.map((c) => c.code));
});

test('what Etagere can do itself about a condition is said beside it, and only that', () => {
  const cureOf = (code: string): unknown => {
    const [, ...sides] = broken.find((one) => one[0] === code)!;
    return foretell(...sides).findings.find((one) => one.code === code)?.cure;
  };
  const byCode = Object.fromEntries(broken.map(([code]) => [code, cureOf(code)]));
  expect(byCode).toEqual({
    archived: 'bring back',
    'put-away': 'show shelf',
    'not-approved': 'approve',
    needs: 'bring in',
    placed: 'roll out',
    format: undefined,
    system: undefined,
    'photo-camera': undefined,
    'profile-rendered': undefined,
    'scope-camera': undefined,
    'scope-input': undefined,
    'scope-result': undefined,
    'photo-open': undefined,
  });
  const waits = (state: string) => foretell(item(), photo(), at(strict, { state, reason: 'waits' })).findings[0]?.cure;
  expect(['restart-due', 'launch-due', 'import-due', 'rescan-due', 'refused'].map(waits)).toEqual([
    'restart',
    'start',
    'take in there',
    undefined,
    undefined,
  ]);
});

describe('a camera profile', () => {
  const infrared = { kind: 'camera-profile', format: 'dcp', cameras: ['Perrin Alder, infrared'] };

  test('of the converted body is never offered for the plain one, whatever else the editor honours', () => {
    expect(foretell(item(infrared), photo(), at(loose)).answer).toBe('no');
    expect(foretell(item(infrared), photo({ body: 'Perrin Alder, infrared' }), at(loose)).answer).toBe('yes');
  });
  test('is not taken where another form is read', () => {
    expect(foretell(item(infrared), photo({ body: 'Perrin Alder, infrared' }), at(strict)).findings).toMatchObject([
      { code: 'format', words: 'Marlstone 4 reads camera profiles as ICC; this one is DCP' },
    ]);
  });
});

describe('conditions of the scope', () => {
  test('that an editor does not keep are cautions: it shows all the same', () => {
    const foretold = foretell(item({ cameras: ['Ondine 40'], input: 'rendered SDR' }), photo(), at(loose));
    expect(foretold.answer).toBe('yes');
    expect(foretold.findings.map((x) => [x.code, x.hides])).toEqual([
      ['scope-camera', false],
      ['scope-input', false],
    ]);
    expect(foretold.findings[0]!.words).toContain('Oxbow 2 offers it all the same');
  });
  test('are met by another writing of the camera’s name; a converted body is another camera', () => {
    expect(codes(item({ cameras: ['PERRIN ALDER'] }), photo(), at(strict))).toEqual([]);
    expect(codes(item({ cameras: ['Perrin Alder'] }), photo({ body: 'Perrin Alder, infrared' }), at(strict))).toEqual([
      'scope-camera',
    ]);
    expect(
      codes(item({ cameras: ['Perrin Alder, infrared'] }), photo({ body: 'Perrin Alder, infrared' }), at(strict)),
    ).toEqual([]);
  });
  test('left open, or where nobody said what the photo is worked in, hide nothing', () => {
    expect(codes(item({ result: 'monochrome' }), photo(), at(strict))).toEqual([]);
  });
  test('camera data is no rendered file, and the other way about', () => {
    expect([
      codes(item({ input: 'rendered SDR' }), photo(), at(strict)),
      codes(item({ input: 'rendered SDR' }), photo({ kind: 'rendered' }), at(strict)),
      codes(item({ input: 'rendered HDR' }), photo({ kind: 'rendered' }), at(strict)),
    ]).toEqual([['scope-input'], [], ['scope-input']]);
  });
});

test('what it refers to has to be listed by that editor too; held is not yet there', () => {
  const needing = item({ needs: [{ name: 'Base look', held: true }] });
  const said = (lists: string[] | null) =>
    foretell(needing, photo(), { ...at(strict), lists }).findings.map((f) => f.words);
  expect(said(['Kaolin'])[0]).toContain('“Base look”, which Marlstone 4 does not list there');
  expect([
    said(['Base look']),
    said(null),
    foretell(needing, photo(), { ...at(strict), system: null }).findings,
  ]).toEqual([[], [], []]);
});
test('before anything is placed, the editor alone is asked: no place, no station', () => {
  expect(foretell(item(), photo(), { descriptor: strict, system: null, placed: null, lists: null })).toEqual({
    answer: 'yes',
    findings: [],
  });
});
test('an editor whose cameras nobody wrote down is not known to read a photo; a rendered file it is', () => {
  const editor = at({ ...strict, cameras: undefined } as unknown as Descriptor);
  expect([
    foretell(item(), photo(), editor).answer,
    foretell(item(), photo({ kind: 'rendered' }), editor).answer,
  ]).toEqual(['unknown', 'yes']);
});
test('what waits for a restart says so, what is refused says why', () => {
  expect(
    foretell(item(), photo(), at(strict, { state: 'restart-due', reason: 'reads its folders only at launch' }))
      .findings[0],
  ).toMatchObject({
    code: 'placed',
    words: 'reads its folders only at launch',
    remedy: 'Quit the editor and start it.',
  });
  expect(
    foretell(item(), photo(), at(strict, { state: 'refused', reason: 'too many points' })).findings[0]!.words,
  ).toBe('too many points');
});
test('where an editor takes nothing of the kind, nothing is said of places', () => {
  expect(codes(item({ kind: 'lens-database', status: 'draft' }), photo(), at(strict, null))).toEqual(['format']);
});

describe('reasons do not contradict one another', () => {
  test('what is archived and still lies there is offered', () => {
    const foretold = foretell(item({ archived: true }), photo(), at(strict));
    expect(foretold.answer).toBe('yes');
    expect(foretold.findings.map((finding) => finding.code)).toEqual(['archived']);
  });
  test('a profile that a rendered file cannot take is not for another camera besides', () => {
    const profile = item({ kind: 'camera-profile', cameras: ['Ondine 40'], input: 'camera data' });
    expect(codes(profile, photo({ kind: 'rendered' }), at(strict))).not.toContain('scope-input');
    expect(codes(profile, photo({ kind: 'rendered' }), at(strict))).not.toContain('scope-camera');
  });
  test('what cannot be placed is not to be placed first', () => {
    expect(codes(item({ archived: true, status: 'draft' }), photo(), at(strict, null))).toEqual(['archived']);
    expect(codes(item(), photo(), { ...at(strict, null), system: 'linux' })).toEqual(['system']);
  });
});

describe('a rendered file in HDR', () => {
  const hdr = photo({ kind: 'rendered', range: 'HDR' });
  test('is not what a look for SDR is for, and the other way about', () => {
    expect(codes(item({ input: 'rendered SDR' }), hdr, at(strict))).toEqual(['scope-input']);
    expect(codes(item({ input: 'rendered HDR' }), hdr, at(strict))).toEqual([]);
    const sdr = photo({ kind: 'rendered', range: 'SDR' });
    expect(codes(item({ input: 'rendered HDR' }), sdr, at(strict))).toEqual(['scope-input']);
  });
  test('one of which nobody said its range is taken for either', () => {
    const open = photo({ kind: 'rendered', range: null });
    expect(codes(item({ input: 'rendered HDR' }), open, at(strict))).toEqual([]);
    expect(codes(item({ input: 'rendered SDR' }), open, at(strict))).toEqual([]);
  });
});
