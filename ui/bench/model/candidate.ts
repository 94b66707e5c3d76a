import type { Candidate } from '@/core/api/bench';
import type { Trim } from '@/core/bench/measure';
import { codingSaid } from '@/core/icc/coding';
import { notRendered, type ClassOverrides } from '@/core/preset/bake';
import type { LookReference, Settings } from '@/core/preset/kinds';

export type { Candidate };

/** How an ICC profile's device values are taken, in words. */
const codingWords = (description: string): string =>
  codingSaid(description) === 'linear' ? 'ICC, taken as linear' : 'ICC, of square root values';

interface PresetFacts {
  settings?: Settings;
  classes?: ClassOverrides;
}

/** What of a preset is not seen: settings that are not rendered, and a look that it calls by a name that nothing held has. */
function ofPreset({ kind, facts, called }: { kind: string; facts: PresetFacts; called: string | null }) {
  if (kind !== 'preset') return { notShown: [], missing: [] };
  const { settings = {}, classes = {} } = facts;
  const look = settings.look as LookReference | undefined;
  return { notShown: notRendered(settings, classes), missing: look && !called ? [look.name] : [] };
}

/** From a row of the catalogue. */
export function candidateOf(row: {
  version_id: string;
  item_id: string;
  title: string;
  kind: string;
  format: string;
  number: number;
  status: string;
  cameras: string[];
  supplier: string;
  strength_least: number;
  strength_most: number;
  strength_usual: number | null;
  facts: Record<string, unknown>;
  intention: string;
  roots: string[];
  doubled: boolean;
  called: string | null;
  compensation: unknown;
}): Candidate {
  const stages = (row.facts.stages ?? []) as string[];
  const has = (w: string) => stages.includes(w);
  return {
    versionId: row.version_id,
    itemId: row.item_id,
    title: row.title,
    kind: row.kind as Candidate['kind'],
    number: row.number,
    status: row.status,
    cameras: row.cameras,
    supplier: row.supplier,
    most: row.strength_most || 150,
    usual: row.strength_usual ?? 100,
    fixed: row.strength_least === row.strength_most,
    rungs:
      row.kind === 'camera-profile'
        ? [
            ...(has('hue/saturation map') ? ['hue-sat'] : []),
            ...(has('exposure offset') ? ['exposure'] : []),
            ...(has('look table') ? ['look'] : []),
            ...(has('tone curve') ? ['curve'] : []),
          ]
        : [],
    noCurve: row.kind === 'camera-profile' && row.format === 'dcp' && !has('tone curve'),
    icc: row.kind === 'camera-profile' && row.format === 'icc' ? codingWords(String(row.facts.description ?? '')) : '',
    shown: row.kind !== 'camera-profile' || row.format === 'dcp' || row.facts.class === 'input',
    intention: row.intention,
    roots: row.roots,
    doubled: row.doubled,
    trim: row.compensation as Trim | null,
    ...ofPreset(row),
  };
}
