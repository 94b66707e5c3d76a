import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { WhiteBalance } from '@/core/bench/white-balance';
import { STAGES } from '@/core/camera/stages';
import { otherEncodings } from '@/core/look/assumed-encoding';
import { addressOf, stateOf } from './address';
import { emptyColumn, type Column, type Source } from './column';
import { emptyState } from './state';

const uuid = fc.uuid();
const strength = fc.integer({ min: 0, max: 400 });
const source: fc.Arbitrary<Source> = fc.oneof(
  fc.constant<Source>({ from: 'frame' }),
  fc.constant<Source>({ from: 'camera-jpeg' }),
  fc.constantFrom('Oxbow 2, Größe & more %', 'plain').map((label): Source => ({ from: 'export', label })),
  fc.record({
    from: fc.constant('profile' as const),
    version: uuid,
    stages: fc.subarray([...STAGES]),
    anchor: fc.option(fc.integer({ min: 2000, max: 50_000 })),
  }),
);
const layer = fc.record({
  version: uuid,
  strength,
  assumed: fc.option(fc.constantFrom(...otherEncodings)),
});
const column: fc.Arbitrary<Column> = fc.record({
  source,
  layers: fc.array(layer, { maxLength: 3 }),
  trim: fc.constantFrom(null, {
    slope: [1.1, 1, 0.9] as [number, number, number],
    offset: [0, -0.05, 0.02] as [number, number, number],
    power: [1, 0.85, 1] as [number, number, number],
  }),
  range: fc.boolean(),
});
const white: fc.Arbitrary<WhiteBalance> = fc.constantFrom<WhiteBalance>(
  { by: 'file' },
  { by: 'gray world' },
  { by: 'temperature', kelvin: 5200, tint: -4 },
  { by: 'neutral', neutral: [0.5, 1, 0.7] },
);

describe('the address of the bench', () => {
  test('holds all that the bench is, and gives it back', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ frame: uuid, white }), { maxLength: 6 }),
        fc.array(column, { minLength: 1, maxLength: 8 }),
        fc.boolean(),
        fc.boolean(),
        (rows, columns, difference, mark) => {
          const state = { ...emptyState, rows, columns, difference, mark, reference: columns.length - 1 };
          expect(stateOf(addressOf(state))).toEqual(state);
        },
      ),
    );
  });

  test('is as it was when it was shorter: addresses that people kept still lead to the same bench', () => {
    const frame = '0198c0de-0000-7000-8000-000000000001';
    const version = '0198c0de-0000-7000-8000-000000000002';
    const state = stateOf(
      `rows=${frame}.k:5000,10~${frame}&cols=none~jpeg!r~p:${version}:7:5000~l:${version}:80:2!t:1.1,1,1,0,0,0,1,1,1&ref=1&open=1,0,2`,
    );
    expect(state.rows.map((row) => row.white.by)).toEqual(['temperature', 'file']);
    expect(state.columns.map((one) => one.source.from)).toEqual(['frame', 'camera-jpeg', 'profile', 'frame']);
    expect(state.columns[1]?.range).toBe(true);
    expect(state.columns[2]?.source).toEqual({
      from: 'profile',
      version,
      stages: ['hue-sat', 'exposure', 'look'],
      anchor: 5000,
    });
    expect(state.columns[3]?.layers).toEqual([{ version, strength: 80, assumed: otherEncodings[1] }]);
    expect(state.columns[3]?.trim?.slope).toEqual([1.1, 1, 1]);
    expect(state).toMatchObject({ reference: 1, open: { row: 1, columns: [0, 2] } });
  });

  test.each([
    ['rows', 'rows=x~y.auto'],
    ['columns', 'cols=what~l:1:2~p:nothing'],
    ['a label that escapes nothing', 'cols=x:%25E0%25A4'],
    ['numbers', 'ref=99&open=4,5&range=1,2&gray=7&blind=x'],
  ])('nonsense in %s is left out', (_, address) => expect(stateOf(address)).toEqual(emptyState));

  test('a column with more layers than anyone needs is left out', () => {
    const seven = Array.from({ length: 7 }, () => `l:${'0198c0de-0000-7000-8000-000000000009'}:100`).join('!');
    expect(stateOf(`cols=${seven}`).columns).toEqual([emptyColumn]);
  });
});
