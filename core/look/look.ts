/**
 * A look as a table. 3D tables are Float32Array of size³×3, red fastest; 1D tables are size×3, interleaved.
 * Values are the table's own code values, 1.0 is full scale. The domain is the input range that the table spans.
 */
import type { PrimaryName, RangeName, ReferredName, TransferName, WhiteName } from './encoding-names';

/** What code values mean: their primaries, their transfer, and whether they fill the whole range. */
export interface Values {
  primaries: PrimaryName;
  transfer: TransferName;
  range: RangeName;
}
export interface Encoding extends Values {
  /** what a look gives, where that is not what it takes */ output?: Values | null;
  referred: ReferredName;
  white: WhiteName;
  /** True while only we say so, and no file or person does. */
  assumed: boolean;
}

/** What a file that says nothing is taken for; shown as an assumption until a person confirms it. */
export const assumedEncoding: Encoding = {
  primaries: 'sRGB',
  transfer: 'sRGB',
  range: 'full',
  referred: 'display',
  white: 'D65',
  assumed: true,
};

/** Of looks that are computed here: for sRGB values, which nobody has to confirm. */
export const computedEncoding: Encoding = { ...assumedEncoding, assumed: false };

export interface Warning {
  code: string;
  message: string;
  where: string;
}

export interface Look {
  format: 'cube' | 'clf' | 'cdl' | 'hald' | 'icc';
  kind: '1d' | '3d';
  size: number;
  table: Float32Array;
  title: string;
  domain: { min: number[]; max: number[] };
  comments: string[];
  /** what the file itself asks for */ interpolation?: 'trilinear' | 'tetrahedral';
  warnings: Warning[];
}

/** Smallest and largest value by channel. */
export function rangeOf(look: Look): { min: number[]; max: number[] } {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < look.table.length; i++) {
    const c = i % 3;
    const v = look.table[i]!;
    if (v < min[c]!) min[c] = v;
    if (v > max[c]!) max[c] = v;
  }
  return { min, max };
}

/** A 3D table that changes nothing. */
export function identity(size: number, title = 'Identity'): Look {
  return fromFunction(size, title, () => {});
}

/** A 3D table from a function that writes its result over the triple that it is given. */
export function fromFunction(
  size: number,
  title: string,
  change: (v: Float64Array) => void,
  domain?: Look['domain'],
): Look {
  const values = new Float64Array(3);
  return fromRows(
    size,
    title,
    (row, n) => {
      for (let i = 0; i < n; i += 3) {
        values[0] = row[i]!;
        values[1] = row[i + 1]!;
        values[2] = row[i + 2]!;
        change(values);
        row[i] = values[0];
        row[i + 1] = values[1];
        row[i + 2] = values[2];
      }
    },
    domain,
  );
}

/** A 3D table from a function that acts in place on a row of interleaved triples, `n` numbers of them: quicker than one by one. */
export function fromRows(
  size: number,
  title: string,
  write: (row: Float64Array, n: number) => void,
  domain = { min: [0, 0, 0], max: [1, 1, 1] },
): Look {
  const length = size * size * 3;
  const table = new Float32Array(size * length);
  const plane = new Float64Array(length);
  const last = size - 1;
  const [r0, g0, b0] = domain.min as [number, number, number];
  const [r1, g1, b1] = domain.max as [number, number, number];
  for (let b = 0; b < size; b++) {
    for (let g = 0, i = 0; g < size; g++)
      for (let r = 0; r < size; r++, i += 3) {
        plane[i] = r0 + ((r1 - r0) * r) / last;
        plane[i + 1] = g0 + ((g1 - g0) * g) / last;
        plane[i + 2] = b0 + ((b1 - b0) * b) / last;
      }
    write(plane, length);
    table.set(plane, b * length);
  }
  return { format: 'cube', kind: '3d', size, table, title, domain, comments: [], warnings: [] };
}
