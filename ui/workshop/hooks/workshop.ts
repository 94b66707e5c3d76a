'use client';
/** The draft of the workshop: what is changed in it, what follows, and that it is kept. */
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import type { Descriptor } from '@/core/editor/descriptor';
import { withMeaning, type Meaning } from '@/core/preset/workshop/describe';
import type { Sample } from '@/core/preset/workshop/samples';
import type { Property } from '@/core/preset/workshop/survey';
import { same } from '@/core/same';
import { draftOf, withSamples, workedOut, type Draft, type Worked } from '../model/draft';
import { draftFrom, forgetDraft, keepDraft, keptText } from '../model/keep';

export interface Workshop {
  draft: Draft;
  worked: Worked;
  /** what was being worked on here is on the page again */ wasKept: boolean;
  isBegun: boolean;
  /** somebody has described the editor anew since the draft was begun */ isOvertaken: boolean;
  add: (samples: readonly Sample[]) => void;
  drop: (name: string) => void;
  describe: (descriptor: Descriptor) => void;
  mean: (property: Property, meaning: Meaning) => void;
  emptyFrom: (name: string) => void;
  beginAnew: () => void;
}

/** @param key under which the draft is kept; @param known the editor's descriptor as it stands */
export function useWorkshop(key: string, known: Descriptor | null): Workshop {
  const keptAs = useSyncExternalStore(
    () => () => {},
    () => keptText(localStorage, key),
    () => null,
  );
  const kept = useMemo(() => draftFrom(keptAs), [keptAs]);
  /** null until something is changed on this page */
  const [own, setOwn] = useState<Draft | null>(null);
  const draft = own ?? kept ?? draftOf(known);
  useEffect(() => {
    if (own && (own.samples.length || own.descriptor !== known)) keepDraft(localStorage, key, own);
  }, [own, key, known]);
  const worked = useMemo(() => workedOut(draft), [draft]);
  const change = (by: (draft: Draft) => Partial<Draft>) =>
    setOwn((now) => ({ ...(now ?? draft), ...by(now ?? draft) }));
  return {
    draft,
    worked,
    wasKept: own === null && kept !== null,
    isBegun: draft.samples.length > 0,
    isOvertaken: !same(draft.base, known),
    add: (samples) => change((now) => ({ samples: withSamples(now.samples, samples) })),
    drop: (name) =>
      change(({ samples, emptyOf }) => ({
        samples: samples.filter((sample) => sample.name !== name),
        emptyOf: emptyOf === name ? '' : emptyOf,
      })),
    describe: (descriptor) => change(() => ({ descriptor })),
    mean: (property, meaning) =>
      change(({ descriptor }) => ({ descriptor: descriptor && withMeaning(descriptor, property, meaning) })),
    emptyFrom: (name) => change(() => ({ emptyOf: name })),
    beginAnew: () => {
      forgetDraft(localStorage, key);
      setOwn(draftOf(known));
    },
  };
}
