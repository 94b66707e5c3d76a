/** Paths of packs and stations: parts between "/". */

/** The last part of a path. */
export const fileNameOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1);
