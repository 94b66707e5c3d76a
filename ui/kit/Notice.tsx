import { CircleAlert } from 'lucide-react';
import type { ProblemText } from './call';

/** An error as it reaches a person: what happened, where, what to do. */
export function Notice({ problem, className = '' }: { problem: ProblemText | null; className?: string }) {
  if (!problem) return null;
  return (
    <div role="alert" className={`flex gap-2.5 border-l-2 border-madder bg-sheet px-3 py-2 ${className}`}>
      <CircleAlert aria-hidden size={16} className="mt-0.5 shrink-0 text-madder" />
      <p>
        <b className="font-semibold">{problem.message}</b> <span className="text-soft">{problem.remedy}</span>
        {problem.where && <span className="block text-[12px] text-soft">{problem.where}</span>}
      </p>
    </div>
  );
}
