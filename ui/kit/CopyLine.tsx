'use client';
/** A line to be copied whole: a command, a path. */
import { Check, Copy } from 'lucide-react';
import { useState } from 'react';

interface Props {
  line: string;
  /** what it is, for who does not see it */ label: string;
}

export function CopyLine({ line, label }: Props) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    await navigator.clipboard.writeText(line);
    setCopied(true);
  };
  return (
    <div className="flex items-start gap-2">
      <pre
        tabIndex={0}
        aria-label={label}
        className="min-w-0 flex-1 overflow-x-auto bg-press px-2.5 py-2 font-mono text-[12px] leading-[17px]"
      >
        {line}
      </pre>
      <button type="button" className="button" aria-label={`Copy: ${label}`} onClick={() => void copy()}>
        {copied ? <Check aria-hidden size={14} /> : <Copy aria-hidden size={14} />}
        {copied ? 'Copied' : 'Copy'}
      </button>
    </div>
  );
}
