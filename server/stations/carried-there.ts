/** What was carried to a station lately; apart from what makes such files, which pages do not need. */
import { counted } from '@/core/words';
import { pool } from '../db/pool';
import { allow, type Person } from '../people/roles';
import { carriedTo } from './carried-queries';

export interface CarriedThere {
  at: Date;
  words: string;
  answered: Date | null;
}

/** The newest first, for those who may carry. */
export async function carriedThere(person: Person, stationId: string): Promise<CarriedThere[]> {
  allow(person, 'station.enrol');
  return (await carriedTo(pool(), stationId, 3)).map(({ operations, made_at, made_by, answered_at }) => ({
    at: made_at,
    words: `${operations ? counted(operations, 'operation') : 'nothing to carry out'}, made by ${made_by ?? 'somebody who is gone'}`,
    answered: answered_at,
  }));
}
