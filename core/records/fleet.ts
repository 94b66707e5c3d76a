/** Which stations of the fleet are shown, in which order, and how much each of them needs somebody. */

/** By what stations need: anything, somebody, an update, a start, a word from their agent. */
export const fleetShows = ['all', 'somebody', 'due', 'start', 'silent'] as const;
export type FleetShow = (typeof fleetShows)[number];
export const fleetOrders = ['place', 'need', 'report'] as const;
export type FleetOrder = (typeof fleetOrders)[number];
const fleetSystems = ['macos', 'windows', 'linux'] as const;

export interface FleetFilter {
  /** in the name of a station, or of who works there */ words: string;
  system: (typeof fleetSystems)[number] | '';
  /** such as oxbow@2 */ editor: string;
  group: string;
  show: FleetShow;
  order: FleetOrder;
}

export const wholeFleet: FleetFilter = { words: '', system: '', editor: '', group: '', show: 'all', order: 'place' };

const MOST_LETTERS = 100;

const oneOf = <Word extends string>(words: readonly Word[], asked: unknown, usual: Word): Word =>
  words.find((word) => word === asked) ?? usual;

/** Reads a filter out of an address; what it does not know there, it leaves out. */
export function fleetFilterOf(asked: Readonly<Record<string, string | string[] | undefined>>): FleetFilter {
  const text = (name: string): string => {
    const value = asked[name];
    return typeof value === 'string' ? value.replaceAll('\0', '').trim().slice(0, MOST_LETTERS) : '';
  };
  return {
    words: text('words'),
    system: oneOf([...fleetSystems, ''], text('system'), ''),
    editor: text('editor'),
    group: text('group'),
    show: oneOf(fleetShows, text('show'), 'all'),
    order: oneOf(fleetOrders, text('order'), 'place'),
  };
}

/** The address of the fleet by a filter; what is usual is left out of it. */
export function fleetAddress(filter: FleetFilter, from = 0): string {
  const asked = new URLSearchParams();
  for (const name of ['words', 'system', 'editor', 'group', 'show', 'order'] as const)
    if (filter[name] !== wholeFleet[name]) asked.set(name, filter[name]);
  if (from) asked.set('from', String(from));
  const query = asked.toString();
  return query ? `/stations?${query}` : '/stations';
}

/** What is known of a station, as far as it tells whether somebody has to go there. */
export interface Standing {
  /** of its editors */ states: readonly string[];
  /** it had an agent, which has not reported for a day */ silent: boolean;
  twoAgents: boolean;
  /** files that its standing orders ask for */ due: number;
}

const needSomebody = ['refused', 'not-listed', 'changed', 'conflict', 'import-due'];
const areDue = ['update-due', 'surplus'];
const needStart = ['restart-due', 'launch-due', 'rescan-due'];

export type Need = 'somebody' | 'due' | 'start' | 'none';
/** The gravest first. */
export const needs: readonly Need[] = ['somebody', 'due', 'start', 'none'];

/** The gravest of what a station needs. */
export function needOf({ states, silent, twoAgents, due }: Standing): Need {
  if (silent || twoAgents || states.some((state) => needSomebody.includes(state))) return 'somebody';
  if (due || states.some((state) => areDue.includes(state))) return 'due';
  return states.some((state) => needStart.includes(state)) ? 'start' : 'none';
}

/** Whether a station is among those that are asked for. */
export const isShown = (show: FleetShow, standing: Standing): boolean => {
  if (show === 'all') return true;
  return show === 'silent' ? standing.silent : needOf(standing) === show;
};
