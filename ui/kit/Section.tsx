import type { ReactNode } from 'react';

export const SectionHead = ({ children }: { children: ReactNode }) => (
  <h2 className="mb-1 mt-7 text-[17px]">{children}</h2>
);

/** What stands there while a part of a page is on its way. */
export function Skeleton({ lines }: { lines: number }) {
  return (
    <div role="status" aria-label="On its way" className="border-t border-line py-2">
      {Array.from({ length: lines }, (_, i) => (
        <span key={i} className="my-2 block h-3 animate-pulse bg-press" style={{ width: `${80 - 12 * i}%` }} />
      ))}
    </div>
  );
}
