import { describe, expect, test } from 'vitest';
import { calibrations } from '../lens/calibrated';
import { cropOf } from '../lens/sensor';
import { cameraCoverage, isMet, lensCoverage, unlisted, type Camera, type Lens } from './coverage';

const camera = (model: string, more: Partial<Camera> = {}): Camera => ({
  id: model,
  maker: 'Perrin',
  model,
  names: [],
  conversion: '',
  serials: [],
  mount: 'Alder',
  crop: 1,
  ...more,
});
const lens = (model: string, more: Partial<Lens> = {}): Lens => ({
  id: model,
  maker: 'Perrin',
  model,
  names: [],
  mount: 'Alder',
  ...more,
});
const profile = (title: string, cameras: string[], approved = true, source = 'Fathom Color') => ({
  title,
  cameras,
  source,
  held: 1,
  approved: approved ? 1 : 0,
});
const one = (
  camera: Camera,
  profiles: ReturnType<typeof profile>[],
  editors: Parameters<typeof cameraCoverage>[2] = [],
) => cameraCoverage([camera], profiles, editors)[0]!;

describe('coverage of cameras', () => {
  test('counts what is held by its source, the approved ones apart', () => {
    const cameraLine = one(camera('Alder'), [
      profile('A', ['Perrin Alder']),
      profile('B', ['PERRIN ALDER'], false),
      profile('C', ['Alder'], false, 'measured'),
    ]);
    expect(cameraLine).toMatchObject({
      state: 'covered',
      sources: [
        { source: 'Fathom Color', held: 2, approved: 1 },
        { source: 'measured', held: 1, approved: 0 },
      ],
    });
  });
  test('the name by which profiles are found is the one that they use for it', () => {
    expect(one(camera('Alder'), [profile('A', ['Ondine 40', 'PERRIN ALDER'])]).named).toBe('PERRIN ALDER');
    expect(one(camera('Alder'), []).named).toBe('');
  });
  test('drafts alone cover a camera in part; what is for another mark or suffix does not count', () => {
    expect(one(camera('Alder'), [profile('A', ['Perrin Alder'], false)]).state).toBe('partly');
    expect(one(camera('Alder II'), [profile('A', ['Perrin Alder']), profile('B', ['Perrin Alder S'])]).state).toBe(
      'none',
    );
    expect(one(camera('Alder II'), [profile('A', ['Perrin Alder Mk 2'])]).state).toBe('covered');
  });
  test('a converted body needs profiles of its own, and the plain one does not take them', () => {
    const ir = camera('Alder', { conversion: 'infrared' });
    const held = [profile('IR', ['Perrin Alder, infrared'])];
    expect([
      one(ir, held).state,
      one(camera('Alder'), held).state,
      one(ir, [profile('A', ['Perrin Alder'])]).state,
    ]).toEqual(['covered', 'none', 'none']);
  });
  test('an editor reads a camera by any of its names, a converted one by the name that it kept', () => {
    const editors = [
      { key: 'm@3', title: 'M 3', cameras: ['PA-1'] },
      { key: 'm@4', title: 'M 4', cameras: 'all' as const },
      { key: 'o@2', title: 'O', cameras: null },
      { key: 'x@1', title: 'X', cameras: ['Alder II'] },
    ];
    expect(
      one(camera('Alder', { names: ['PA-1'], conversion: 'infrared' }), [], editors).reads.map((r) => r.answer),
    ).toEqual(['yes', 'yes', 'unknown', 'no']);
  });
  test('those with gaps stand first', () => {
    expect(
      cameraCoverage(
        [camera('A'), camera('B'), camera('C')],
        [profile('x', ['A']), profile('y', ['B'], false)],
        [],
      ).map((l) => l.camera.model),
    ).toEqual(['C', 'B', 'A']);
  });
  test('a crop factor comes from the sides of the sensor', () => {
    expect([cropOf(36, 24), cropOf(43.8, 32.9), cropOf(23.5, 15.6), cropOf(null, 24)]).toEqual([1, 0.79, 1.534, null]);
  });
});

const xml = (inner: string) =>
  new TextEncoder().encode(
    `<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="2026.1">${inner}</lens-database>`,
  );
const series = (...questions: string[]) =>
  questions
    .map(
      (camera) =>
        `<series quantity="${camera}" model="odd3"><sample focal="50" k1="0.01"/><sample focal="70" k1="0.02"/></series>`,
    )
    .join('');
const full = series('distortion', 'lateral chromatic aberration', 'vignetting');
const held = (inner: string) => {
  const found = calibrations(xml(inner));
  return [{ item: 'i', title: 'Bureau', release: found.release, lenses: found.lenses }];
};

