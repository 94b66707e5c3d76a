/** The verbs of stations. */
import { Problem } from '@/core/problem';
import { askLauncher } from '@/server/stations/launcher';
import { verb, type Verb } from './verb';

const ask = (what: 'launch' | 'quit' | 'import' | 'list', about: string): Verb =>
  verb({
    about,
    takes: '<station> <editor>',
    names: true,
    example: `station ${what} "Glaze desk" oxbow@2`,
    run: async ({ files: [station = '', editor = ''] }) => askLauncher(what, station, editor),
  });

/** For whoever owns the data folder. */
const code = verb({
  about: 'a new enrolment code for a station’s agent',
  takes: '<station>',
  names: true,
  example: 'station code "Glaze desk"',
  run: async ({ files: [name = ''] }) => {
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
  },
});

export const verbs: Record<string, Verb> = {
  launch: ask('launch', 'starts a stand-in editor of the demo'),
  quit: ask('quit', 'ends a stand-in editor of the demo'),
  import: ask('import', 'has a stand-in editor take in what lies in its hand-off folder'),
  list: ask('list', 'what a stand-in editor lists, and what it refuses'),
  code,
};
