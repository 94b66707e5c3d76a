'use client';
import Link from 'next/link';
import { nounFor } from '../kit/words';
import { isOrdered, useShelves } from './shelves-context';

/** What stands there when a search finds nothing, or when there is nothing to search in. */
export function NothingFound() {
  const { shelves, shelf, result, filtered, params, total } = useShelves();
  if (!shelves.length)
    return (
      <div className="py-10">
        <p className="mb-1 font-serif text-[18px]">No shelves yet</p>
        <p className="text-soft">
          The first arrival makes one: drop it at{' '}
          <Link className="underline" href="/intake">
            Intake
          </Link>
          .
        </p>
      </div>
    );
  if (result.counts.n || !filtered || params.get('folded')) return null;
  return (
    <div className="py-10">
      <p className="mb-1 font-serif text-[18px]">
        {isOrdered(shelf) && !params.get('q') ? 'Nothing stands here yet' : 'Nothing matches'}
      </p>
      <p className="text-soft">
        Try fewer letters or take a facet off, or{' '}
        <Link prefetch={false} className="underline" href="/shelves">
          show all {total.toLocaleString('en')} {nounFor(total, 'item')}
        </Link>
        .
      </p>
    </div>
  );
}
