'use client';
/** The headings on one long shelf: each can be folded, so that what stands under it is left out of the list. */
import { useQuery } from '@tanstack/react-query';
import { ChevronDown } from 'lucide-react';
import { call } from '../kit/call';
import { foldedIn, withFolding, wordsOfHeadings } from './model/folded-headings';
import { useShelves } from './shelves-context';

/** Of fewer headings there is nothing to fold away. */
const FEWEST = 2;

export function HeadingsStrip({ shelf }: { shelf: string }) {
  const { params, go, result } = useShelves();
  const { data } = useQuery({
    // asked for anew with the list itself: an edit may have moved items under other headings
    queryKey: ['headings of a shelf', shelf, result.spines],
    queryFn: ({ signal }) => call('GET /api/shelves/:id/headings', { id: shelf, signal }),
    placeholderData: (before) => before,
  });
  const headings = data?.headings ?? [];
  const folded = foldedIn(params);
  if (headings.length < FEWEST && !folded.size) return null;
  return (
    <div role="group" aria-label="Headings" className="mb-3 flex flex-wrap gap-1.5">
      {headings.map(({ headings: path, items }) => {
        const words = wordsOfHeadings(path);
        const isFolded = folded.has(words);
        return (
          <button
            key={words}
            type="button"
            className={`chip ${isFolded ? 'text-soft' : ''}`}
            aria-expanded={!isFolded}
            aria-label={`${words}, ${items}: ${isFolded ? 'unfold' : 'fold'}`}
            onClick={() => go({ folded: withFolding(folded, words, !isFolded) })}
          >
            <ChevronDown aria-hidden size={13} className={isFolded ? '-rotate-90' : ''} />
            {words} {items.toLocaleString('en')}
          </button>
        );
      })}
      {folded.size > 0 && (
        <button type="button" className="button quiet" onClick={() => go({ folded: null })}>
          Unfold all
        </button>
      )}
    </div>
  );
}
