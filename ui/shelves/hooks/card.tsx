'use client';
/** A spine as a card, with what it answers to. */
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef } from 'react';
import type { Label } from '../model/headings';
import { draggedBy } from '../model/selection';
import type { Spine } from '../model/spine';
import { useShelves } from '../shelves-context';
import { SpineCard, type SpineActs } from '../SpineCard';

/** What a card answers to, as one object that never changes: cards are painted again only when their spine does. */
function useSpineActs(): SpineActs {
  const router = useRouter();
  const { frame, lookAt, onSpineKey, move, selection } = useShelves();
  const latest = useRef<SpineActs | null>(null);
  useEffect(() => {
    latest.current = {
      open: (spine) => router.push(`/items/${spine.id}${frame ? `?frame=${frame.id}` : ''}`),
      lookAt,
      onKey: onSpineKey,
      dropBefore: (ids, spine) => {
        if (!ids.includes(spine.id)) void move(draggedBy(ids, selection), spine.shelfId, spine.id);
      },
    };
  });
  return useMemo<SpineActs>(
    () => ({
      open: (spine) => latest.current?.open(spine),
      lookAt: (spine) => latest.current?.lookAt(spine),
      onKey: (event, spine) => latest.current?.onKey(event, spine),
      dropBefore: (ids, spine) => latest.current?.dropBefore(ids, spine),
    }),
    [],
  );
}

export function useCard(): (spine: Spine, label: Label | null) => React.ReactNode {
  const { frame, current, selection, hasRibbon, twins, may, params } = useShelves();
  const acts = useSpineActs();
  return function card(spine, label) {
    return (
      <SpineCard
        key={spine.id}
        spine={spine}
        label={label}
        frame={frame?.id ?? null}
        current={current?.id === spine.id}
        chosen={selection.has(spine.id)}
        mine={hasRibbon(spine)}
        twin={twins.has(spine.id)}
        movable={may.edit && !params.get('archived')}
        acts={acts}
      />
    );
  };
}
