/** Names by which stations are put together: a room, a floor, what they are for. */
import { array, string } from 'yup';
import { distinct } from '../lists';

const MOST_GROUPS = 20;
const MOST_LETTERS = 40;

/** Of the body of a request. */
export const groupNames = () =>
  array()
    .of(
      string()
        .trim()
        .required('A group needs a name.')
        .matches(/^[^,]*$/, 'A comma stands between names.')
        .max(MOST_LETTERS, `A name has at most ${MOST_LETTERS} signs.`),
    )
    .max(MOST_GROUPS, `At most ${MOST_GROUPS} groups.`);

/** What somebody typed, with commas between the names: each once, without what is empty. */
export const groupsIn = (text: string): string[] =>
  distinct(
    text
      .split(',')
      .map((name) => name.trim().replace(/\s+/g, ' '))
      .filter(Boolean),
  );

/** Groups of some things, each with those that are in it, by name. */
export function byGroup<T extends { id: string; groups: readonly string[] }>(
  things: readonly T[],
): { name: string; ids: string[] }[] {
  const names = distinct(things.flatMap(({ groups }) => groups)).sort((a, b) => a.localeCompare(b));
  return names.map((name) => ({
    name,
    ids: things.filter(({ groups }) => groups.includes(name)).map(({ id }) => id),
  }));
}
