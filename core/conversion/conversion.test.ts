import { describe, expect, it } from 'vitest';
import { titleByPattern } from '../item/title-pattern';
import { errorWords, proofOf } from './outcome';
import { gives, recipeFields, recipeIn, recipeOf, sameRecipe, takes, usualRecipe, type Recipe } from './recipe';

const cast = (fields: object): Recipe => recipeOf(recipeFields.validateSync(fields));

describe('a recipe', () => {
  it('keeps the fields of its tool and no others', () => {
    expect(cast({ tool: 'bake', size: 17, to: 'x', leave: ['warmth'] })).toEqual({
      tool: 'bake',
      size: 17,
      leave: ['warmth'],
    });
    expect(cast({ tool: 'preset', to: 'oxbow@2' })).toEqual({ tool: 'preset', to: 'oxbow@2' });
  });

  it.each([
    [{ tool: 'paint' }, /Choose what shall be made/],
    [{ tool: 'preset' }, /Choose an editor/],
    [{ tool: 'bake', size: 1 }, /at least 2 points/],
    [{ tool: 'bake', size: 33.5 }, /whole number/],
    [{ tool: 'bake', leave: ['sparkle'] }, /no setting called sparkle/],
    [{ tool: 'companion', to: 'oxbow@2', strength: 500 }, /at most 400 %/],
    [{ tool: 'derive', form: 'other-camera' }, /for which camera/],
    [{ tool: 'derive', form: 'jpeg' }, /no form of an item/],
  ])('that makes no sense says why: %j', (fields, why) => {
    expect(() => cast(fields)).toThrow(why);
  });

  it('says which kind it takes', () => {
    const kinds = ['preset', 'look', 'camera-profile'];
    expect(kinds.map((kind) => takes(usualRecipe(kind)!))).toEqual(kinds);
    expect(usualRecipe('lens-database')).toBeNull();
    expect(takes({ tool: 'companion', to: 'oxbow@2', strength: 100 })).toBe('look');
  });

  it('is the same in whatever order settings are left out', () => {
    const bake = (leave: string[]): Recipe => ({ tool: 'bake', size: 33, leave });
    expect(sameRecipe(bake(['warmth', 'level']), bake(['level', 'warmth']))).toBe(true);
    expect(sameRecipe(bake(['warmth']), bake([]))).toBe(false);
  });

  it('is read from a lineage, with what people chose to leave out', () => {
    const left = [
      { setting: 'level', reason: 'was not chosen' },
      { setting: 'grain', reason: 'is no function of a color' },
    ];
    expect(recipeIn({ tool: 'bake', size: 17, left })).toEqual({ tool: 'bake', size: 17, leave: ['level'] });
    expect(recipeIn({ tool: 'merge' } as object)).toBeNull();
  });

  it('of a column of the bench is one, unless its layers are none', () => {
    const layers = [{ version: '01a222ef-5c2b-714b-9118-67d7265578eb', strength: 80, assumed: null }];
    const column = { tool: 'column' as const, size: 17, layers, trim: null, left: ['range compression'] };
    expect(recipeIn({ ...column, tableError: {} } as never)).toEqual(column);
    expect(recipeIn({ ...column, layers: [{ version: 'x', strength: 1 }] })).toBeNull();
    expect([takes(column), gives(column)]).toEqual([null, 'look']);
  });
});

describe('a proof', () => {
  const figures = (meanDeltaE: number, maxDeltaE: number) => ({ meanDeltaE, maxDeltaE, p95DeltaE: meanDeltaE });
  it('passes within both thresholds, and at them', () => {
    const within = { mean: 0.5, max: 3 };
    expect(proofOf(figures(0.5, 3), within)).toBe('passed');
    expect(proofOf(figures(0.51, 1), within)).toBe('failed');
    expect(proofOf(figures(0.1, 3.01), within)).toBe('failed');
    expect(proofOf(null, within)).toBe('exact');
    expect(errorWords(figures(0.123, 4))).toBe('mean 0.12, largest 4.00');
  });
});

describe('a pattern for titles', () => {
  const parts = { title: 'Wet Cast', place: 3, camera: '', supplier: 'Kiln', heading: 'Rain' };
  it('puts in what it names, and closes up what is empty', () => {
    expect(titleByPattern('{heading} {camera} {title} {n}', parts)).toBe('Rain Wet Cast 3');
    expect(titleByPattern('', parts)).toBe('Wet Cast');
    expect(titleByPattern('{x} {title}', parts)).toBe('{x} Wet Cast');
  });
});
