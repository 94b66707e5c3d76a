/** Talks to the launcher of the demo's stations, where one runs; real stations have none: the person there starts the editor. */
import type { BodyOf } from '@/core/api';
import { stationEndpoints } from '@/core/api/stations';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Problem } from '@/core/problem';
import { pool } from '../db/pool';
import { checked } from '../input';
import { allow, type Person } from '../people/roles';
import { dataFolder } from '../data-folder';
import { stationById } from './queries';

export const launcherFile = (): string => join(dataFolder(), 'stations', 'launcher.json');

/** launch, quit, have take in what waits, or list one editor ("id@version") at a station by its name. */
/** Whether editors at stations can be started and quit from here, as the demo's can. */
export const hasLauncher = (): boolean => existsSync(launcherFile());

export async function askLauncher(
  verb: 'launch' | 'quit' | 'import' | 'list',
  station: string,
  editor: string,
): Promise<Record<string, unknown>> {
  const none = new Problem(
    'launcher-missing',
    'No launcher answers: the stand-in editors run only beside the demo.',
    station,
    'Run bin/start, or start the editor at the station itself.',
  );
  if (!existsSync(launcherFile())) throw none;
  const { url, key } = JSON.parse(readFileSync(launcherFile(), 'utf8')) as { url: string; key: string };
  let response: Response;
  try {
    response = await fetch(
      `${url}/${verb}?station=${encodeURIComponent(station)}&editor=${encodeURIComponent(editor)}`,
      {
        headers: { authorization: `Bearer ${key}` },
        signal: AbortSignal.timeout(20_000),
      },
    );
  } catch {
    throw none;
  }
  const body = (await response.json()) as Record<string, unknown> & {
    error?: { code: string; message: string; where: string; remedy: string };
  };
  if (body.error) throw new Problem(body.error.code, body.error.message, body.error.where, body.error.remedy);
  return body;
}

export async function runEditor(
  person: Person,
  stationId: string,
  input: BodyOf<'POST /api/stations/:id/editor'>,
): Promise<void> {
  allow(person, 'station.editor');
  const { editor, verb } = checked(stationEndpoints['POST /api/stations/:id/editor'].body, input);
  const station = await stationById(pool(), stationId);
  if (!station) throw new Problem('not-found', 'There is no such station.', stationId, 'Go back to Stations.');
  await askLauncher(verb, station.name, editor);
}
