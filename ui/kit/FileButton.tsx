'use client';
/** A button that asks for one file, and the field behind it that the browser opens. */
import { useRef } from 'react';

interface Props {
  /** on the button */ words: string;
  /** of the field, for those who do not see it */ label: string;
  className?: string;
  /** which files are offered, as the browser takes it */ accept?: string;
  onFile: (file: File) => void;
}

export function FileButton({ words, label, className = 'button', accept, onFile }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className={className} onClick={() => input.current?.click()}>
        {words}
      </button>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="sr-only"
        aria-label={label}
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          // so that the same file can be chosen again
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}
