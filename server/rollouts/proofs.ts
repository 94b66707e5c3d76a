/** Whether what a rollout writes is near enough to what it was made from: as a table of something, and as its editor takes it. */
import { errorWords, proofOf, type Figures, type Thresholds } from '@/core/conversion/outcome';
import { Problem } from '@/core/problem';
import { counted } from '@/core/words';
import { may, type Person } from '../people/roles';
import type { StepRow } from './queries';

type Judged = Pick<StepRow, 'do_what' | 'residual' | 'table_error' | 'title' | 'path'>;

/** The larger of the two errors that a file can have; null where nothing of it is approximated. */
export function errorOf({ residual, table_error }: Pick<StepRow, 'residual' | 'table_error'>): Figures | null {
  const known = [residual, table_error].flatMap((error) => error ?? []);
  const [worst] = known.sort((one, other) => other.maxDeltaE - one.maxDeltaE);
  return worst ?? null;
}

/** Files that would be written and are further off than the studio takes. */
export const beyond = <Step extends Judged>(steps: readonly Step[], within: Thresholds): Step[] =>
  steps.filter((step) => step.do_what === 'put' && proofOf(errorOf(step), within) === 'failed');

/** Throws for who may not let them go. */
export function refuseBeyond(person: Person, found: readonly Judged[], within: Thresholds): void {
  const [first] = found;
  const error = first && errorOf(first);
  if (!error || may(person, 'proof.set')) return;
  throw new Problem(
    'proof-failed',
    `${counted(found.length, 'file')} would be further off than the studio takes: ${first.title ?? first.path}, ${errorWords(error)} ΔE00; at most ${within.mean} and ${within.max} are taken.`,
    first.title ?? first.path,
    'Make it with more points, leave it out, or have the lead confirm this rollout.',
  );
}
