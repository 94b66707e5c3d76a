'use client';
/** All shelves one below the other, each with its first spines; and those that are put away. */
import { ChevronDown } from 'lucide-react';
import Link from 'next/link';
import { startTransition, useEffect, useState } from 'react';
import { call } from '../kit/call';
import { groupBy } from '@/core/lists';
import { InSight } from '../kit/InSight';
import { nounFor } from '../kit/words';
import { useCard } from './hooks/card';
import { useDropOn } from './hooks/drop';
import { headingKey } from './hooks/folded';
import { FoldedRun } from './FoldedRun';
import { firstPaint } from './model/boards';
import { labelsOf, withFolded } from './model/headings';
import { tabStop } from './model/tab-stop';
import type { ShelfView, Spine } from './model/spine';
import { ShelfMenu } from './ShelfMenu';
import { useShelves } from './shelves-context';

/** Boards that are painted once the page is awake; those further down wait until they come near the window. */
const AT_ONCE = 10;
/** Matches of a board are counted so far. */
const COUNTED = 1000;

export function Boards({ columns }: { columns: number }) {
  const { shelves, result, filtered } = useShelves();
  const byShelf = groupBy(result.spines, (spine) => spine.shelfId);
  const shown = shelves.filter((shelf) => !shelf.away && !shelf.query && (byShelf.has(shelf.id) || !filtered));
  const spinesOf = (shelf: ShelfView): Spine[] => byShelf.get(shelf.id) ?? [];
  const isAwake = useAwake();
  const { whole, named, restPx } = isAwake
    ? { whole: AT_ONCE, named: shown.length, restPx: 0 }
    : firstPaint(
        shown.map((shelf) => spinesOf(shelf).length),
        columns,
      );
  return (
    <>
      {shown.slice(0, named).map((shelf, place) => (
        <Board key={shelf.id} shelf={shelf} spines={spinesOf(shelf)} columns={columns} atOnce={place < whole} />
      ))}
      {restPx > 0 && <div style={{ height: restPx }} />}
      <NewAndAway />
    </>
  );
}

/** False for what the server paints and the browser takes over: a page that is sent to everybody is no longer than what is seen of it. */
function useAwake(): boolean {
  const [isAwake, setAwake] = useState(false);
  useEffect(() => startTransition(() => setAwake(true)), []);
  return isAwake;
}

interface BoardProps {
  shelf: ShelfView;
  spines: Spine[];
  columns: number;
  atOnce: boolean;
}

function Board({ atOnce, ...board }: BoardProps) {
  const { shelf } = board;
  const drop = useDropOn(shelf.id);
  return (
    <section
      aria-label={shelf.name}
      className="-mx-2 mb-5 px-2"
      style={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 220px' }}
      {...drop}
    >
      {atOnce ? (
        <WholeBoard {...board} />
      ) : (
        <InSight render={() => <WholeBoard {...board} />} afar={<FarBoard shelf={shelf} />} />
      )}
    </section>
  );
}

const head = 'mb-2 flex flex-wrap items-baseline gap-x-2.5 text-[17px] [overflow-wrap:anywhere]';

/** All that is there of a board that nobody has come near to: what searching a page finds, and readers of screens go by. */
const FarBoard = ({ shelf }: { shelf: ShelfView }) => (
  <>
    <h2 className={head}>{shelf.name}</h2>
    <div className="h-[175px]" />
  </>
);

function WholeBoard({ shelf, spines, columns }: Omit<BoardProps, 'atOnce'>) {
  const { go, folded } = useShelves();
  const isFolded = folded.isFolded(shelf.id);
  const more = (spines[0]?.matching ?? 0) - spines.length;
  return (
    <>
      <h2 className={head}>
        <button
          type="button"
          aria-expanded={!isFolded}
          aria-label={`${shelf.name}: ${isFolded ? 'unfold' : 'fold'}`}
          className="-ml-1 self-center text-soft hover:text-ink"
          onClick={() => folded.fold([shelf.id], !isFolded)}
        >
          <ChevronDown aria-hidden size={15} className={isFolded ? '-rotate-90' : ''} />
        </button>
        <Link prefetch={false} href={`/shelves?shelf=${shelf.id}`} className="hover:underline">
          {shelf.name}
        </Link>
        <span className="font-sans text-[12.5px] font-normal tracking-normal text-soft">
          {shelf.note || `${shelf.items.toLocaleString('en')} ${nounFor(shelf.items, 'item')}`}
        </span>
        <ShelfMenu shelf={shelf} />
      </h2>
      {!isFolded && (spines.length > 0 ? <Cards spines={spines} columns={columns} /> : <EmptyBoard />)}
      {!isFolded && more > 0 && (
        <button className="button quiet mt-1" onClick={() => go({ shelf: shelf.id })}>
          and {more >= COUNTED - spines.length ? '1,000 or' : more.toLocaleString('en')} more on this shelf
        </button>
      )}
    </>
  );
}

function Cards({ spines, columns }: { spines: Spine[]; columns: number }) {
  const card = useCard();
  const { current, folded } = useShelves();
  const keyOf = (spine: Spine) => headingKey(spine.shelfId, spine.headings);
  const standing = withFolded(spines, (spine) => spine.headings.length > 0 && folded.isFolded(keyOf(spine)));
  const labels = labelsOf(
    standing.map((one) => one.spine),
    columns,
  );
  const stop = tabStop(
    standing.filter((one) => !one.hidden).map((one) => one.spine),
    current,
  );
  return (
    <div className="flex flex-wrap gap-x-3 gap-y-0">
      {standing.map(({ spine, hidden }, i) => {
        const label = labels?.[i] ?? null;
        const fold = (on: boolean) => () => folded.fold([keyOf(spine)], on);
        if (hidden)
          return <FoldedRun key={spine.id} spine={spine} count={hidden} label={label} onUnfold={fold(false)} />;
        return card(spine, { label, isStop: spine === stop, onFold: spine.headings.length > 0 ? fold(true) : null });
      })}
    </div>
  );
}

const EmptyBoard = () => (
  <>
    <p className="px-1 py-6 text-soft">
      Nothing stands here yet. What is taken in at{' '}
      <Link className="underline" href="/intake">
        Intake
      </Link>{' '}
      can be put on this shelf, or dragged here.
    </p>
    <div className="ledge" />
  </>
);

function NewAndAway() {
  const { shelves, may, ask, action } = useShelves();
  const away = shelves.filter((shelf) => shelf.away);
  const bringBack = (shelf: ShelfView) =>
    void action.runAndRefresh(
      () => call('POST /api/shelves/:id/away', { id: shelf.id, body: { away: false } }),
      `${shelf.name} is back`,
    );
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      {may.shelf && (
        <button className="button quiet" onClick={() => ask({ what: 'make a shelf' })}>
          New shelf
        </button>
      )}
      <Link prefetch={false} className="button quiet" href="/shelves?archived=1">
        Archive
      </Link>
      {away.length > 0 && (
        <span className="flex flex-wrap items-center gap-2 text-soft">
          Put away:{' '}
          {away.map((shelf) => (
            <button key={shelf.id} className="chip" onClick={() => bringBack(shelf)}>
              {shelf.name}
            </button>
          ))}
        </span>
      )}
    </div>
  );
}
