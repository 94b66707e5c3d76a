/** What an agent is told: the folders and lists that it watches and may write, and what it is to send. */
import { favoritesListsAt } from '@/core/editor/favorites';
import { groupBy } from '@/core/lists';
import { bundleListOf } from '@/core/sync/bundle';
import { bundlePlace, resolveTemplate } from '@/core/sync/place-templates';
import { PROTOCOL, type Instructions, type Place } from '@/core/sync/protocol';
import { wantedOf } from '../arrivals/queries';
import { hex } from '../blobs/service';
import { pool, type Sql } from '../db/pool';
import { picturesAskedAt } from '../sightings/service';
import { lookedForOn } from './found-editors';
import { listingKey } from './listing-key';
import * as q from './queries';
import { shippedProgram } from './shipped-program';
import { askedToShow } from './show-queries';

/** A station and the cards in its reader. */
async function family(sql: Sql, station: q.StationRow): Promise<q.StationRow[]> {
  return (await q.stations(sql)).filter((s) => s.id === station.id || s.host_id === station.id);
}

/** The folders and lists of an editor; a list that its editor would write over waits until it is quit. */
function placesOf(
  { descriptor, editor_id, editor_version }: q.StationEditorRow,
  system: q.StationRow['system'],
): Place[] {
  const listing = descriptor.listing[system];
  const placeAt = (name: string, path: string): Place => ({
    id: `${editor_id}@${editor_version}/${name}`,
    path,
    ...(listing && descriptor.writesBack && bundleListOf(path)
      ? { quitFirst: { title: descriptor.title, listing: resolveTemplate(listing, system) } }
      : {}),
  });
  const own = Object.entries(descriptor.places).flatMap(([name, paths]) => {
    const text = paths[system];
    return text ? [placeAt(name, resolveTemplate(text, system))] : [];
  });
  const lists = [descriptor.favorites?.list, descriptor.opening?.list].flatMap(
    (list) => bundlePlace(list, system) ?? [],
  );
  return [...own, ...lists.map((path) => placeAt('lists', path))];
}

/** Paths of what is placed there, by station: asked for only where an editor keeps a list in each folder. */
async function placedPaths(
  sql: Sql,
  editors: readonly q.StationEditorRow[],
): Promise<ReadonlyMap<string, readonly string[]>> {
  if (!editors.some(({ descriptor }) => descriptor.favorites?.eachFolder)) return new Map();
  const placed = await q.placedPaths(
    sql,
    editors.map(({ station_id }) => station_id),
  );
  const byStation = groupBy(placed, (row) => row.station_id);
  return new Map([...byStation].map(([station, rows]) => [station, rows.map(({ path }) => path)]));
}

const favoriteListsOf = (
  { descriptor, station_id }: q.StationEditorRow,
  system: q.StationRow['system'],
  placed: ReadonlyMap<string, readonly string[]>,
): string[] =>
  descriptor.favorites
    ? favoritesListsAt(descriptor.places, descriptor.favorites, system, placed.get(station_id) ?? []).map(
        ({ path }) => path,
      )
    : [];

export async function instructionsFor(station: q.StationRow): Promise<Instructions> {
  const sql = pool();
  const members = await family(sql, station);
  const editors = await q.stationEditors(
    sql,
    members.map((m) => m.id),
  );
  const places = new Map<string, Place>();
  const listings: Instructions['listings'] = [];
  const indexes = new Set<string>();
  const placed = await placedPaths(sql, editors);
  for (const stationEditor of editors) {
    for (const place of placesOf(stationEditor, station.system)) places.set(place.path, place);
    for (const accepts of stationEditor.descriptor.accepts) {
      const text = accepts.index?.path[station.system];
      if (text) indexes.add(resolveTemplate(text, station.system));
    }
    const rules = stationEditor.descriptor.opening?.list[station.system];
    if (rules) indexes.add(resolveTemplate(rules, station.system));
    for (const list of favoriteListsOf(stationEditor, station.system, placed)) indexes.add(list);
    const line = stationEditor.descriptor.listing[station.system];
    if (line)
      listings.push({
        editor: listingKey(stationEditor.station_id, stationEditor),
        path: resolveTemplate(line, station.system),
      });
  }
  const show = await askedToShow(sql, station.id);
  const program = await shippedProgram();
  return {
    protocol: PROTOCOL,
    station: station.name,
    places: [...places.values()],
    listings,
    indexes: [...indexes],
    wanted: (await wantedOf(sql, station.id)).map((w) => ({ path: w.path, sha256: hex(w.sha256), size: w.size })),
    pictures: await picturesAskedAt(sql, station, editors),
    lookedFor: await lookedForOn(sql, station.system),
    ...(show ? { show } : {}),
    ...(program ? { program } : {}),
    everySeconds: Number(process.env.ETAGERE_AGENT_SECONDS ?? 30),
  };
}
