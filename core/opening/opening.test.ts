import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { must } from '../must';
import { parseDescriptor } from '../editor/descriptor';
import { begunBy, notShownOf, type OpenedPhoto, type UnderstoodRule } from './begun';
import { readOwnRules, toCommon, toOwn, writeOwnRules } from './file';
import { mergeRules } from './merge';
import { conditions, hiddenRules, ruleSchema, settings, tidy, whenWords, type Rule } from './rule';

const oxbow = must(parseDescriptor(oxbow2).opening);
const tessel = must(parseDescriptor(tessel7).opening);
const text = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);
const oxbowRules = (lines: string) => readOwnRules(oxbow, 'opening.rules', lines);

const FILE = `# what we begin with\r
body = Perrin Alder, infrared; file = negative => correct = never; grain = keep; glow = soft\r
\r
# all else\r
=> correct = by name; tone = oxbow\r
# until the next one\r
`;

describe('an editor’s own list', () => {
  test('is read with its remarks and with what nobody here knows, and written as it was', () => {
    const rules = oxbowRules(FILE);
    expect(rules.rules.map((own) => toCommon(oxbow, own))).toEqual([
      {
        rule: {
          when: { camera: 'Perrin Alder, infrared', input: 'camera data' },
          start: { lens: 'none', noise: 'none' },
        },
        unknown: ['glow'],
        isWhole: true,
      },
      { rule: { when: {}, start: { lens: 'matched', curve: 'its own' } }, unknown: [], isWhole: true },
    ]);
    expect(text(writeOwnRules(oxbow, rules, FILE))).toBe(FILE);
  });

  test('of a bundle is compared whatever the order of its keys', () => {
    const own = readOwnRules(tessel, 't', '[{"laid": {"calm": 2, "optics": 1}, "seen": {"kind": "raw"}}]');
    expect(own.rules.map((one) => toCommon(tessel, one).rule)).toEqual([
      { when: { input: 'camera data' }, start: { lens: 'matched', noise: 'color and luminance' } },
    ]);
    expect(text(writeOwnRules(tessel, own, ''))).toBe('[{"laid":{"calm":2,"optics":1},"seen":{"kind":"raw"}}]');
    expect(readOwnRules(tessel, 't', '').rules).toEqual([]);
  });

  test.each(['body = A', 'body A => tone = x', 'a = b => c = d => e = f'])(
    'that is broken is left alone: %s',
    (line) => {
      expect(() => oxbowRules(line)).toThrow(/cannot be read: line 1/);
    },
  );
  test.each(['{}', '[1]', '[{"seen": 1, "laid": {}}]', '[{"seen": {}, "laid": {"a": [1]}}]', '[{'])(
    'in JSON that is none is left alone: %s',
    (json) => {
      expect(() => readOwnRules(tessel, 't', json)).toThrow(/cannot be read/);
    },
  );

  test('has no words for some of what the studio says, which is told', () => {
    const rule: Rule = {
      when: { camera: 'Ondine 40' },
      start: { exposure: 'applied, shown as zero', noise: 'color', engine: '7.1' },
    };
    expect(toOwn(oxbow, rule)).toEqual({
      own: { when: [['body', 'Ondine 40']], start: [['grain', 'lift specks']], above: [], rest: {} },
      cannot: ['Exposure offset in the file: applied, shown as zero', 'Raw engine: 7.1'],
    });
    expect(toOwn(tessel, rule).cannot).toEqual([]);
    // a rule for HDR alone would else be one for every photo
    expect(toOwn(oxbow, { when: { input: 'rendered HDR' }, start: { noise: 'none' } })).toEqual({
      own: null,
      cannot: ['File: rendered HDR'],
    });
    expect(toOwn(oxbow, { when: {}, start: { engine: '7.1' } }).own).toBeNull();
  });

  test('cannot hold a name that would be another pair or another line; in JSON it can', () => {
    for (const name of ['A; tone = straight', 'A => tone = straight', 'A\nbody = B', 'A\u202e']) {
      expect(toOwn(oxbow, { when: { camera: name }, start: { noise: 'none' } }).own).toBeNull();
      expect(toOwn(oxbow, { when: {}, start: { noise: 'none', profile: name } })).toMatchObject({
        own: { start: [['grain', 'keep']] },
        cannot: [`Camera profile: ${name}`],
      });
      expect(toOwn(tessel, { when: {}, start: { profile: name } }).own?.start).toEqual([['profile', name]]);
    }
    const odd = { when: { camera: 'Léy = 1 # 😀' }, start: { noise: 'none' } };
    const { own } = toOwn(oxbow, odd);
    const written = text(writeOwnRules(oxbow, { rules: [must(own)], tail: [] }, ''));
    expect(oxbowRules(written).rules.map((one) => toCommon(oxbow, one).rule)).toEqual([odd]);
  });

  test('keeps what an object says beside its two parts', () => {
    const there = readOwnRules(tessel, 't', '[{"by": "Piet", "laid": {"calm": 0}, "seen": {}}]');
    const merged = mergeRules(tessel, [], [{ when: {}, start: { curve: 'none' } }], there);
    expect(text(writeOwnRules(tessel, merged.rules, ''))).toBe(
      '[{"by":"Piet","laid":{"bend":false,"calm":0},"seen":{}}]',
    );
  });

  test('comes back from the editor’s words as it went, for all that it has words for', () => {
    const word = (name: keyof typeof settings) =>
      fc.option(settings[name].values ? fc.constantFrom(...settings[name].values) : fc.constantFrom('1.2', 'Scrim'), {
        nil: '',
      });
    const rules = fc.record({
      when: fc.record({
        camera: fc.constantFrom('', 'Ondine 40', 'Perrin Alder, infrared'),
        input: fc.constantFrom('', ...must(conditions.input.values).slice(0, 2)),
        lens: fc.constantFrom('', ...must(conditions.lens.values)),
        iso: fc.constantFrom('', '100-800', '1600-'),
      }),
      start: fc.record({
        lens: fc.constantFrom('', 'matched', 'none', 'Ley 80'),
        noise: word('noise'),
        curve: word('curve'),
        exposure: word('exposure'),
        engine: word('engine'),
        look: word('look'),
      }),
    });
    fc.assert(
      fc.property(rules, (given) => {
        const rule = tidy(given as Rule);
        const { own, cannot } = toOwn(tessel, rule);
        expect(cannot).toEqual([]);
        if (own) expect(toCommon(tessel, own)).toEqual({ rule, unknown: [], isWhole: true });
        else expect(rule.start).toEqual({});
      }),
    );
  });
});

