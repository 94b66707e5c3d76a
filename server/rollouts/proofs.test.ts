import { describe, expect, test } from 'vitest';
import type { Person } from '../people/roles';
import { beyond, errorOf, refuseBeyond } from './proofs';

const figures = (meanDeltaE: number, maxDeltaE: number) => ({ meanDeltaE, maxDeltaE, p95DeltaE: maxDeltaE });
const step = (residual: ReturnType<typeof figures> | null, table: ReturnType<typeof figures> | null = null) => ({
  do_what: 'put' as const,
  path: 'looks/Ash.cube',
  title: 'Ash',
  residual,
  table_error: table,
});
const within = { mean: 0.5, max: 3 };
const person = (role: Person['role']): Person => ({ id: '1', name: 'Odile', email: 'o@test.example', role });

describe('what a rollout writes', () => {
  test('is judged by the larger of its two errors', () => {
    expect(errorOf(step(figures(0.1, 1), figures(0.2, 4)))?.maxDeltaE).toBe(4);
    expect(errorOf(step(null, null))).toBeNull();
  });
  test('that is not written is not judged', () => {
    const far = step(figures(1, 15));
    expect(beyond([far, { ...far, do_what: 'none' }, step(figures(0.1, 1))], within)).toEqual([far]);
  });
  test('and is too far off, waits for the lead', () => {
    const far = [step(figures(1, 15))];
    expect(() => refuseBeyond(person('librarian'), far, within)).toThrow(/Ash, mean 1.00, largest 15.00 ΔE00/);
    expect(() => refuseBeyond(person('lead'), far, within)).not.toThrow();
    expect(() => refuseBeyond(person('librarian'), [], within)).not.toThrow();
  });
});
