/** What lies in the folder that Oxbow and its sibling share, by their one reader of tables and packets. */
import { SaxesParser } from 'saxes';
import { read, type Listed } from '../program';

export const LOOKS = 'Oxbow/Looks';
export const PRESETS = 'Oxbow/Presets';
/** In each folder of looks and presets, what its user has put first there, by file name, one a line. */
export const LIST = 'first.list';
export const isList = (path: string): boolean => path.endsWith(`/${LIST}`);

/** The name of a file, and the folders in which it lies. */
const named = (path: string, under: string): { title: string; headings: string[] } => {
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
  const parser = new SaxesParser({ xmlns: true });
  let steps = 0;
  let own = false;
  parser.on('error', (error) => {
    throw new Error(`the packet is broken: ${error.message.slice(0, 80)}`);
  });
  parser.on('opentag', (saxesTagNS) => {
    if (saxesTagNS.uri === 'https://oxbow.example/ns/run/2/') own = true;
    for (const saxesAttributeNS of Object.values(saxesTagNS.attributes))
      if (saxesAttributeNS.uri === 'https://oxbow.example/ns/run/2/') {
        own = true;
        if (saxesAttributeNS.local === 'step') steps++;
      }
  });
  parser.write(read(path).toString('utf8')).close();
  if (!own) throw new Error('no steps of Oxbow 2 in this packet');
  if (!steps) throw new Error('the packet holds no steps');
  return { ...named(path, PRESETS), kind: 'preset' };
}
