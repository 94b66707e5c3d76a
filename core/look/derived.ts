/** Other forms of a look: a table of another size, Common LUT Format, ICC device link and abstract profile. */
import { toAbstract, toDeviceLink } from '../icc/convert';
import { readAnyLook } from '../icc/look';
import { writeClf } from './clf-write';
import { writeCubeBytes } from './cube';
import { identity, type Look } from './look';
import { tableOfProgram } from './program';
import { residual, type Residual } from './residual';
import { sampler, type Evaluate } from './sample';
import { selvedge } from './selvedge';

export type LookForm = 'cube' | 'clf' | 'icc-link' | 'icc-abstract';
export interface Derived {
  bytes: Uint8Array;
  extension: string;
  /** of the table against its source; null where nothing is approximated */ residual: Residual | null;
  said: string;
}
export interface DeriveAsked {
  form: LookForm;
  title: string;
  /** an axis */ points: number;
  created: Date;
}
/** The connection space has no need of more. */
const MOST_ABSTRACT_POINTS = 65;

/** The look of a file in another form, with how far that is off where it is a table. */
export async function deriveLook(bytes: Uint8Array, asked: DeriveAsked): Promise<Derived> {
  const program = await readAnyLook(bytes);
  const evaluate = program.evaluate('tetrahedral', 1);
  const { title, created, points } = asked;
  if (asked.form === 'icc-link') {
    const made = await toDeviceLink(evaluate, { title, created, grid: points });
    return { ...made, extension: 'icc', said: `ICC device link, ${points} points` };
  }
  if (asked.form === 'icc-abstract') {
    const grid = Math.min(MOST_ABSTRACT_POINTS, points);
    const made = await toAbstract(evaluate, { title, created, grid });
    return { ...made, extension: 'icc', said: `ICC abstract profile, ${grid} points` };
  }
  const look = { ...(ownTable(program.look, points) ?? tableOf(evaluate, points)), title };
  const error = residual(evaluate, sampler(look));
  if (asked.form === 'cube')
    return { bytes: writeCubeBytes(look), extension: 'cube', residual: error, said: `table of ${points} points` };
  const text = new TextEncoder().encode(writeClf(look, title));
  return { bytes: text, extension: 'clf', residual: error, said: `Common LUT Format, ${points} points` };
}

/** What a look's file shows of itself along its edge. */
export const selvedgeOf = async (bytes: Uint8Array): Promise<ReturnType<typeof selvedge>> =>
  selvedge(sampler(tableOfProgram(await readAnyLook(bytes))));

/** The file's own table, where that is just what is asked for. */
function ownTable(look: Look | null | undefined, points: number): Look | null {
  if (!look || look.kind !== '3d' || look.size !== points) return null;
  const isUsual = look.domain.min.every((value) => value === 0) && look.domain.max.every((value) => value === 1);
  return isUsual ? look : null;
}

function tableOf(evaluate: Evaluate, size: number): Look {
  const out = new Float32Array(size ** 3 * 3);
  const values = new Float64Array(3);
  const last = size - 1;
  for (let b = 0, i = 0; b < size; b++)
    for (let g = 0; g < size; g++)
      for (let r = 0; r < size; r++, i += 3) {
        evaluate(r / last, g / last, b / last, values, 0);
        out.set(values, i);
      }
  return { ...identity(2), size, table: out };
}
