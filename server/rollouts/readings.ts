/** What editors listed before and after a rollout. */
import { groupBy } from '@/core/lists';
import { readingOf, type Reading } from '@/core/sync/listing-change';
import { pool } from '../db/pool';
import { allow, type Person } from '../people/roles';
import { listingChangesOf } from '../stations/listing-queries';
import type { StepRow } from './queries';

export interface EditorReading extends Reading {
  station: string;
  editor: string;
  version: string;
  title: string;
}

const keyOf = (at: Pick<StepRow, 'station_id' | 'editor_id' | 'editor_version'>): string =>
  `${at.station_id} ${at.editor_id} ${at.editor_version}`;

/** What is to be told of: what was written where nothing of the kind lay, and what was taken away. */
const changesList = (step: StepRow): boolean =>
  step.outcome === 'done' && step.version_id !== null && (step.do_what === 'remove' || step.expect === null);

/** One for each editor whose list has changed since the rollout was confirmed. */
export async function readingsOf(
  person: Person,
  rollout: { id: string; confirmed_at: Date | null },
  steps: readonly StepRow[],
): Promise<EditorReading[]> {
  allow(person, 'view');
  if (!rollout.confirmed_at) return [];
  const changes = groupBy(await listingChangesOf(pool(), rollout.id), keyOf);
  const written = groupBy(steps.filter(changesList), keyOf);
  return [...written].flatMap(([key, own]) => {
    const of = changes.get(key) ?? [];
    const [first] = of;
    const paths = own.map(({ path }) => path);
    const reading = readingOf(of, paths);
    if (!first || !reading) return [];
    const { station_id: station, editor_id: editor, editor_version: version, title } = first;
    return [{ station, editor, version, title, ...reading }];
  });
}