const any: Rule = { when: {}, start: { lens: 'matched', noise: 'color' } };
const red: Rule = { when: { camera: 'Perrin Alder, infrared' }, start: { lens: 'none', profile: 'Wood Grey' } };

describe('the studio’s rules and theirs', () => {
  test('where there is no list yet, are the studio’s', () => {
    const merged = mergeRules(oxbow, [], [red, any], oxbowRules(''));
    expect(merged.due).toBe(true);
    expect(text(writeOwnRules(oxbow, merged.rules, ''))).toBe(
      'body = Perrin Alder, infrared => correct = never; profile = Wood Grey\n=> correct = by name; grain = lift specks\n',
    );
    expect(merged.rows.map(({ words, mark }) => [words, mark])).toEqual([
      ['Perrin Alder, infrared', 'ours'],
      ['any photo', 'ours'],
    ]);
  });

  test('are merged setting by setting: what they changed stays, what we changed comes', () => {
    const there = oxbowRules('file = print => grain = keep\n=> correct = never; grain = lift specks; glow = soft\n');
    const now: Rule = { when: {}, start: { lens: 'matched', noise: 'color and luminance' } };
    const merged = mergeRules(oxbow, [any], [now], there);
    expect(text(writeOwnRules(oxbow, merged.rules, ''))).toBe(
      'file = print => grain = keep\n=> correct = never; grain = lift all; glow = soft\n',
    );
    expect(merged.rows).toMatchObject([
      { words: 'rendered SDR', mark: 'theirs' },
      {
        words: 'any photo',
        mark: 'both',
        cells: {
          lens: { is: 'none', should: 'matched', will: 'none' },
          noise: { is: 'color', should: 'color and luminance', will: 'color and luminance' },
        },
        unknown: ['glow'],
      },
    ]);
  });

  test('go over what was changed there where somebody says so; what they do not speak of stays', () => {
    const there = oxbowRules('file = print => grain = keep\n=> correct = never; grain = lift specks; glow = soft\n');
    const merged = mergeRules(oxbow, [red, any], [red, any], there, true);
    expect(text(writeOwnRules(oxbow, merged.rules, ''))).toBe(
      [
        'body = Perrin Alder, infrared => correct = never; profile = Wood Grey',
        'file = print => grain = keep',
        '=> correct = by name; grain = lift specks; glow = soft',
        '',
      ].join('\n'),
    );
  });

  test('that were taken out there stay out and are told, and what the studio takes out goes', () => {
    const merged = mergeRules(oxbow, [red, any], [red], oxbowRules('=> correct = by name; grain = lift specks\n'));
    expect(merged.rules.rules).toEqual([]);
    expect(merged.rows.map(({ words, mark }) => [words, mark])).toEqual([
      ['any photo', 'removed'],
      ['Perrin Alder, infrared', 'taken-off'],
    ]);
  });

  test('that are added hide none of theirs, and are hidden by none: the first that fits is taken', () => {
    const print: Rule = { when: { input: 'rendered SDR' }, start: { noise: 'none' } };
    const there = oxbowRules('file = print => grain = keep\nbody = Ondine 40; file = print => tone = straight\n');
    const ondine: Rule = {
      when: { camera: 'Ondine 40', input: 'rendered SDR', iso: '1600-' },
      start: { lens: 'none' },
    };
    expect(mergeRules(oxbow, [], [any, ondine], there).rows.map(({ words }) => words)).toEqual([
      'Ondine 40, rendered SDR, ISO from 1600',
      'rendered SDR',
      'Ondine 40, rendered SDR',
      'any photo',
    ]);
    expect([...hiddenRules([any, print, ondine])].map(([n, by]) => [n, whenWords(by.when)])).toEqual([
      [1, 'any photo'],
      [2, 'any photo'],
    ]);
    expect(hiddenRules([ondine, print, any]).size).toBe(0);
  });

  test('of theirs on conditions that nobody here knows stay, and are not taken for rules of any photo', () => {
    const there = oxbowRules('moon = full => grain = keep\n');
    const merged = mergeRules(oxbow, [], [any], there);
    expect(merged.rows.map(({ words, mark, isWhole, unknown }) => [words, mark, isWhole, unknown])).toEqual([
      ['any photo, on conditions that are not known here', 'theirs', false, ['moon']],
      ['any photo', 'ours', true, []],
    ]);
    expect(text(writeOwnRules(oxbow, merged.rules, ''))).toContain('moon = full => grain = keep\n');
  });

  test('ask for nothing more once they are written', () => {
    const rule = fc.record({
      when: fc.record({ camera: fc.constantFrom('', 'A', 'B'), input: fc.constantFrom('', 'camera data') }),
      start: fc.record({
        lens: fc.constantFrom('matched', 'none'),
        noise: fc.constantFrom('', 'none', 'color'),
      }),
    });
    const list = fc.uniqueArray(rule, { maxLength: 4, selector: ({ when }) => JSON.stringify(when) });
    const own = (rules: readonly Rule[]) => ({
      rules: rules.flatMap((one) => toOwn(oxbow, tidy(one)).own ?? []),
      tail: [],
    });
    fc.assert(
      fc.property(list, list, list, (base, ours, theirs) => {
        const [b, o, t] = [base, ours, theirs].map((rules) => rules.map((one) => tidy(one as Rule))) as [
          Rule[],
          Rule[],
          Rule[],
        ];
        const first = mergeRules(oxbow, b, o, own(t));
        expect(mergeRules(oxbow, o, o, first.rules).due).toBe(false);
        expect(mergeRules(oxbow, b, b, own(t)).due).toBe(false);
        expect(mergeRules(oxbow, b, o, own(b)).rules.rules).toEqual(own(o).rules);
      }),
    );
  });
});

