/** What was done, for the eye and for readers of screens. The line is there before its words, so that they are announced. */
export function Said({ words }: { words: string }) {
  return (
    <p role="status" className={words ? 'mb-2 text-soft' : 'sr-only'}>
      {words}
    </p>
  );
}
