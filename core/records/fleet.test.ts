import { describe, expect, test } from 'vitest';
import { fleetAddress, fleetFilterOf, isShown, needOf, wholeFleet, type Standing } from './fleet';

const standing = (part: Partial<Standing> = {}): Standing => ({
  states: ['in-step', 'empty'],
  silent: false,
  twoAgents: false,
  due: 0,
  ...part,
});

describe('what a station needs', () => {
  test.each([
    ['in step', standing(), 'none'],
    ['waits for a start', standing({ states: ['in-step', 'launch-due'] }), 'start'],
    ['has an update to come, whatever waits besides', standing({ states: ['launch-due', 'update-due'] }), 'due'],
    ['lacks what an order asks for', standing({ due: 3 }), 'due'],
    ['was changed there, whatever is due', standing({ states: ['changed'], due: 3 }), 'somebody'],
    ['has something that its editor says nothing of', standing({ states: ['not-listed'] }), 'somebody'],
    ['says nothing any more', standing({ silent: true }), 'somebody'],
    ['has two agents of one name', standing({ twoAgents: true }), 'somebody'],
    ['was filled by hand', standing({ states: ['by-hand'] }), 'none'],
  ])('%s', (_, one, need) => expect(needOf(one)).toBe(need));

  test('is what it is shown by; a silent one by its silence too', () => {
    const silent = standing({ silent: true });
    expect(['all', 'somebody', 'silent'].map((show) => isShown(show as never, silent))).toEqual([true, true, true]);
    expect(isShown('start', silent)).toBe(false);
    expect(isShown('silent', standing({ states: ['changed'] }))).toBe(false);
  });
});

describe('an address of the fleet', () => {
  test('is read as it was written', () => {
    const filter = {
      words: 'glaze & desk',
      system: 'macos',
      editor: 'oxbow@2',
      group: 'Upper floor',
      show: 'due',
      order: 'need',
    } as const;
    const asked = Object.fromEntries(new URL(fleetAddress(filter, 50), 'http://x').searchParams);
    expect(asked.from).toBe('50');
    expect(fleetFilterOf(asked)).toEqual(filter);
  });
  test('of the whole fleet is short', () => expect(fleetAddress(wholeFleet)).toBe('/stations'));
  test('with what nobody knows leaves that out', () =>
    expect(
      fleetFilterOf({ system: 'amiga', show: ['all', 'due'], order: '; drop', words: `a\0${'b'.repeat(500)}` }),
    ).toEqual({ ...wholeFleet, words: `a${'b'.repeat(99)}` }));
});
