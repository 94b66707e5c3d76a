/** Profiles derived from others: renamed, retargeted, with another curve, without a table, for one illuminant or for two. */
import { Problem } from '../problem';
import { copyOf, numbersOf, setNumbers, setText, type Dcp } from './dcp';
import { read } from './tags';

export interface Edit {
  name?: string;
  /** another camera model: a copy that is to be proved on a frame of that camera */ camera?: string;
  copyright?: string;
  /** straight, the editor's own, or as it is */ curve?: 'linear' | 'editor' | 'keep' | [number, number][];
  drop?: readonly ('look' | 'hue-sat')[];
}

const tables = {
  look: [read.lookDims, read.look, read.lookEncoding],
  'hue-sat': [read.mapDims, ...read.map, read.mapEncoding, 52537],
} as const;

export function edit(dcp: Dcp, change: Edit): Dcp {
  const out = copyOf(dcp);
  const text = (tag: number, value: string | undefined): void => {
    if (value !== undefined) {
      if (!value.trim() || value.length > 400)
        throw new Problem('camera-text', 'A name has 1 to 400 characters.', value.slice(0, 40), 'Shorten it.');
      setText(out, tag, value);
    }
  };
  text(read.name, change.name);
  text(read.camera, change.camera);
  text(read.copyright, change.copyright);
  if (change.curve === 'linear') setNumbers(out, read.curve, 11, [0, 0, 1, 1]);
  else if (change.curve === 'editor') out.tags.delete(read.curve);
  else if (Array.isArray(change.curve)) setNumbers(out, read.curve, 11, change.curve.flat());
  for (const d of change.drop ?? []) for (const t of tables[d]) out.tags.delete(t);
  return out;
}

/** One illuminant's half of a profile of two. */
export function split(dcp: Dcp, which: 0 | 1): Dcp {
  const out = copyOf(dcp);
  for (const pair of [read.color, read.forward, read.illuminant, read.map]) {
    const own = dcp.tags.get(pair[which]);
    out.tags.delete(pair[1]);
    if (own) out.tags.set(pair[0], { ...own, tag: pair[0] });
    else out.tags.delete(pair[0]);
  }
  if (!out.tags.has(read.color[0]))
    throw new Problem('camera-illuminant', 'The profile has no second illuminant.', 'ColorMatrix2', 'Take the first.');
  return out;
}

/** Two profiles of one camera, each for one illuminant, as one of two. Tables have to be of one size. */
export function merge(one: Dcp, second: Dcp): Dcp {
  const out = split(one, 0);
  const other = split(second, 0);
  const dims = (d: Dcp): string => numbersOf(d, read.mapDims).join('×');
  if (numbersOf(out, read.illuminant[0])[0] === numbersOf(other, read.illuminant[0])[0])
    throw new Problem(
      'camera-illuminant',
      'Both profiles are for the same light.',
      'CalibrationIlluminant1',
      'Merge profiles of two lights, one warm, one cool.',
    );
  if (other.tags.has(read.map[0]) && dims(out) !== dims(other))
    throw new Problem(
      'camera-tables',
      `The hue and saturation maps are of different sizes (${dims(out) || 'none'} and ${dims(other)}).`,
      'ProfileHueSatMapDims',
      'Make both of one size, or drop them.',
    );
  for (const [pair, type] of [
    [read.color, 10],
    [read.forward, 10],
    [read.illuminant, 3],
    [read.map, 11],
  ] as const) {
    const numbers = numbersOf(other, pair[0]);
    if (numbers.length) setNumbers(out, pair[1], type, numbers);
  }
  return out;
}
