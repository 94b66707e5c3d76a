'use client';
/** What is looked at, how much of it there is, and in which form. */
import { LayoutGrid, Rows3 } from 'lucide-react';
import Link from 'next/link';
import { counted, nounFor } from '../kit/words';
import { narrowing } from './model/address';
import { count } from './model/spine';
import { ShelfMenu } from './ShelfMenu';
import { isOrdered, useShelves, type ShelvesContext } from './shelves-context';

const thousands = (value: number): string => value.toLocaleString('en');

function amountOf({ shelf, shelves, params, filtered, result, total }: ShelvesContext): string {
  const onlyShelf = isOrdered(shelf) && !narrowing.some((key) => key !== 'shelf' && params.get(key));
  if (onlyShelf) return `${thousands(shelf.items)} ${nounFor(shelf.items, 'item')}`;
  if (filtered) return `${count(result.counts.n, result.counts.more)} of ${thousands(total)} ${nounFor(total, 'item')}`;
  const boards = shelves.filter((one) => one.away || !one.query).length;
  return `${thousands(total)} ${nounFor(total, 'item')} on ${counted(boards, 'shelf', 'shelves')}`;
}

export function ShelvesHead() {
  const shelves = useShelves();
  const { shelf, result, view, go } = shelves;
  return (
    <div className="mb-3.5 flex flex-wrap items-baseline gap-x-3.5 gap-y-1">
      <h1 className="min-w-0 text-[26px] leading-tight [overflow-wrap:anywhere]">{shelf ? shelf.name : 'Shelves'}</h1>
      <p className="whitespace-nowrap text-soft" aria-live="polite" aria-busy={result.late}>
        {amountOf(shelves)}
      </p>
      {shelf && (
        <>
          <Link prefetch={false} href="/shelves" className="button quiet">
            All shelves
          </Link>
          <ShelfMenu shelf={shelf} />
        </>
      )}
      <span className="ml-auto inline-flex self-center" role="group" aria-label="Show as">
        <button className="chip !rounded-r-none" aria-pressed={view === 'spines'} onClick={() => go({ view: null })}>
          <LayoutGrid aria-hidden size={13} />
          Spines
        </button>
        <button
          className="chip !rounded-l-none !border-l-0"
          aria-pressed={view === 'table'}
          onClick={() => go({ view: 'table' })}
        >
          <Rows3 aria-hidden size={13} />
          Table
        </button>
      </span>
    </div>
  );
}
