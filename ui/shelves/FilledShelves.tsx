'use client';
import Link from 'next/link';
import { useShelves } from './shelves-context';

/** The searches that were saved as shelves. */
export function FilledShelves() {
  const { shelves } = useShelves();
  const filling = shelves.filter((shelf) => shelf.query && !shelf.away);
  if (!filling.length) return null;
  return (
    <p className="mb-4 flex flex-wrap items-center gap-2 text-soft">
      Shelves that fill themselves:{' '}
      {filling.map((shelf) => (
        <Link prefetch={false} key={shelf.id} className="chip" href={`/shelves?shelf=${shelf.id}`} title={shelf.note}>
          {shelf.name}
        </Link>
      ))}
    </p>
  );
}
