import { describe, expect, it } from 'vitest';
import { sightingWords, verdictOf, type SightingFigures } from './sighting';

const of = (mean: number, max = mean * 4) => ({ mean, p95: mean * 2, max });
const figures = (off: number, there: number, here: number, max?: number): SightingFigures => ({
  off: of(off, max),
  there: of(there),
  here: of(here),
});
const wall = { editor: 'Oxbow 2', frame: 'Wall', notShown: [] };
const within = { mean: 1, max: 12 };

describe('whether an item is seen working', () => {
  it('is where the editor’s picture is near to ours, within the thresholds of the studio', () => {
    expect(verdictOf(figures(0.4, 6, 6), within)).toBe('seen');
    expect(verdictOf(figures(1.01, 6, 6), within)).toBe('differs');
    expect(verdictOf(figures(0.4, 6, 6, 12.1), within)).toBe('differs');
  });

  it('is not where the editor did nothing, though the effect is small enough for the thresholds', () => {
    const nothing = figures(0.8, 0.02, 0.8);
    expect(verdictOf(nothing, within)).toBe('differs');
    expect(sightingWords('differs', nothing, wall)).toBe(
      'Oxbow 2’s picture of Wall is as it was without it (ΔE00 0.02 on average)',
    );
  });

  it('cannot be told on a frame that the item hardly changes', () => {
    const faint = figures(0, 0.2, 0.2);
    expect(verdictOf(faint, within)).toBe('unclear');
    expect(sightingWords('unclear', faint, wall)).toMatch(/ask with a frame/);
  });

  it('says both figures where the two pictures are of different looks', () => {
    const other = figures(5, 6, 7, 20);
    expect(verdictOf(other, within)).toBe('differs');
    expect(sightingWords('differs', other, wall)).toBe(
      'Oxbow 2’s own picture of Wall is not as ours: ΔE00 5.00 on average, 20.0 at most',
    );
    expect(sightingWords('differs', other, { ...wall, notShown: ['Grain', 'Vignette'] })).toMatch(
      /20\.0 at most; ours does not show grain, vignette$/,
    );
  });
});
