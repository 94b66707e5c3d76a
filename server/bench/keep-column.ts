/** A column of the bench kept as a look: its layers at their strengths and its trim, as one table that knows what it was made of. */
import { tableFacts } from '@/core/look/table-facts';
import type { AnswerOf, BodyOf } from '@/core/api';
import { benchEndpoints } from '@/core/api/bench';
import type { Trim } from '@/core/bench/measure';
import { distinct } from '@/core/lists';
import { encodingOfText } from '@/core/look/assumed-encoding';
import { computedEncoding } from '@/core/look/look';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { putBlob } from '../blobs/service';
import { transaction } from '../db/pool';
import { sourceFor } from '../conversions/one';
import type { Source } from '../conversions/makers';
import { checked } from '../input';
import { createItem, takenOver } from '../items/create';
import * as items from '../items/queries';
import { tableSource } from '../items/service';
import { allowUnderLicence } from '../licences/service';
import { actorOf, allow, type Person } from '../people/roles';
import { compute } from '../threads/computing';
import type { TableSource } from '../threads/tasks';

interface Layer {
  source: Source;
  table: TableSource;
  /** a factor */ strength: number;
}

async function layerOf(
  person: Person,
  { version, strength, assumed }: { version: string; strength: number; assumed: string | null },
): Promise<Layer> {
  const source = await sourceFor(person, version);
  await allowUnderLicence(person, source.item, 'convert');
  const encoding = assumed ? encodingOfText(assumed) : null;
  if (assumed && !encoding)
    throw new Problem('reading', `"${assumed.slice(0, 60)}" is no encoding.`, 'assumed', 'Choose one that is offered.');
  const read = encoding ? { ...source.version, encoding } : source.version;
  return { source, table: await tableSource(read), strength: strength / 100 };
}

/** A draft on the shelf of what lies on top; the licences of all that is in it have to allow it. */
export async function keepColumn(
  person: Person,
  input: BodyOf<'POST /api/bench/look'>,
): Promise<AnswerOf<'POST /api/bench/look'>> {
  allow(person, 'item.convert');
  const { title, size, layers: asked, trim: typed, left } = checked(benchEndpoints['POST /api/bench/look'].body, input);
  const trim = typed as Trim | null;
  const layers: Layer[] = [];
  for (const one of asked) layers.push(await layerOf(person, one));
  const top = layers.at(-1)?.source;
  if (!top)
    throw new Problem(
      'column-empty',
      'No look lies in this column.',
      title,
      'Lay a look over it first: the look stands on the shelf of what lies on top.',
    );
  const made = await compute('stacked', {
    layers: layers.map(({ table, strength }) => ({ source: table, strength })),
    trim,
    size,
    title,
  });
  const { residual: tableError, domain, range } = made;
  return transaction(async (sql) => {
    const kept = await createItem(sql, actorOf(person), {
      kind: 'look',
      title,
      headings: top.version.headings,
      ...takenOver(top.item),
      sha: await putBlob(sql, Buffer.from(made.bytes)),
      fileName: `${title}.cube`,
      format: 'cube',
      selvedge: made.threads,
      encoding: computedEncoding,
      notes: `kept from the bench: ${layers.map(({ source, strength }) => `${source.item.title} at ${Math.round(strength * 100)} %`).join(', ')}${trim ? ', trimmed' : ''}`,
      facts: { ...tableFacts({ size, domain, range }, title), tableError },
    });
    const recipe = { tool: 'column', size, layers: asked, trim, left, tableError };
    for (const id of distinct(layers.map(({ source }) => source.version.id)))
      await items.insertLineage(sql, kept.versionId, id, recipe);
    await record(sql, actorOf(person), 'item', kept.itemId, 'kept from the bench', null, { layers: layers.length });
    return { ...kept, error: { meanDeltaE: tableError.meanDeltaE, maxDeltaE: tableError.maxDeltaE } };
  });
}
