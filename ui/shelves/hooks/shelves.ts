'use client';
/** Puts together what the parts of the shelves share. */
import { useEffect, useMemo, useState } from 'react';
import { useRouter } from 'next/navigation';
import { useAction } from '../../kit/action';
import { call } from '../../kit/call';
import { useOwnAddress } from '../../kit/own-address';
import { useToast } from '../../kit/toast';
import { narrowing, searchOf } from '../model/address';
import { twinsAmong, type Spine } from '../model/spine';
import { isOrdered, type Asking, type ShelvesContext, type ShelvesProps } from '../shelves-context';
import { useSearchResult } from './search-result';
import { useFolded } from './folded';
import { useSelection } from './selection';
import { spineKeys } from './spine-keys';

const SETTLED_MS = 150;

export function useShelvesParts(props: ShelvesProps): ShelvesContext & { asking: Asking | null } {
  const { shelves, given, frames } = props;
  const { params, go, at, lookAt } = useShelvesAddress();
  const action = useAction();
  const result = useSearchResult(
    searchOf((key) => params.get(key)),
    given,
    action.report,
  );
  const { hasRibbon, setRibbon } = useRibbons();
  const [seen, setInView] = useState<Spine[]>([]);
  const [asking, ask] = useState<Asking | null>(null);
  const view = params.get('view') === 'table' ? 'table' : 'spines';
  const shelf = shelves.find((one) => one.id === params.get('shelf'));
  const inView = seen.length && result.flat ? seen : result.spines;
  const choosing = useSelection(inView, result.search, action.report);
  const mayChoose = props.may.edit || props.may.rollOut;
  const folded = useFolded();
  const tell = useToast();
  const move: ShelvesContext['move'] = (ids, shelfId, before) =>
    action.runAndRefresh(async () => {
      const { places } = await call('POST /api/shelves/items', { body: { items: ids, shelfId, before } });
      tell({
        words: ids.length === 1 ? 'Moved.' : `${ids.length} items moved.`,
        undo: () => call('POST /api/shelves/items/back', { body: { places } }),
      });
    });
  return {
    ...props,
    params,
    go,
    view,
    shelf,
    filtered: narrowing.some((key) => params.get(key)),
    result,
    frame: frames.find((one) => one.id === params.get('frame')) ?? frames[0],
    inView,
    setInView,
    twins: useMemo(() => twinsAmong(inView), [inView]),
    current: inView.find((spine) => spine.id === at) ?? inView[0],
    lookAt,
    ...choosing,
    chooseTo: mayChoose ? choosing.chooseTo : null,
    folded,
    hasRibbon,
    setRibbon,
    action,
    asking,
    ask,
    move,
    onSpineKey: spineKeys({
      spines: inView,
      rowGap: view === 'table' ? 4 : 20,
      move: props.may.edit && (!shelf || isOrdered(shelf)) ? move : null,
      setRibbon,
      toggle: mayChoose ? choosing.toggle : null,
      chooseTo: mayChoose ? choosing.chooseTo : null,
      chooseAll: mayChoose ? choosing.chooseAll : null,
    }),
  };
}

/** The address is the state; which spine is looked at is kept in it without a round trip. */
function useShelvesAddress() {
  const { text, setAddress, keepAddress, last } = useOwnAddress();
  const params = useMemo(() => new URLSearchParams(text), [text]);
  const [at, setAt] = useState<string | null>(params.get('at'));
  useEffect(() => {
    if (!at) return;
    const timer = setTimeout(() => {
      const next = new URLSearchParams(last());
      next.set('at', at);
      keepAddress(next.toString());
    }, SETTLED_MS);
    return () => clearTimeout(timer);
  }, [at, last, keepAddress]);
  const go = (change: Record<string, string | null>) => {
    const next = new URLSearchParams(last());
    for (const [key, value] of Object.entries(change)) {
      if (value) next.set(key, value);
      else next.delete(key);
    }
    next.delete('at');
    setAddress(next.toString());
  };
  return { params, go, at, lookAt: (spine: Spine) => setAt(spine.id) };
}

/** One's own ribbons: shown at once, and taken back where the server says no. */
function useRibbons() {
  const router = useRouter();
  const [hoped, setHoped] = useState<Record<string, boolean>>({});
  const hasRibbon = (spine: Spine): boolean => hoped[spine.id] ?? spine.mine;
  const setRibbon = (spine: Spine): void => {
    const on = !hasRibbon(spine);
    setHoped({ ...hoped, [spine.id]: on });
    void call('POST /api/items/:id/ribbon', { id: spine.id, body: { on, whose: 'mine' } }).then(
      () => router.refresh(),
      () => {
        setHoped((all) => ({ ...all, [spine.id]: spine.mine }));
      },
    );
  };
  return { hasRibbon, setRibbon };
}
