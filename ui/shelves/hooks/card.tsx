'use client';
/** A spine as a card, with what it answers to. */
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef } from 'react';
import { fetchFirst } from '../../kit/preview-worker';
import type { Label } from '../model/headings';
import { draggedBy } from '../model/selection';
import type { Spine } from '../model/spine';
import { useShelves } from '../shelves-context';
import { SpineCard, type SpineActs } from '../SpineCard';

/** In which the item's page shows a frame. */
const PAGE_WIDTH = 900;

const isShownOnFrames = ({ kind }: Spine): boolean => kind === 'look' || kind === 'preset';

/** What a card answers to, as one object that never changes: cards are painted again only when their spine does. */
function useSpineActs(): SpineActs {
  const router = useRouter();
  const { frame, lookAt, onSpineKey, move, selection, chooseTo } = useShelves();
  const latest = useRef<SpineActs | null>(null);
  useEffect(() => {
    latest.current = {
      open: (spine) => {
        if (frame && isShownOnFrames(spine))
          fetchFirst({ frame: frame.id, width: PAGE_WIDTH, version: spine.versionId });
        router.push(`/items/${spine.id}${frame ? `?frame=${frame.id}` : ''}`);
      },
      lookAt,
      chooseTo: (spine) => {
        chooseTo?.(spine);
        return chooseTo !== null;
      },
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
      chooseTo: (spine) => latest.current?.chooseTo(spine) ?? false,
      dropBefore: (ids, spine) => latest.current?.dropBefore(ids, spine),
    }),
    [],
  );
}

interface Standing {
  label: Label | null;
  /** the one of its board that Tab comes to */ isStop: boolean;
  /** folds what stands under its headings, where that can be */ onFold?: (() => void) | null;
}

export type DrawCard = (spine: Spine, standing: Standing) => React.ReactNode;

export function useCard(): DrawCard {
  const { frame, current, selection, hasRibbon, twins, may, params } = useShelves();
  const acts = useSpineActs();
  return function card(spine, { label, isStop, onFold = null }) {
    return (
      <SpineCard
        key={spine.id}
        spine={spine}
        label={label}
        onFold={label?.words ? onFold : null}
        frame={frame?.id ?? null}
        current={current?.id === spine.id}
        isStop={isStop}
        chosen={selection.has(spine.id)}
        mine={hasRibbon(spine)}
        twin={twins.has(spine.id)}
        movable={may.edit && !params.get('archived')}
        acts={acts}
      />
    );
  };
}
