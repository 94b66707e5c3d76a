/** The address of a bench on which versions are laid, for links from elsewhere. */

/** As many columns as a bench takes, beside the one without a look. */
const MOST_COLUMNS = 15;

export interface Laid {
  kind: string;
  versionId: string;
  /** in percent */ strength?: number;
}

function columnOf({ kind, versionId, strength = 100 }: Laid): string | null {
  if (kind === 'look' || kind === 'preset') return `l:${versionId}:${strength}`;
  return kind === 'camera-profile' ? `p:${versionId}` : null;
}

/**
 * Looks, presets and camera profiles as columns beside the photo without them, on the first frames; null where nothing of
 * it can be laid there, or there is no frame.
 */
export function benchAddress(laid: Iterable<Laid>, frames: readonly { id: string }[], mostRows = 2): string | null {
  const columns = [...laid].flatMap((one) => columnOf(one) ?? []);
  const rows = frames.slice(0, mostRows).map((frame) => frame.id);
  if (!columns.length || !rows.length) return null;
  return `/bench?rows=${rows.join('~')}&cols=${['none', ...columns.slice(0, MOST_COLUMNS)].join('~')}`;
}
