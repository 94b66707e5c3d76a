/** What lies in the folder that Oxbow and its sibling share, by their one reader of tables and packets. */
import { adjust } from '../adjust';
import { read, type Listed } from '../program';
import { runIn } from './run';

export const LOOKS = 'Oxbow/Looks';
export const PRESETS = 'Oxbow/Presets';
/** In each folder of looks and presets, what its user has put first there, by file name, one a line. */
export const LIST = 'first.list';
export const isList = (path: string): boolean => path.endsWith(`/${LIST}`);

/** The name of a file, and the folders in which it lies. */
export const named = (path: string, under: string): { title: string; headings: string[] } => {
  const parts = path.slice(under.length + 1).split('/');
  return { title: parts.pop()!.replace(/\.[^.]+$/, ''), headings: parts };
};

/** A look, headed by its folders. Throws, with the reason, what is none. */
export function look(path: string): Omit<Listed, 'path'> {
  table(path);
  return { ...named(path, LOOKS), kind: 'look' };
}

/** The numbers of a table, a row after the other. */
export function table(path: string): { size: number; dimensions: number; numbers: number[] } {
  if (!/\.cube$/i.test(path)) throw new Error('no table that Oxbow reads');
  let size = 0;
  let dimensions = 3;
  const all: number[] = [];
  read(path)
    .toString('utf8')
    .split('\n')
    .forEach((raw, i) => {
      const line = raw.trim();
      if (!line || line.startsWith('#')) return;
      const match = /^LUT_([13])D_SIZE\s+(\d+)$/.exec(line);
      if (match) {
        dimensions = Number(match[1]);
        size = Number(match[2]);
        return;
      }
      if (/^[A-Z]/.test(line)) return;
      const numbers = line.split(/\s+/).map(Number);
      if (numbers.length !== 3 || numbers.some((v) => !Number.isFinite(v)))
        throw new Error(`row ${i + 1} is not three numbers`);
      all.push(...numbers);
    });
  const rows = all.length / 3;
  if (!size) throw new Error('the size of the table is missing');
  if (rows !== (dimensions === 3 ? size ** 3 : size))
    throw new Error(`${rows} rows where the size ${size} needs ${dimensions === 3 ? size ** 3 : size}`);
  return { size, dimensions, numbers: all };
}

/** A preset, headed by its folders. Throws, with the reason, what is none. */
export function preset(path: string): Omit<Listed, 'path'> {
  if (!/\.xmp$/i.test(path)) throw new Error('no preset that Oxbow reads');
  adjust(runIn(read(path).toString('utf8')).adjustments);
  return { ...named(path, PRESETS), kind: 'preset' };
}
