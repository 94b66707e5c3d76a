/** A column of the bench as a table: its layers at their strengths, and its trim. */
import type { Column } from '@/core/conversion/recipe';
import { encodingOfText } from '@/core/look/assumed-encoding';
import { computedEncoding } from '@/core/look/look';
import { tableFacts } from '@/core/look/table-facts';
import { Problem } from '@/core/problem';
import { tableSource } from '../../items/service';
import { compute } from '../../threads/computing';
import type { TableSource } from '../../threads/tasks';
import type { Layer, Maker } from './made';

async function tableOf({ source, strength, assumed }: Layer): Promise<{ source: TableSource; strength: number }> {
  const encoding = assumed ? encodingOfText(assumed) : null;
  if (assumed && !encoding)
    throw new Problem('reading', `"${assumed.slice(0, 60)}" is no encoding.`, 'assumed', 'Choose one that is offered.');
  const read = encoding ? { ...source.version, encoding } : source.version;
  return { source: await tableSource(read), strength: strength / 100 };
}

export const stackColumn: Maker<Column> = async ({ size, trim, left }, source, title) => {
  const layers = source.layers ?? [];
  const tables = await Promise.all(layers.map(tableOf));
  const { bytes, threads, residual, domain, range } = await compute('stacked', { layers: tables, trim, size, title });
  const named = layers.map(({ source: own, strength }) => `${own.item.title} at ${Math.round(strength)} %`);
  return {
    kind: 'look',
    bytes,
    fileName: `${title}.cube`,
    format: 'cube',
    facts: { ...tableFacts({ size, domain, range }, title), tableError: residual },
    selvedge: threads,
    encoding: computedEncoding,
    notes: `kept from the bench: ${named.join(', ')}${trim ? ', trimmed' : ''}`,
    outcome: {
      said: `${layers.length === 1 ? 'one layer' : `${layers.length} layers`} as a table of ${size} points`,
      carried: [],
      approximated: [],
      left: [],
      unknown: left,
      error: residual,
    },
    figures: { tableError: residual },
    told: { action: 'kept from the bench', after: { layers: layers.length } },
  };
};
