/** What of a report cannot be taken is left out of it and told, so that one odd name does not keep a station silent. */
import { storable } from '../text';
import { MOST_FILES, type Listing } from './protocol';

export const MOST_PATH = 1000;
const MOST_EXAMPLES = 20;
const MOST_SHOWN = 200;
const MOST_LISTED = 20_000;

export interface LeftOut {
  count: number;
  /** the first of them, as far as they can be shown */ examples: string[];
}
export const nothingLeftOut: LeftOut = { count: 0, examples: [] };

const pathOf = (file: unknown): string | null => {
  const path = typeof file === 'object' && file !== null && 'path' in file ? file.path : null;
  return typeof path === 'string' ? path : null;
};

/** A name that a file can bear there and that cannot be kept here. One that steps out of the root is no name but a lie, for the schema. */
const isOdd = (path: string | null): boolean =>
  path !== null && (path.length > MOST_PATH || /[\\\u0000-\u001f]/.test(path) || storable(path) !== path);

/** Control characters are shown by their numbers: a name with a line break stays on its line. */
const shown = (path: string | null): string =>
  storable(path ?? '')
    .slice(0, MOST_SHOWN)
    .replace(/[\u0000-\u001f\u007f]/g, (sign) => `\\u${sign.charCodeAt(0).toString(16).padStart(4, '0')}`);

/**
 * A report without the files whose names cannot be kept (back slashes, line breaks, over 1,000 signs, halves of signs),
 * and without those beyond the most that are kept. Whatever else is wrong with it is for its schema.
 */
export function withoutUnusable(report: unknown): { report: unknown; leftOut: LeftOut } {
  if (typeof report !== 'object' || report === null || !('files' in report) || !Array.isArray(report.files))
    return { report, leftOut: nothingLeftOut };
  const files = report.files as unknown[];
  const usable = files.filter((file) => !isOdd(pathOf(file)));
  const odd = files.filter((file) => isOdd(pathOf(file)));
  const beyond = usable.slice(MOST_FILES);
  return {
    report: { ...report, files: usable.slice(0, MOST_FILES) },
    leftOut: {
      count: odd.length + beyond.length,
      examples: [...odd, ...beyond].slice(0, MOST_EXAMPLES).map((file) => shown(pathOf(file))),
    },
  };
}

/** What was left out of several parts together. */
export const leftOutOf = (parts: readonly LeftOut[]): LeftOut => ({
  count: parts.reduce((n, part) => n + part.count, 0),
  examples: parts.flatMap((part) => part.examples).slice(0, MOST_EXAMPLES),
});

const isDate = (text: unknown): text is string => typeof text === 'string' && !Number.isNaN(Date.parse(text));
const isEntry = (entry: unknown): entry is Record<string, unknown> =>
  typeof entry === 'object' && entry !== null && !Array.isArray(entry);
const partsOf = (list: unknown): Record<string, unknown>[] =>
  Array.isArray(list) ? (list as unknown[]).filter(isEntry).slice(0, MOST_LISTED) : [];
const text = (value: unknown, most = MOST_PATH): string =>
  typeof value === 'string' ? storable(value).slice(0, most) : '';

/**
 * An editor's own list as it writes it, entry by entry: what has no path is passed over.
 * @param seenAt when the agent saw the file, which stands in for a date that the editor has broken
 * @returns null where it is no list, such as one that is being written
 */
export function listingOf(written: string | null, seenAt: string | null): Listing | null {
  if (!written) return null;
  let list: Record<string, unknown>;
  try {
    list = JSON.parse(written) as Record<string, unknown>;
  } catch {
    return null;
  }
  if (typeof list !== 'object' || list === null || !Array.isArray(list.listed) || !Array.isArray(list.refused))
    return null;
  const at = [list.at, seenAt].find(isDate);
  if (at === undefined) return null;
  return {
    at: new Date(at).toISOString(),
    running: Boolean(list.running),
    listed: partsOf(list.listed)
      .map((entry) => ({
        path: text(entry.path),
        title: text(entry.title),
        kind: text(entry.kind),
        ...(typeof entry.sha256 === 'string' && /^[0-9a-f]{64}$/.test(entry.sha256) ? { sha256: entry.sha256 } : {}),
      }))
      .filter((entry) => entry.path),
    refused: partsOf(list.refused)
      .map((entry) => ({ path: text(entry.path), reason: text(entry.reason, 300) }))
      .filter((entry) => entry.path),
  };
}
