/** Whether items may go to stations beside those that have them: what their licences say of spreading, and how many seats they give. */
import { Problem } from '@/core/problem';
import { distinct } from '@/core/lists';
import type { Sql } from '../db/pool';
import type { Person } from '../people/roles';
import * as q from './queries';
import { allowUnderLicence } from './service';

/** An item that goes to a station. */
export interface Going {
  item_id: string;
  title: string;
  supplier: string;
  licence_id: string | null;
  station_id: string;
}

/** Whom a seat counts: the machine, or the person whose it is. */
const seatOf = ({ seats_by }: q.LicenceRow, holder: q.Holder): string =>
  seats_by === 'person' && holder.person ? holder.person : holder.station_id;

async function goingAsHolders(sql: Sql, going: readonly Going[]): Promise<q.Holder[]> {
  const machines = await q.machines(sql, distinct(going.map((one) => one.station_id)));
  const machineOf = new Map(machines.map((machine) => [machine.of, machine]));
  return going.flatMap(({ item_id, licence_id, station_id }) => {
    const machine = machineOf.get(station_id);
    return machine ? [{ item_id, licence_id, station_id: machine.id, person: machine.person }] : [];
  });
}

/**
 * Throws where a licence does not let it be, counting where its items are already: what may not be done in one rollout is
 * not done in several either. Seats are counted where `withSeats`, when it is exactly known what goes where; two who do
 * that at once wait for one another.
 */
export async function allowSpread(
  sql: Sql,
  person: Person,
  going: readonly Going[],
  { withSeats }: { withSeats: boolean },
): Promise<void> {
  const licenceIds = distinct(going.flatMap(({ licence_id }) => licence_id ?? []));
  if (withSeats) await q.lockLicences(sql, licenceIds);
  const items = distinct(going.map(({ item_id }) => item_id));
  const all = [...(await q.holders(sql, items, licenceIds)), ...(await goingAsHolders(sql, going))];
  const first = new Map(going.map((one) => [one.item_id, one]));
  for (const [id, item] of first) {
    const stations = distinct(all.filter((holder) => holder.item_id === id).map((holder) => holder.station_id));
    if (stations.length > 1) await allowUnderLicence(person, item, 'spread');
  }
  if (!withSeats) return;
  for (const id of licenceIds) await refuseBeyondSeats(sql, id, all);
}

async function refuseBeyondSeats(sql: Sql, licenceId: string, holders: readonly q.Holder[]): Promise<void> {
  const licence = await q.licenceById(sql, licenceId);
  if (!licence || licence.seats === null || licence.seats_by === 'site') return;
  const taken = distinct(
    holders.filter((holder) => holder.licence_id === licenceId).map((holder) => seatOf(licence, holder)),
  ).length;
  if (taken <= licence.seats) return;
  const of = licence.seats_by === 'person' ? 'people' : 'stations';
  throw new Problem(
    'licence-seats',
    `The licence ${licence.name} is for ${licence.seats} ${of}; with this, what is under it would be with ${taken}.`,
    licence.name,
    'Leave stations out, take it away elsewhere first, or note on the licence how many seats there are now.',
  );
}
