import { strToU8 } from 'fflate';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { lensDifference, lensRecords } from './records';

const database = (inner: string) =>
  strToU8(`<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="1">${inner}</lens-database>`);
const lens = (model: string, k: number, more = '') =>
  `<lens maker="Corvane" model="${model}" mount="Ley"${more}><series kind="warp"><sample focal="35" k1="${k}"/></series></lens>`;

describe('two releases of a lens database', () => {
  test('are told record by record: added, changed, gone, and how many are the same', () => {
    const difference = lensDifference(
      database(`<mount name="Ley"/>${lens('35 mm', 0.1)}${lens('50 mm', 0.2)}${lens('90 mm', 0.3)}`),
      database(
        `<mount name="Ley"/>${lens('35 mm', 0.1)}${lens('50 mm', 0.25)}<lens maker="Corvane" model="20 mm" mount="Ley"><series/></lens>`,
      ),
    );
    expect(difference).toEqual({
      added: [{ what: 'lens', name: 'Corvane 20 mm, Ley', before: '', after: '1 series, 0 samples' }],
      changed: [
        {
          what: 'lens',
          name: 'Corvane 50 mm, Ley',
          before: '1 series, 1 sample',
          after: '1 series, 1 sample',
          moved: null,
        },
      ],
      gone: [{ what: 'lens', name: 'Corvane 90 mm, Ley', before: '1 series, 1 sample', after: '' }],
      same: 2,
    });
  });
  test('do not differ by the order of records or attributes, or by space; a name in other letters is the same record, written otherwise', () => {
    const difference = lensDifference(
      database(`${lens('35 mm', 0.1)}${lens('50 mm', 0.2)}`),
      database(
        `\n ${lens('50 mm', 0.2)}\n <lens mount="Ley" model="35 MM" maker="corvane">\n<series kind="warp"> <sample k1="0.1" focal="35"></sample></series></lens>`,
      ),
    );
    expect([difference.added, difference.gone]).toEqual([[], []]);
    expect(difference.changed.map((c) => c.name)).toEqual(['corvane 35 MM, Ley']); // what it is called did change
    expect(difference.same).toBe(1);
  });
  test('one lens on two mounts, or calibrated twice, is two records', () => {
    const records = lensRecords(
      database(`${lens('35 mm', 0.1)}${lens('35 mm', 0.2)}<lens maker="Corvane" model="35 mm" mount="Alder"/>`),
    );
    expect(records.map((x) => x.name)).toEqual([
      'Corvane 35 mm, Ley',
      'Corvane 35 mm, Ley (2)',
      'Corvane 35 mm, Alder',
    ]);
  });
  test('for any two sets of lenses, what is added one way is gone the other, and all are accounted for', () =>
    fc.assert(
      fc.property(
        fc.dictionary(fc.stringMatching(/^[a-z]{1,4}$/), fc.integer({ min: 0, max: 3 })),
        fc.dictionary(fc.stringMatching(/^[a-z]{1,4}$/), fc.integer({ min: 0, max: 3 })),
        (one, other) => {
          const of = (differences: Record<string, number>) =>
            database(
              Object.entries(differences)
                .map(([m, k]) => lens(m, k))
                .join(''),
            );
          const there = lensDifference(of(one), of(other));
          const back = lensDifference(of(other), of(one));
          const names = (l: { name: string }[]) => l.map((x) => x.name).sort();
          expect(names(there.added)).toEqual(names(back.gone));
          expect(names(there.changed)).toEqual(names(back.changed));
          expect(there.added.length + there.changed.length + there.same).toBe(Object.keys(other).length);
          expect(there.gone.length + there.changed.length + there.same).toBe(Object.keys(one).length);
        },
      ),
    ));
  test.each([
    ['another root', strToU8('<other/>'), 'lens-root'],
    ['a nest', database('<a>'.repeat(30) + '</a>'.repeat(30)), 'xml-depth'],
    ['torn', database('<lens>'), 'xml-malformed'],
  ])('%s is refused', (_, bytes, code) => {
    expect(() => lensDifference(database(''), bytes)).toThrow(expect.objectContaining({ code }) as Error);
  });
});
