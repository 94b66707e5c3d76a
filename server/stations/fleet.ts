/** The fleet: stations by name, system, editor and by what they need, a page at a time. */
import { isShown, needOf, needs, wholeFleet, type FleetFilter, type Need, type Standing } from '@/core/records/fleet';
import { pool, type Sql } from '../db/pool';
import { dueByStation } from '../orders/service';
import { allow, type Person } from '../people/roles';
import * as q from './queries';
import { twoAgentsAt, viewsOf, type StationView } from './views';

export const FLEET_AT_ONCE = 50;

export interface FleetStation extends StationView {
  need: Need;
  /** files that its standing orders ask for */ due: number;
}
export interface Fleet {
  stations: FleetStation[];
  /** where the page begins */ from: number;
  /** so many fit the filter */ fitting: number;
  /** all of them, whatever the filter */ workstations: number;
  cards: number;
  silent: number;
  /** what a filter may name */ editors: { id: string; title: string }[];
  groups: string[];
}

const standingOf = (view: StationView, due: number): Standing => ({
  states: view.editors.map(({ state }) => state),
  // a card has no agent: it is the reader's that is silent
  silent: view.silent && view.host === null,
  twoAgents: twoAgentsAt(view.station) !== null,
  due,
});

interface Judged extends FleetStation {
  standing: Standing;
}

/** @param due files that standing orders ask for, by station */
function judged(view: StationView, due: ReadonlyMap<string, number>): Judged {
  const standing = standingOf(view, due.get(view.station.id) ?? 0);
  return { ...view, standing, due: standing.due, need: needOf(standing) };
}

/** How much there is at a station that somebody has to see to. */
const amount = ({ editors, due }: FleetStation): number =>
  editors.reduce((sum, { changed, waiting, updates }) => sum + changed + waiting + updates, due);

const lastReport = ({ station }: FleetStation): number => station.last_report_at?.getTime() ?? 0;

const compare: Record<FleetFilter['order'], (a: FleetStation, b: FleetStation) => number> = {
  place: () => 0,
  need: (a, b) => needs.indexOf(a.need) - needs.indexOf(b.need) || amount(b) - amount(a),
  report: (a, b) => lastReport(a) - lastReport(b),
};

/** An address may be older than the fleet: behind its end, the last page is shown. */
const pageFor = (from: number, count: number): number =>
  Math.min(from, Math.floor(Math.max(0, count - 1) / FLEET_AT_ONCE) * FLEET_AT_ONCE);

type Shown = Pick<Fleet, 'stations' | 'from' | 'fitting'>;

/** By place, and whatever they need: the database tells which are on the page. */
async function onPage(sql: Sql, person: Person, filter: FleetFilter, from: number): Promise<Shown> {
  const fitting = await q.countStations(sql, filter);
  const begins = pageFor(from, fitting);
  const views = await viewsOf(sql, await q.stationsFrom(sql, filter, begins, FLEET_AT_ONCE));
  const due = await dueByStation(
    person,
    views.map(({ station }) => station.id),
  );
  return { stations: views.map((view) => judged(view, due)), from: begins, fitting };
}

/** By what they need: that is known once all of them have been looked at. */
async function byNeed(sql: Sql, person: Person, filter: FleetFilter, from: number): Promise<Shown> {
  const ids = await q.stationIds(sql, filter);
  const due = await dueByStation(person, ids);
  const all: Judged[] = [];
  // a part at a time: what lies at thousands of stations is not held at once
  for (let at = 0; at < ids.length; at += FLEET_AT_ONCE) {
    const views = await viewsOf(sql, await q.stationsByIds(sql, ids.slice(at, at + FLEET_AT_ONCE)));
    const seen = views.map((view) => judged({ ...view, rows: [] }, due));
    all.push(...seen.filter(({ standing }) => isShown(filter.show, standing)));
  }
  all.sort(compare[filter.order]);
  const begins = pageFor(from, all.length);
  return { stations: all.slice(begins, begins + FLEET_AT_ONCE), from: begins, fitting: all.length };
}

/** A page of the fleet. `rows` of its views are left out where all had to be looked at. */
export async function fleet(person: Person, from = 0, filter: FleetFilter = wholeFleet): Promise<Fleet> {
  allow(person, 'view');
  const sql = pool();
  const [counts, editors, groups] = await Promise.all([q.fleetCounts(sql), q.editorsInUse(sql), q.groupsInUse(sql)]);
  const looksAtAll = filter.show !== 'all' || filter.order !== 'place';
  const shown = await (looksAtAll ? byNeed : onPage)(sql, person, filter, from);
  return { ...counts, editors, groups, ...shown };
}
