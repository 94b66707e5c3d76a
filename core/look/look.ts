/**
 * A look as a table. 3D tables are Float32Array of size³×3, red fastest; 1D tables are size×3, interleaved.
 * Values are the table's own code values, 1.0 is full scale. The domain is the input range that the table spans.
 */
export interface Encoding {
  primaries: string; transfer: string; range: 'full' | 'legal'; referred: 'display' | 'scene'; white: string;
  /** True while only we say so, and no file or person does. */
  assumed: boolean;
}

/** What a file that says nothing is taken for; shown as an assumption until a person confirms it. */
export const assumedEncoding: Encoding = { primaries: 'sRGB', transfer: 'sRGB', range: 'full', referred: 'display', white: 'D65', assumed: true };

export interface Warning { code: string; message: string; where: string }

export interface Look {
  format: 'cube' | 'clf';
  kind: '1d' | '3d';
  size: number;
  table: Float32Array;
  title: string;
  domain: { min: number[]; max: number[] };
  comments: string[];
  warnings: Warning[];
}

/** Smallest and largest value by channel. */
export function rangeOf(look: Look): { min: number[]; max: number[] } {
  const min = [Infinity, Infinity, Infinity], max = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < look.table.length; i++) {
    const c = i % 3, v = look.table[i]!;
    if (v < min[c]!) min[c] = v;
    if (v > max[c]!) max[c] = v;
  }
  return { min, max };
}

/** A 3D table that changes nothing. */
export function identity(size: number, title = 'Identity'): Look {
  return fromFunction(size, title, () => {});
}

/** A 3D table on the domain 0…1 from a function that writes its result over the triple that it is given. */
export function fromFunction(size: number, title: string, f: (v: Float64Array) => void, domain = { min: [0, 0, 0], max: [1, 1, 1] }): Look {
  const table = new Float32Array(size ** 3 * 3), v = new Float64Array(3), last = size - 1;
  const [r0, g0, b0] = domain.min as [number, number, number], [r1, g1, b1] = domain.max as [number, number, number];
  let i = 0;
  for (let b = 0; b < size; b++) for (let g = 0; g < size; g++) for (let r = 0; r < size; r++) {
    v[0] = r0 + ((r1 - r0) * r) / last; v[1] = g0 + ((g1 - g0) * g) / last; v[2] = b0 + ((b1 - b0) * b) / last;
    f(v);
    table[i++] = v[0]; table[i++] = v[1]; table[i++] = v[2];
  }
  return { format: 'cube', kind: '3d', size, table, title, domain, comments: [], warnings: [] };
}
