/** Twelve threads: the left of each a fixed color, the right what the item makes of it. Two backgrounds, one element. */
export function Selvedge({ threads, className = '' }: { threads: [string, string][] | null; className?: string }) {
  if (!threads) return <span aria-hidden className={`block bg-press ${className}`} />;
  const band = (side: 0 | 1) =>
    `linear-gradient(${threads.map((t, i) => `${t[side]} ${((i * 100) / 12).toFixed(2)}% ${(((i + 1) * 100) / 12).toFixed(2)}%`).join(',')})`;
  return (
    <span
      aria-hidden
      className={`block ${className}`}
      style={{
        backgroundImage: `${band(0)},${band(1)}`,
        backgroundSize: '38% 100%, 100% 100%',
        backgroundRepeat: 'no-repeat',
      }}
    />
  );
}
