/** The sheet of a rollout for one station, and its files as a ZIP laid out as they lie there. */
import { zipSync } from 'fflate';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import { isEntryPath } from '@/core/sync/bundle';
import { sheetOf, type EditorSheet } from '@/core/sheets/sheet';
import { isUuid } from '@/core/uuid';
import { bytesOf, getBlob } from '../blobs/service';
import { pool } from '../db/pool';
import type { Person } from '../people/roles';
import { isKeptByHand } from '../stations/by-hand';
import { stationById, stationEditors, type StationRow } from '../stations/queries';
import type * as q from './queries';
import { rolloutFor } from './service';

const nothingFor = (station: string): Problem =>
  new Problem('not-found', 'This rollout has nothing for this station.', station, 'Choose a rollout that does.');

export interface Sheet {
  rollout: q.RolloutRow;
  station: StationRow;
  /** no agent is there, so that people say when it is done */ byHand: boolean;
  /** so many steps wait still */ waiting: number;
  editors: EditorSheet[];
}

const editorOf = ({ editor_id, editor_version }: q.StepRow): string => `${editor_id}@${editor_version}`;

/** Throws where the rollout has nothing for the station. */
export async function sheetFor(person: Person, rolloutId: string, stationId: string): Promise<Sheet> {
  const { rollout, steps } = await rolloutFor(person, rolloutId);
  const station = isUuid(stationId) ? await stationById(pool(), stationId) : undefined;
  const own = steps.filter((step) => step.station_id === stationId && step.do_what !== 'none');
  if (!station || !own.length) throw nothingFor(stationId);
  const agent = station.host_id ? must(await stationById(pool(), station.host_id)) : station;
  const descriptors = (await stationEditors(pool(), [station.id])).map(({ descriptor }) => descriptor);
  const files = own.map((step) => ({
    editor: editorOf(step),
    path: step.path,
    does: step.do_what === 'remove' ? ('remove' as const) : ('put' as const),
    over: step.do_what === 'put' && step.expect !== null,
    title: step.title,
  }));
  return {
    rollout,
    station,
    byHand: isKeptByHand(agent),
    waiting: own.filter((step) => step.outcome === null).length,
    editors: sheetOf(descriptors, files, agent.system),
  };
}

/** What the rollout puts at the station, below the home folder or, of a card, as the card has it. */
export async function filesZip(
  person: Person,
  rolloutId: string,
  stationId: string,
): Promise<{ name: string; bytes: Uint8Array }> {
  const { steps } = await rolloutFor(person, rolloutId);
  const own = steps.filter(
    ({ station_id, sha, path, do_what, decision }) =>
      station_id === stationId && sha && !isEntryPath(path) && (do_what === 'put' || decision === 'in-step'),
  );
  if (!own.length) throw nothingFor(stationId);
  const files: Record<string, Uint8Array> = {};
  // a card's own tree begins below the folder of mounted media
  for (const { path, sha } of own)
    files[path.replace(/^media\//, '')] = new Uint8Array(await getBlob(bytesOf(must(sha))));
  return {
    name: `${must(own[0]).station.replace(/[^\w-]+/g, '-')}.zip`,
    bytes: zipSync(files, { level: 6, mtime: new Date(Date.UTC(2000, 0, 1, 12)) }),
  };
}
