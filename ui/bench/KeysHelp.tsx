const Key = ({ children }: { children: string }) => <kbd className="key">{children}</kbd>;

/** The keys of the matrix, below it. */
export function KeysHelp({ mayJudge }: { mayJudge: boolean }) {
  return (
    <p className="mt-4 text-[12px] leading-6 text-soft">
      <Key>←</Key>
      <Key>→</Key>
      <Key>↑</Key>
      <Key>↓</Key> walk <Key>Enter</Key> enlarge <Key>+</Key>
      <Key>−</Key> strength <Key>R</Key> reference <Key>D</Key> differences{' '}
      {mayJudge && (
        <>
          <Key>C</Key> choose or judge{' '}
        </>
      )}
      <Key>Delete</Key> take off
    </p>
  );
}
