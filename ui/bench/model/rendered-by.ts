/** What a cell is rendered by, and what of its candidates it does not show, in words. */
import type { Candidate } from './candidate';
import type { Column } from './column';

const listed = (words: readonly string[]): string => [...new Set(words)].join(', ');

/**
 * Of a column's layers: presets are evaluated by their settings, looks by their tables. What no pixel tells is named: settings
 * that are not rendered, and looks that a preset calls and nobody holds.
 */
export function renderedBy(column: Column, candidates: ReadonlyMap<string, Candidate>): string {
  const layers = column.layers.flatMap(({ version }) => candidates.get(version) ?? []);
  const presets = layers.filter(({ kind }) => kind === 'preset');
  if (!layers.length) return '';
  const ways = layers.map(({ kind }) => (kind === 'preset' ? 'settings' : 'table'));
  const missing = presets.flatMap((one) => one.missing);
  const notShown = presets.flatMap((one) => one.notShown);
  return [
    `by ${listed(ways)}`,
    ...(missing.length ? [`without ${listed(missing.map((name) => `“${name}”`))}, which is not held`] : []),
    ...(notShown.length ? [`not shown: ${listed(notShown).toLowerCase()}`] : []),
  ].join('; ');
}
