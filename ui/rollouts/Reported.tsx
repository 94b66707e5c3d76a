/** How many of a rollout's files the agents have told of. */
interface Props {
  settled: number;
  /** left alone or failed, of those */ bad: number;
  of: number;
}

export function Reported({ settled, bad, of }: Props) {
  return (
    <div className="mb-6 max-w-[560px]">
      <p className="mb-1">
        {settled} of {of} files reported
        {bad > 0 && <span className="text-madder">, {bad} left alone or failed</span>}
      </p>
      <div
        role="progressbar"
        aria-label="Files reported"
        aria-valuenow={settled}
        aria-valuemin={0}
        aria-valuemax={of}
        className="h-[4px] bg-line"
      >
        <div className="h-full bg-verd" style={{ width: `${(100 * settled) / of}%` }} />
      </div>
    </div>
  );
}
