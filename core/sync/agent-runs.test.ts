import { expect, test } from 'vitest';
import { isTold, seeRun, type AgentRun } from './agent-runs';

const at = new Date('2026-11-27T12:00:00Z');
const run = (name: string, host = 'desk'): AgentRun => ({ run: name, host });
const after = (...reports: AgentRun[]) => {
  let runs: AgentRun[] = [];
  return reports.map((report) => {
    const seen = seeRun(runs, report, at);
    runs = seen.runs;
    return seen.doubled;
  });
};

test('an agent that is started anew, however often, is one', () => {
  expect(after(run('a'), run('a'), run('b'), run('b'), run('c'), run('d'), run('d'))).toEqual(Array(7).fill(null));
});
test('one that reports again after another has come is a second, told with both hosts', () => {
  expect(after(run('a', 'desk'), run('b', 'laptop'), run('a', 'desk')).at(-1)).toEqual({
    hosts: ['desk', 'laptop'],
    at: at.toISOString(),
  });
  expect(after(run('a'), run('b'), run('a'), run('b')).map(Boolean)).toEqual([false, false, true, true]);
});
test('only a few runs are kept, and an hour after the last sign nothing is told any more', () => {
  const many = Array.from({ length: 40 }, (_, n) => run(String(n)));
  expect(after(...many).every((one) => one === null)).toBe(true);
  const doubled = { hosts: ['a', 'b'], at: at.toISOString() };
  expect(isTold(doubled, new Date(at.getTime() + 30 * 60_000))).toBe(true);
  expect(isTold(doubled, new Date(at.getTime() + 61 * 60_000))).toBe(false);
  expect(isTold(null, at)).toBe(false);
});
