import { describe, expect, test } from 'vitest';
import { fingerprint, fingerprintDistance } from '../look/fingerprint';
import { selvedge, threads } from '../look/selvedge';
import { copyOf, profileOf, setNumbers, type Dcp } from './dcp';
import { DAYLIGHT, LAMPLIGHT, renderedColors, renderedValues } from './effect';
import { made } from './testing';
import { read } from './tags';

const of = (dcp: Dcp) => profileOf(dcp);
const print = (dcp: Dcp) => fingerprint(renderedValues(of(dcp), DAYLIGHT), renderedValues(of(dcp), LAMPLIGHT));
const apart = (one: Dcp, other: Dcp) => fingerprintDistance(print(one), print(other)).max;

/** The made-up profile without what makes it more than matrices. */
function plain(): Dcp {
  const dcp = copyOf(made());
  for (const tag of [...read.map, read.look, read.curve, read.exposure, ...read.forward]) dcp.tags.delete(tag);
  return dcp;
}

describe('what a camera profile does to colors', () => {
  test('is nothing where it is matrices alone: they undo what they describe', () => {
    const out = new Float64Array(3);
    const evaluate = renderedColors(of(plain()));
    for (const [r, g, b] of threads) {
      evaluate(r, g, b, out, 0);
      for (const [c, value] of [r, g, b].entries()) expect(out[c]).toBeCloseTo(value, 2);
    }
  });

  test('is seen in its threads where it has tables and a curve', () => {
    const told = selvedge(renderedColors(of(made())));
    expect(told).toHaveLength(12);
    expect(told.filter(([fixed, rendered]) => fixed !== rendered).length).toBeGreaterThan(6);
  });
});

describe('two profiles of one camera', () => {
  test('that are the same do the same', () => expect(apart(made(), copyOf(made()))).toBe(0));

  test('that differ in one table do not', () => expect(apart(made(), plain())).toBeGreaterThan(2));

  test('that differ in the matrix of one light alone are told apart', () => {
    const other = plain();
    const matrix = [...of(other).color[0]!];
    setNumbers(
      other,
      read.color[0],
      10,
      matrix.map((value, i) => (i % 4 ? value * 1.4 : value)),
    );
    expect(apart(plain(), other)).toBeGreaterThan(0.5);
  });
});
