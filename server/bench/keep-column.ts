/** A column of the bench kept as a look: its layers at their strengths and its trim, as one table that knows what it was made of. */
import type { AnswerOf, BodyOf } from '@/core/api';
import { benchEndpoints } from '@/core/api/bench';
import type { Column } from '@/core/conversion/recipe';
import { Problem } from '@/core/problem';
import type { Figures } from '@/core/conversion/outcome';
import { convertOne, sourceFor } from '../conversions/one';
import { checked } from '../input';
import { versionFor } from '../items/service';
import { allow, type Person } from '../people/roles';

/** A draft on the shelf of what lies on top; the licences of all that is in it have to allow it. */
export async function keepColumn(
  person: Person,
  input: BodyOf<'POST /api/bench/look'>,
): Promise<AnswerOf<'POST /api/bench/look'>> {
  allow(person, 'item.convert');
  const { title, ...column } = checked(benchEndpoints['POST /api/bench/look'].body, input);
  const top = column.layers.at(-1);
  if (!top)
    throw new Problem(
      'column-empty',
      'No look lies in this column.',
      title,
      'Lay a look over it first: the look stands on the shelf of what lies on top.',
    );
  const recipe = { tool: 'column', ...column } as Column;
  const kept = await convertOne(person, recipe, await sourceFor(person, top.version), title);
  const { facts } = await versionFor(person, kept.versionId);
  const { meanDeltaE, maxDeltaE } = facts.tableError as Figures;
  return { ...kept, error: { meanDeltaE, maxDeltaE } };
}
