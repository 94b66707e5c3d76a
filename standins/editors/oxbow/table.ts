/**
 * Oxbow Table 2: a table on which photos are laid out and sorted. It reads the looks and presets of its sibling's folder, at
 * launch alone, knows no camera profiles and no lenses, and lists all of it by name, whatever the folder.
 */
import { photos } from '../photos';
import { files, live, options, take } from '../program';
import { isList, look, LOOKS, preset, PRESETS } from './readers';

const configs: Record<string, string> = {
  linux: '.config/oxbow-table',
  macos: 'Library/Application Support/Oxbow Table',
  windows: 'AppData/Roaming/Oxbow Table',
};
const config = configs[options.system] ?? configs.windows;

const byName = (one: { title: string }, other: { title: string }): number => one.title.localeCompare(other.title);

live(`${config}/shown.json`, `${config}/left-out.log`, () => {
  const shelves = [
    take(
      files(LOOKS).filter((path) => !isList(path)),
      look,
    ),
    take(
      files(PRESETS).filter((path) => !isList(path)),
      preset,
    ),
  ];
  const listed = shelves.flatMap((shelf) => shelf.listed.map((one) => ({ ...one, headings: [] }))).sort(byName);
  const offers = listed.map(({ path }) => path);
  return {
    listed,
    refused: shelves.flatMap((shelf) => shelf.refused),
    cards: photos('Pictures').map(({ path }) => ({ path, card: 'shown', reason: '', offers })),
  };
});
