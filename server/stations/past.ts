/** What we had put at a station on any day, and the rollouts that changed it. */
import { isDay } from '@/core/day';
import { pool } from '../db/pool';
import { allow, type Person } from '../people/roles';
import { listingChangesAt, type ListingChangeRow } from './listing-queries';
import { changesAt, layAt, type ChangeRow, type LayRow } from './past-queries';
import type { StationRow } from './queries';
import { stationFor } from './views';

const DAY_MS = 24 * 3600e3;
const MOST_CHANGES = 200;
const MOST_LISTS = 50;

export interface StationPast {
  station: StationRow;
  /** such as 2026-11-29, of universal time; nothing later than today */ day: string;
  today: string;
  lay: LayRow[];
  changes: ChangeRow[];
  /** what its editors' own lists gained and lost until the end of that day, the newest first */ lists: ListingChangeRow[];
}

const dayOf = (moment: Date): string => moment.toISOString().slice(0, 10);

/** @param asked the day; today where it is none, or still to come */
export async function pastFor(person: Person, id: string, asked: string | undefined): Promise<StationPast> {
  allow(person, 'view');
  const station = await stationFor(person, id);
  const today = dayOf(new Date());
  const day = asked && isDay(asked) && asked < today ? asked : today;
  // today goes on: what lies there now is what lay there
  const moment = day === today ? 'infinity' : new Date(Date.parse(`${day}T00:00:00Z`) + DAY_MS);
  const sql = pool();
  const [lay, changes, lists] = await Promise.all([
    layAt(sql, id, moment),
    changesAt(sql, id, MOST_CHANGES),
    listingChangesAt(sql, id, moment, MOST_LISTS),
  ]);
  return { station, day, today, lay, changes, lists };
}
