/** Which lists of a fleet are shown: those of stations where something would change first, and so many at most. */
import { MOST_PLACES, type ListPlace } from '@/core/api/editor-lists';

interface List {
  station: { id: string };
  state: string;
}
interface EditorsList extends List {
  editor: { id: string; version: string };
}

export const MOST_LISTS = 150;

/** The editors whose lists these are, each once: those that stand in each folder go together. */
export function placesOf(lists: readonly EditorsList[]): ListPlace[] {
  const places = lists.map(({ station, editor }) => ({
    station: station.id,
    editor: editor.id,
    version: editor.version,
  }));
  return [...new Map(places.map((place) => [Object.values(place).join(' '), place])).values()].slice(0, MOST_PLACES);
}

/** In the order of the stations, those with something due before the others. */
export function listsShown<L extends List>(lists: readonly L[]): L[] {
  const due = new Set(lists.flatMap(({ station, state }) => (state === 'in-step' ? [] : [station.id])));
  const isDue = ({ station }: L): boolean => due.has(station.id);
  return [...lists.filter(isDue), ...lists.filter((list) => !isDue(list))].slice(0, MOST_LISTS);
}
