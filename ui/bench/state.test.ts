import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addressOf, blindOrder, plain, stateOf } from './state';

describe('the address of the bench', () => {
  const uuid = fc.uuid();
  const part = fc.record(
    { version: uuid, strength: fc.integer({ min: 0, max: 400 }), reading: fc.integer({ min: 1, max: 8 }) },
    { requiredKeys: ['version', 'strength'] },
  );
  test('holds all that the bench is, and gives it back', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ frame: uuid, wb: fc.constantFrom('as', 'auto', 'k:5200,-4', 'n:0.5,1,0.7') }), {
          maxLength: 6,
        }),
        fc.array(
          fc.record({
            profile: fc.oneof(fc.constantFrom('plain', 'jpeg', 'x:Oxbow 2, Größe & more %'), uuid),
            stages: fc.integer({ min: 0, max: 15 }),
            parts: fc.array(part, { maxLength: 3 }),
            range: fc.boolean(),
          }),
          { minLength: 1, maxLength: 8 },
        ),
        fc.boolean(),
        fc.boolean(),
        (rows, cols, difference, mark) => {
          const columns = cols.map((c) => ({
            ...plain,
            ...c,
            stages: c.profile.length === 36 ? c.stages : 15,
            anchor: c.profile.length === 36 && c.stages % 2 ? 5000 : null,
            parts: c.profile === 'jpeg' ? [] : c.parts,
            range: c.range,
          }));
          const s = { ...stateOf(() => null), rows, columns, difference, mark, reference: columns.length - 1 };
          const query = new URLSearchParams(addressOf(s));
          expect(stateOf((k) => query.get(k))).toEqual(s);
        },
      ),
    );
  });
  test('what is nonsense in it is left out', () => {
    const query = new URLSearchParams('rows=x~y.auto&cols=what~l:1:2&ref=99&open=4,5&range=1,2');
    expect(stateOf((k) => query.get(k))).toEqual(stateOf(() => null));
  });
  test('a blind order is a permutation that keeps the reference, the same for one seed', () => {
    for (const seed of [1, 7, 99999]) {
      const o = blindOrder(8, 2, seed);
      expect([...o].sort()).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
      expect(o[2]).toBe(2);
      expect(blindOrder(8, 2, seed)).toEqual(o);
    }
    expect(blindOrder(8, 0, 5)).not.toEqual(blindOrder(8, 0, 6));
  });
});
