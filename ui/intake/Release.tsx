/** A known pack's new release against the one before: added, changed, gone, and what the changes mean. */
import Link from 'next/link';
import type { ReactNode } from 'react';

export interface ReleaseChange {
  path: string;
  title: string;
  itemId: string | null;
  what: 'added' | 'changed' | 'gone' | 'same';
  meaning: string;
}
const order = ['changed', 'added', 'gone'] as const;
const words = { changed: 'Changed', added: 'Added', gone: 'Gone' };

export function Release({
  pack,
  changes,
  when,
}: {
  pack: { name: string; release: string; arrivalId: string };
  changes: ReleaseChange[];
  when: ReactNode;
}) {
  const same = changes.filter((c) => c.what === 'same').length;
  return (
    <section
      aria-label="Against the release before"
      className="mb-7 max-w-[1180px] border border-line bg-sheet px-4 py-3"
    >
      <h2 className="mb-1 flex items-baseline gap-2.5 text-[17px]">
        Against the release before
        <span className="font-sans text-[12.5px] font-normal tracking-normal text-soft">
          <Link className="underline" href={`/intake/${pack.arrivalId}`}>
            {pack.name}
            {pack.release ? `, ${pack.release}` : ''}
          </Link>
          , taken in {when}; {same} unchanged
        </span>
      </h2>
      {order.map((what) => {
        const rows = changes.filter((c) => c.what === what);
        return rows.length ? (
          <details key={what} open={rows.length <= 12} className="mt-1">
            <summary className="cursor-pointer font-medium">
              {words[what]}: {rows.length}
            </summary>
            <ul>
              {rows.slice(0, 200).map((releaseChange) => (
                <li
                  key={releaseChange.path}
                  data-release={what}
                  className="grid grid-cols-[minmax(0,260px)_1fr] gap-3 border-t border-line py-1.5"
                >
                  <span className="[overflow-wrap:anywhere]">
                    {releaseChange.itemId ? (
                      <Link className="underline" href={`/items/${releaseChange.itemId}`}>
                        {releaseChange.title}
                      </Link>
                    ) : (
                      releaseChange.title
                    )}
                  </span>
                  <span className="text-soft">{releaseChange.meaning}</span>
                </li>
              ))}
            </ul>
          </details>
        ) : null;
      })}
    </section>
  );
}
