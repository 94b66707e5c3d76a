import type { Candidate } from '@/core/api/bench';
import { codingSaid } from '@/core/icc/coding';

export type { Candidate };

/** How an ICC profile's device values are taken, in words. */
const codingWords = (description: string): string =>
  codingSaid(description) === 'linear' ? 'ICC, taken as linear' : 'ICC, of square root values';

/** From a row of the catalogue. */
export function candidateOf(r: {
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
}): Candidate {
  const stages = (r.facts.stages ?? []) as string[];
  const has = (w: string) => stages.includes(w);
  return {
    versionId: r.version_id,
    itemId: r.item_id,
    title: r.title,
    kind: r.kind as Candidate['kind'],
    number: r.number,
    status: r.status,
    cameras: r.cameras,
    supplier: r.supplier,
    most: r.strength_most || 150,
    usual: r.strength_usual ?? 100,
    fixed: r.strength_least === r.strength_most,
    rungs:
      r.kind === 'camera-profile'
        ? [
            ...(has('hue/saturation map') ? ['hue-sat'] : []),
            ...(has('exposure offset') ? ['exposure'] : []),
            ...(has('look table') ? ['look'] : []),
            ...(has('tone curve') ? ['curve'] : []),
          ]
        : [],
    noCurve: r.kind === 'camera-profile' && r.format === 'dcp' && !has('tone curve'),
    icc: r.kind === 'camera-profile' && r.format === 'icc' ? codingWords(String(r.facts.description ?? '')) : '',
    shown: r.kind !== 'camera-profile' || r.format === 'dcp' || r.facts.class === 'input',
    intention: r.intention,
    roots: r.roots,
  };
}