describe('what may be said', () => {
  test.each([
    [{ when: {}, start: {} }, /at least one thing/],
    [{ when: { iso: '800' }, start: { noise: 'none' } }, /ISO is a range/],
    [{ when: { iso: '800-100' }, start: { noise: 'none' } }, /ends before it begins/],
    [{ when: {}, start: { noise: 'some' } }, /Noise reduction is one of/],
    [{ when: { moon: 'full' }, start: { noise: 'none' } }, /moon/],
  ])('%j is refused', (rule, words) => {
    expect(() => ruleSchema.validateSync(rule, { strict: true })).toThrow(words);
  });

  test('reads as words', () => {
    expect(whenWords({})).toBe('any photo');
    expect(whenWords({ camera: 'Ondine 40', input: 'camera data', lens: 'not matched', iso: '1600-' })).toBe(
      'Ondine 40, camera data, lens not matched, ISO from 1600',
    );
    expect(whenWords({ iso: '100-800' })).toBe('ISO 100 to 800');
  });
});

describe('descriptors', () => {
  const fine = oxbow2.opening;
  const bad = (opening: object) => () => parseDescriptor({ ...oxbow2, opening });

  test.each([
    [{ ...fine, list: {} }, /stand nowhere/],
    [{ ...fine, form: 'json' }, /name the two parts/],
    [{ ...fine, parts: { when: 'a', start: 'b' } }, /name the two parts/],
    [{ ...fine, list: { linux: '{config}/Oxbow/o.json#chosen/rules' } }, /stand in a bundle, and their form is lines/],
    [{ ...fine, when: { camera: { key: 'b', values: { all: '*' } } } }, /know no "all" of when.camera/],
    [{ ...fine, start: { noise: { key: 'g', values: { none: 'x', color: 'x' } } } }, /are one value/],
    [{ ...fine, start: { noise: { key: 'g' }, curve: { key: 'g' } } }, /have the key "g"/],
    [{ ...fine, start: { moon: { key: 'm' } } }, /moon/],
    [{ ...fine, when: { camera: { key: 'a = b' } } }, /must be a name of letters/],
  ])('are refused where their rules make no sense: %#', (opening, words) => {
    expect(bad(opening)).toThrow(words);
  });
});

