/** Preset → look: its settings, and the look that it calls, as a table. */
import { tableFacts } from '@/core/look/table-facts';
import type { Bake } from '@/core/conversion/recipe';
import { computedEncoding } from '@/core/look/look';
import { split, type ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { Problem } from '@/core/problem';
import { tableSource } from '../../items/service';
import { compute } from '../../threads/computing';
import type { PresetSource } from '../../threads/tasks';
import type { Maker, Source } from './made';

/** What a table is made from: the settings, and the look that they call, where that is held. */
export async function presetSource({ version }: Pick<Source, 'version'>): Promise<PresetSource> {
  const source = await tableSource(version);
  if (source.kind !== 'preset') throw new Error('a preset is made into a table by its settings');
  return source;
}

/** The ids of all settings that a table can carry, with "look" where the look that is called is at hand. */
export function carriable(source: PresetSource): string[] {
  const { kept } = split(source.settings, source.classes);
  return [...Object.keys(kept), ...(source.called ? ['look'] : [])];
}

export const bakeLook: Maker<Bake> = async ({ size, leave, above = null }, source, title) => {
  const { version } = source;
  const preset = await presetSource(source);
  const wanted = carriable(preset).filter((id) => !leave.includes(id));
  const refused = new Problem(
    'convert-empty',
    'Nothing would be left of this preset in a look.',
    version.title,
    'Choose at least one setting that a table can carry.',
  );
  if (!wanted.length) throw refused;
  const { kept, takesLook, left, residual, bytes, threads, domain, range } = await compute('baked', {
    source: preset,
    size,
    title,
    wanted,
    above,
  });
  const carried = [...Object.keys(kept), ...(takesLook ? ['look'] : [])];
  if (!carried.length) throw refused;
  const facts = version.facts as { settings: Settings; classes: ClassOverrides; unknown?: Record<string, string> };
  return {
    kind: 'look',
    bytes,
    fileName: `${title}.cube`,
    format: 'cube',
    facts: {
      ...tableFacts({ size, domain, range }, title),
      tableError: residual,
      left,
    },
    selvedge: threads,
    encoding: computedEncoding,
    ...(kept.monochrome ? { result: 'monochrome' as const } : {}),
    notes: `made from the preset ${version.title}, version ${version.number}`,
    outcome: {
      said: `table of ${size} points${above === null ? '' : `, to +${above} EV`}`,
      carried,
      approximated: [],
      left,
      unknown: Object.keys(facts.unknown ?? {}),
      error: residual,
    },
    figures: { settings: carried, left, tableError: residual },
    told: { action: 'converted', after: { title, size, ...(above === null ? {} : { above }) } },
  };
};
