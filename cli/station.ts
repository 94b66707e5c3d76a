import { parseArgs } from 'node:util';
import { Problem } from '@/core/problem';
import { askLauncher } from '@/server/stations/launcher';
import type { Verb } from './main';

const ask =
  (verb: 'launch' | 'quit' | 'list'): Verb =>
  async (args) => {
    const { positionals } = parseArgs({ args, allowPositionals: true, options: {} });
    const [station, editor] = positionals;
    if (!station || !editor)
      throw new Problem(
        'usage',
        'A station and an editor are needed.',
        'command line',
        `Use: etagere station ${verb} "Glaze desk" oxbow@2`,
      );
    return askLauncher(verb, station, editor);
  };

/** A fresh enrolment code for a station's agent: for whoever owns the data folder. */
const code: Verb = async (args) => {
  const { positionals } = parseArgs({ args, allowPositionals: true, options: {} });
  const name = positionals[0] ?? '';
  const { pool, transaction } = await import('@/server/db/pool');
  const { stationByName } = await import('@/server/stations/queries');
  const { makeCode } = await import('@/server/stations/service');
  const station = await stationByName(pool(), name);
  if (!station)
    throw new Problem(
      'station-unknown',
      `There is no station called ${name}.`,
      'command line',
      'Name it as the Stations screen does.',
    );
  return { station: station.name, code: await transaction((sql) => makeCode(sql, station.id)) };
};

export const verbs: Record<string, Verb> = { launch: ask('launch'), quit: ask('quit'), list: ask('list'), code };