describe('coverage of lenses', () => {
  test('a database says which lenses it calibrates, by which names, in what, at which focal lengths', () => {
    expect(
      calibrations(
        xml(
          `<mount name="Alder"/><lens maker="Perrin" model="50 mm f/2" mount="Alder" crop="1"><alias>PX 50/2</alias>${series('distortion')}<series quantity="vignetting"/></lens>`,
        ),
      ),
    ).toMatchObject({
      release: '2026.1',
      lenses: [
        {
          maker: 'Perrin',
          model: '50 mm f/2',
          aliases: ['PX 50/2'],
          mount: 'Alder',
          crop: 1,
          quantities: ['distortion'],
          focal: [50, 70],
        },
      ],
    });
  });
  test('a lens with all that is measured is covered; by an alias too; one with less in part, and it says what is missing', () => {
    const own = [lens('50 mm f/2')];
    expect(
      lensCoverage(own, [], held(`<lens maker="PERRIN" model="50mm F2" mount="Alder">${full}</lens>`))[0],
    ).toMatchObject({
      state: 'covered',
      missing: [],
      found: [{ as: 'PERRIN 50mm F2', release: '2026.1', focal: [50, 70], but: '' }],
    });
    expect(
      lensCoverage(
        [lens('PX 50/2')],
        [],
        held(`<lens maker="Perrin" model="50 mm f/2"><alias>PX 50/2</alias>${full}</lens>`),
      )[0]!.state,
    ).toBe('covered');
    expect(
      lensCoverage(own, [], held(`<lens maker="Perrin" model="50 mm f/2">${series('distortion')}</lens>`))[0],
    ).toMatchObject({ state: 'partly', missing: ['lateral chromatic aberration', 'vignetting'] });
    expect(lensCoverage(own, [], held(`<lens maker="Perrin" model="50 mm f/1.8">${full}</lens>`))[0]).toMatchObject({
      state: 'none',
      found: [],
    });
  });
  test('what was measured on a smaller sensor, for another mount, or not at all does not serve', () => {
    const of = (inner: string) => lensCoverage([lens('50 mm f/2')], [camera('Alder')], held(inner))[0]!;
    expect(of(`<lens maker="Perrin" model="50 mm f/2" mount="Alder" crop="1.5">${full}</lens>`)).toMatchObject({
      state: 'partly',
      missing: [...['distortion', 'lateral chromatic aberration', 'vignetting']],
    });
    expect(
      of(`<lens maker="Perrin" model="50 mm f/2" mount="Alder" crop="1.5">${full}</lens>`).found[0]!.but,
    ).toContain('smaller sensor (crop 1.5) than that of the Alder');
    expect(of(`<lens maker="Perrin" model="50 mm f/2" mount="Ley">${full}</lens>`).found[0]!.but).toContain(
      'mount Ley',
    );
    expect(of('<lens maker="Perrin" model="50 mm f/2" mount="Alder"/>').found[0]!.but).toContain(
      'without any measurement',
    );
    expect(of(`<lens maker="Perrin" model="50 mm f/2" mount="alder" crop="1.01">${full}</lens>`).state).toBe('covered');
  });
  test('what is no lens database is refused', () => {
    expect(() => calibrations(new TextEncoder().encode('<x/>'))).toThrow('no lens database');
  });
});

test('what files name and the list does not have is told once, with its serials', () => {
  const seen = (character: string, serial: string, line: string, conversion = '') => ({
    maker: 'Perrin',
    camera: character,
    conversion,
    serial,
    lens: line,
  });
  const found = unlisted(
    [
      seen('Perrin Alder', '1', 'Perrin 50 mm f/2'),
      seen('PERRIN ALDER', '2', 'PERRIN 50mm F2'),
      seen('Perrin Alder', '3', '', 'infrared'),
      seen('Perrin Oak', '9', 'Perrin 90 mm f/4'),
      seen('', '', ''),
    ],
    [camera('Oak')],
    [lens('90 mm f/4')],
  );
  expect(found).toEqual({
    cameras: [
      { maker: 'Perrin', model: 'Perrin Alder', conversion: '', serials: ['1', '2'] },
      { maker: 'Perrin', model: 'Perrin Alder', conversion: 'infrared', serials: ['3'] },
    ],
    lenses: [{ maker: 'Perrin', model: 'Perrin 50 mm f/2' }],
  });
});

test('what was asked for is met by a profile, a whole calibration, or an editor of the maker who was asked', () => {
  const body = camera('Alder');
  const none = { camera: null, lens: null, askedOf: '' };
  const editors = [
    { key: 'o@2', title: 'Oxbow 2', cameras: 'all' as const },
    { key: 'm@4', title: 'Marlstone 4', cameras: [] },
  ];
  const cameras = (held: ReturnType<typeof profile>[]) => cameraCoverage([body], held, editors);
  const of = (askedOf: string) =>
    isMet({ ...none, camera: 'Alder', wanted: 'support in an editor', askedOf }, cameras([]), []);
  const wanted = { ...none, camera: 'Alder', wanted: 'camera profile' };
  expect([
    isMet(wanted, cameras([]), []),
    isMet(wanted, cameras([profile('A', ['Alder'], false)]), []),
    isMet(none as never, [], []),
  ]).toEqual([false, true, false]);
  expect([of(''), of('oxbow'), of('Marlstone'), of('nobody')]).toEqual([true, true, false, false]);
  const lensAt = (inner: string) =>
    isMet(
      { ...none, lens: '50 mm f/2', wanted: 'lens calibration' },
      [],
      lensCoverage([lens('50 mm f/2')], [], held(inner)),
    );
  expect([
    lensAt(`<lens maker="Perrin" model="50 mm f/2">${full}</lens>`),
    lensAt(`<lens maker="Perrin" model="50 mm f/2">${series('distortion')}</lens>`),
  ]).toEqual([true, false]);
});
