/** The editors at stations that keep lists of their own, with what their agents told of these and what we asked for last. */
import { createHash } from 'node:crypto';
import type { Descriptor } from '@/core/editor/descriptor';
import { groupBy } from '@/core/lists';
import { must } from '@/core/must';
import { isEntryPath } from '@/core/sync/bundle';
import { readsEntries, type Listing } from '@/core/sync/protocol';
import type { Sql } from '../db/pool';
import * as stations from '../stations/queries';
import * as q from './queries';

/** One editor at one station. */
export interface EditorThere {
  station: stations.StationRow;
  /** the one whose agent reads and writes there */ agent: stations.StationRow;
  descriptor: Descriptor;
  /** what it said of itself last */ listing: Listing | null;
  /** all of ours there, for whatever editor */ placed: readonly stations.PlacementRow[];
  /** of a list, as the agent told it; null where there is none */ textAt: (path: string) => string | null;
  /** what we asked for when we last wrote a list; empty where we never did */ baseAt: (
    path: string,
  ) => readonly unknown[];
  /** paths of lists there that we have written */ written: readonly string[];
}

/** The editors at these stations, or at all that are used. */
export async function editorsThere(sql: Sql, ids: readonly string[] | null): Promise<EditorThere[]> {
  const all = await stations.stations(sql);
  const chosen = all.filter((station) => station.retired_at === null && (ids === null || ids.includes(station.id)));
  const own = chosen.map(({ id }) => id);
  // one after the other: in a transaction they share one connection
  const editors = await stations.stationEditors(sql, own);
  const placed = groupBy(await stations.placements(sql, own), (row) => row.station_id);
  const agents = chosen.map(({ id, host_id }) => host_id ?? id);
  const texts = new Map((await q.textsAt(sql, agents)).map((one) => [`${one.station_id} ${one.path}`, one.text]));
  const bases = await q.bases(sql, own);
  const asked = new Map(bases.map((one) => [`${one.station_id} ${one.path}`, one.asked]));
  const written = groupBy(bases, (one) => one.station_id);
  const byId = new Map(all.map((station) => [station.id, station]));
  return editors.map(({ station_id, descriptor, listing }) => {
    const station = must(byId.get(station_id));
    const agent = must(byId.get(station.host_id ?? station_id));
    return {
      station,
      agent,
      descriptor,
      listing,
      placed: placed.get(station_id) ?? [],
      textAt: (path) => texts.get(`${agent.id} ${path}`) ?? null,
      baseAt: (path) => asked.get(`${station_id} ${path}`) ?? [],
      written: (written.get(station_id) ?? []).map(({ path }) => path),
    };
  });
}

/** Why a list there cannot be merged, whatever is in it; null where it can. */
export function hindrance({ station, agent, textAt }: EditorThere, path: string): string | null {
  // what is no UTF-8 came with signs in it that stand for what could not be read, and would be written so
  if (textAt(path)?.includes('\ufffd')) return 'it is no text in UTF-8, and is left as it is';
  if (!agent.enrolled || !agent.agent_version) return `no agent is at ${agent.name} yet, which reads the list`;
  if (isEntryPath(path) && !readsEntries(agent.agent_version))
    return `the agent of ${agent.name} is of version ${agent.agent_version}, which does not read lists in bundles: put the newer one there`;
  return (station.last_report_at ?? agent.last_report_at) ? null : `${agent.name} has not reported yet`;
}

/** What a list's text is at the station, as plans compare it; null where there is none. */
export const shaOfText = (text: string | null): string | null =>
  text === null ? null : createHash('sha256').update(text).digest('hex');

/** Whether this is the editor that somebody names. */
export const isAt =
  ({ station, descriptor }: EditorThere) =>
  (place: { station: string; editor: string; version: string }): boolean =>
    place.station === station.id && place.editor === descriptor.editor && place.version === descriptor.version;
