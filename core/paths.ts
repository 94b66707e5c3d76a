/** Paths of packs and stations: parts between "/". */

/** The last part of a path. */
export const fileNameOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1);

/** The folder of a path, without a closing "/"; '' where it lies in none. */
export const folderOf = (path: string): string => path.slice(0, Math.max(0, path.lastIndexOf('/')));
