import { EventEmitter } from 'node:events';
import { setTimeout as wait } from 'node:timers/promises';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Turns, type Answer } from './turns';

class Asked extends EventEmitter implements Answer {
  destroyed = false;
  constructor(readonly name: string) {
    super();
  }
  close(): void {
    this.destroyed = true;
    this.emit('close');
  }
}

function begun(turns: Turns) {
  const names: string[] = [];
  const ask = (name: string): Asked => {
    const answer = new Asked(name);
    turns.take(answer, () => names.push(name));
    return answer;
  };
  return { names, ask };
}

test('so many are answered at once, the others in the order in which they came', () => {
  const turns = new Turns(2, 1000);
  const { names, ask } = begun(turns);
  const [a, b] = ['a', 'b', 'c', 'd', 'e'].map(ask);
  expect([names.join(''), turns.waiting]).toEqual(['ab', 3]);
  b?.close();
  expect(names.join('')).toBe('abc');
  a?.close();
  expect([names.join(''), turns.waiting]).toEqual(['abcd', 1]);
});

test('who has left before the turn came is passed over', () => {
  const { names, ask } = begun(new Turns(1, 1000));
  const [a, b, , d] = ['a', 'b', 'c', 'd'].map(ask);
  b?.close();
  d?.close();
  a?.close();
  expect(names.join('')).toBe('ac');
});

test('a turn that lasts long keeps nobody waiting, and ends once', async () => {
  const turns = new Turns(1, 20);
  const { names, ask } = begun(turns);
  const [stream] = ['stream', 'b', 'c'].map(ask);
  expect(names).toEqual(['stream']);
  await wait(30);
  expect(names).toEqual(['stream', 'b']);
  stream?.close();
  expect(names).toEqual(['stream', 'b']);
  await wait(30);
  expect(names).toEqual(['stream', 'b', 'c']);
});

test('whatever comes and goes, never more than the most are under way, and all who stay are answered', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 4 }), fc.array(fc.nat(30), { maxLength: 60 }), (most, closings) => {
      const turns = new Turns(most, 1e6);
      const underWay = new Set<Asked>();
      const answered = new Set<Asked>();
      const open: Asked[] = [];
      const close = (one: Asked | undefined) => {
        if (!one) return;
        open.splice(open.indexOf(one), 1);
        underWay.delete(one);
        one.close();
      };
      const left = new Set<Asked>();
      for (const [n, closing] of closings.entries()) {
        const asked = new Asked(String(n));
        open.push(asked);
        turns.take(asked, () => {
          underWay.add(asked);
          answered.add(asked);
        });
        expect(underWay.size).toBeLessThanOrEqual(most);
        const leaving = closing % 2 ? open[closing % open.length] : undefined;
        if (leaving && !answered.has(leaving)) left.add(leaving);
        close(leaving);
      }
      while (underWay.size) close([...underWay][0]);
      expect(turns.waiting).toBe(0);
      expect(answered.size + left.size).toBe(closings.length);
    }),
  );
});

test('how long whoever comes will wait follows from how turns have come', async () => {
  const turns = new Turns(1, 1000);
  const { ask } = begun(turns);
  expect(turns.wait).toBe(0);
  const asked = ['a', 'b', 'c', 'd', 'e', 'f'].map(ask);
  for (const answer of asked.slice(0, 4)) {
    await wait(20);
    answer.close();
  }
  // one still waits, and turns have come every 20 ms or a little more
  expect(turns.waiting).toBe(1);
  expect(turns.wait).toBeGreaterThan(10);
  expect(turns.wait).toBeLessThan(200);
  asked[4]?.close();
  expect(turns.wait).toBe(0);
});