describe('what a photo is begun with', () => {
  const photo: OpenedPhoto = { camera: 'Perrin Alder', input: 'camera data', lens: 'matched', iso: null };
  const known = (rule: Rule): UnderstoodRule => ({ rule, isWhole: true, unknown: [] });

  test('is said by the first rule that fits; one for a range of ISO fits no photo that says none', () => {
    const rules = [
      known({ when: { iso: '100-' }, start: { noise: 'none' } }),
      known({ when: { camera: 'perrin alder' }, start: { curve: 'none' } }),
    ];
    expect(begunBy(rules, photo)).toMatchObject({ is: 'by rule', rule: { start: { curve: 'none' } } });
    expect(begunBy(rules, { ...photo, iso: 100 })).toMatchObject({ rule: { start: { noise: 'none' } } });
    expect(begunBy(rules, { ...photo, camera: '' })).toEqual({ is: 'by itself' });
  });

  test('is unsure where the first that may fit says what is not known, and only then', () => {
    const strange: UnderstoodRule = {
      rule: { when: { lens: 'not matched' }, start: {} },
      isWhole: false,
      unknown: ['moon'],
    };
    const rules = [strange, known({ when: {}, start: { curve: 'none' } })];
    expect(begunBy(rules, photo)).toMatchObject({ is: 'by rule' });
    expect(begunBy(rules, { ...photo, lens: 'not matched' })).toEqual({ is: 'unsure', unknown: ['moon'] });
  });

  test('is shown as far as a picture can', () => {
    const start = { lens: 'matched', curve: 'none', look: 'Plaster' };
    expect(notShownOf(start, 'camera data')).toEqual([]);
    expect(notShownOf(start, 'rendered SDR')).toEqual(['lens correction: matched', 'base curve: none']);
    expect(notShownOf({ lens: 'none' }, 'rendered SDR')).toEqual([]);
  });
});
