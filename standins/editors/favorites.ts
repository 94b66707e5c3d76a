/** What stand-in editors do with their own short lists: each name has to be of something that is listed. */
import type { Contents, Listed } from './program';

export interface Chosen {
  /** as it stands in the list */ name: string;
  /** of the list that names it */ list: string;
}

/** The favorites in order, and a refusal for each name that nothing listed bears. */
export function favorites(
  chosen: readonly Chosen[],
  listed: readonly Listed[],
  isNamed: (one: Listed, name: Chosen) => boolean,
): Required<Pick<Contents, 'favorites' | 'refused'>> {
  const found: string[] = [];
  const refused: Contents['refused'] = [];
  for (const one of chosen) {
    const thing = listed.find((candidate) => isNamed(candidate, one));
    if (!thing) refused.push({ path: one.list, reason: `the favorite ${one.name} is not there` });
    else if (!found.includes(thing.path)) found.push(thing.path);
  }
  return { favorites: found, refused };
}

/** Names of a list in JSON; throws where it is none. */
export function names(value: unknown): string[] {
  if (!Array.isArray(value) || !value.every((one): one is string => typeof one === 'string'))
    throw new Error('the favorites are no list of names');
  return value;
}

/** Favorites come first wherever a photo is offered something, in their order. */
export const favoritesFirst = (paths: readonly string[], first: readonly string[]): string[] => [
  ...first.filter((path) => paths.includes(path)),
  ...paths.filter((path) => !first.includes(path)),
];
