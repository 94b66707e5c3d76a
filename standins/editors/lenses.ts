/** Lens databases on a stand-in editor's shelf: which lenses they measure, and which of them a photo was taken with. */
import { SaxesParser } from 'saxes';
import type { Photo } from './photos';
import { read, type Listed } from './program';

const NAMESPACE = 'https://etagere.example/ns/lens-database/1';

interface Measured {
  /** every name that it bears, in small letters */ names: string[];
  called: string;
}
/** By path, the lenses that a file measures. */
export type Lenses = Map<string, Measured[]>;

function lensesIn(text: string): { release: string; lenses: Measured[] } {
  const parser = new SaxesParser({ xmlns: true });
  const lenses: Measured[] = [];
  let release: string | null = null;
  let alias: string | null = null;
  parser.on('error', (error) => {
    throw new Error(`the XML is broken: ${error.message.slice(0, 80)}`);
  });
  parser.on('opentag', ({ local, uri, attributes }) => {
    const value = (name: string): string => attributes[name]?.value ?? '';
    if (release === null) {
      if (local !== 'lens-database' || uri !== NAMESPACE) throw new Error('no lens database');
      release = value('release');
    } else if (local === 'lens') {
      const [maker, model] = [value('maker'), value('model')];
      const called = model.startsWith(maker) ? model : `${maker} ${model}`;
      lenses.push({ called, names: [called.toLowerCase(), model.toLowerCase()] });
    } else if (local === 'alias') alias = '';
  });
  parser.on('text', (text) => {
    if (alias !== null) alias += text;
  });
  parser.on('closetag', ({ local }) => {
    if (local !== 'alias' || alias === null) return;
    lenses.at(-1)?.names.push(alias.trim().toLowerCase());
    alias = null;
  });
  parser.write(text).close();
  return { release: release ?? '', lenses };
}

/** Reads a file for the list, and keeps what it measures. */
export const lensDatabase =
  (known: Lenses) =>
  (path: string): Omit<Listed, 'path'> => {
    if (!/\.xml$/i.test(path)) throw new Error('no lens database: it is no .xml');
    const { release, lenses } = lensesIn(read(path).toString('utf8'));
    if (!lenses.length) throw new Error('the lens database measures no lens');
    known.set(path, lenses);
    return { title: release || path.slice(path.lastIndexOf('/') + 1), kind: 'lens-database', headings: [] };
  };

/** Which lens of which file corrects a photo, by the name in its metadata; '' where none does. */
export function calibrationOf({ lens }: Photo, known: Lenses): string {
  const wanted = lens.toLowerCase();
  if (!wanted) return '';
  for (const [path, lenses] of known) {
    const found = lenses.find(({ names }) => names.includes(wanted));
    if (found) return `${found.called} of ${path}`;
  }
  return '';
}
