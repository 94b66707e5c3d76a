import { describe, expect, test } from 'vitest';
import { chosenBetween, draggedBy, MOST_IN_ADDRESS, nothingChosen, planAddress, rollable, toggled } from './selection';
import type { Spine } from './spine';

const spine = (id: string, more: Partial<Spine> = {}) => ({ id, kind: 'look', status: 'approved', ...more }) as Spine;

describe('what is chosen on the shelves', () => {
  const two = toggled(toggled(nothingChosen, spine('a')), spine('b'));

  test('is chosen by a first press and put back by a second', () => {
    expect([...two.keys()]).toEqual(['a', 'b']);
    expect([...toggled(two, spine('a')).keys()]).toEqual(['b']);
  });

  test('the selection that was there stays as it was', () => {
    toggled(two, spine('c'));
    expect(two.size).toBe(2);
  });

  test('moves together when one of it is dragged, and stays when another is', () => {
    expect(draggedBy(['b'], two)).toEqual(['a', 'b']);
    expect(draggedBy(['z'], two)).toEqual(['z']);
  });

  test('only what is approved and what editors take can be rolled out', () => {
    const mixed = [
      spine('a'),
      spine('b', { kind: 'preset' }),
      spine('c', { status: 'draft' }),
      spine('d', { kind: 'camera-profile' }),
      spine('e', { kind: 'chart' }),
    ].reduce(toggled, nothingChosen);
    expect(rollable(mixed).map((one) => one.id)).toEqual(['a', 'b', 'd']);
  });

  test('all between two, in whichever order; what was chosen before stays', () => {
    const list = ['a', 'b', 'c', 'd', 'e'].map((id) => spine(id));
    const one = toggled(nothingChosen, spine('z'));
    expect([...chosenBetween(one, list, 'd', spine('b')).keys()]).toEqual(['z', 'b', 'c', 'd']);
    expect([...chosenBetween(one, list, 'gone', spine('b')).keys()]).toEqual(['z', 'b']);
    expect([...chosenBetween(one, list, null, spine('b')).keys()]).toEqual(['z', 'b']);
  });

  test('the address of a plan is never longer than a server takes', () => {
    const versions = Array.from({ length: 5000 }, () => '01a210e5-4862-76ff-8bf1-cca38cebf5bd');
    expect(planAddress(versions).length).toBeLessThan(15_000);
    expect(planAddress(versions).split(',')).toHaveLength(MOST_IN_ADDRESS);
  });
});
