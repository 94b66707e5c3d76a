'use client';
/** A link that is shown once, to be handed on: Etagere sends no mail. */
import { Check, Copy } from 'lucide-react';
import { useState } from 'react';

export interface Link {
  path: string;
  until: string;
}

export function LinkToCopy({ link, name }: { link: Link; name: string }) {
  const [copied, setCopied] = useState(false);
  const address = `${location.origin}${link.path}`;
  const copy = async () => {
    await navigator.clipboard.writeText(address);
    setCopied(true);
  };
  const until = new Date(link.until).toLocaleDateString('en', { day: 'numeric', month: 'long' });
  return (
    <div role="status" className="mt-3 border border-line bg-sheet p-3">
      <p className="mb-2">
        Give this link to {name}. Whoever opens it sets the password: once, until {until}. It is not shown again.
      </p>
      <div className="flex items-center gap-2">
        <input
          readOnly
          className="field min-w-0 flex-1 font-mono text-[12px]"
          aria-label={`Link for ${name}`}
          value={address}
          onFocus={(event) => event.target.select()}
        />
        <button className="button" onClick={() => void copy()}>
          {copied ? <Check aria-hidden size={14} /> : <Copy aria-hidden size={14} />}
          {copied ? 'Copied' : 'Copy'}
        </button>
      </div>
    </div>
  );
}
