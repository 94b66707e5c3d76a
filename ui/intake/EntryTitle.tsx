'use client';
/** What a file will be called on its shelf; while it can be, corrected where it stands. */
import { Pencil } from 'lucide-react';
import { useState } from 'react';
import { MOST_TITLE } from '@/core/api/arrivals';

interface Props {
  title: string;
  /** null where it cannot be changed */ onTitle: ((title: string) => void) | null;
}

export function EntryTitle({ title, onTitle }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const keep = () => {
    const wanted = typed?.trim();
    setTyped(null);
    if (wanted && wanted !== title) onTitle?.(wanted);
  };
  if (typed !== null)
    return (
      <input
        autoFocus
        aria-label={`Title of ${title}`}
        className="field h-[28px] w-full font-serif text-[15px]"
        maxLength={MOST_TITLE}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key === 'Enter') keep();
          if (event.key === 'Escape') setTyped(null);
        }}
      />
    );
  return (
    <span className="font-serif text-[15px] [overflow-wrap:anywhere]">
      {title}
      {onTitle && (
        <button
          type="button"
          className="ml-1.5 inline-flex p-0.5 align-middle text-soft hover:text-ink"
          aria-label={`Correct the title ${title}`}
          onClick={() => setTyped(title)}
        >
          <Pencil aria-hidden size={12} />
        </button>
      )}
    </span>
  );
}
