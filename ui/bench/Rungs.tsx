'use client';
import type { Stage } from '@/core/camera/stages';
import { STAGES } from '@/core/camera/stages';
import type { Candidate } from './model/candidate';
import { stopAtStage, toggleStage, type Column } from './model/column';

const words: Record<Stage, string> = { 'hue-sat': 'map', exposure: 'exposure', look: 'look table', curve: 'curve' };

/** The ladder of a profile: each of the rungs that it has can be muted, or be the last. */
export function Rungs({
  column,
  profile,
  onChange,
}: {
  column: Column;
  profile: Candidate;
  onChange: (to: Column) => void;
}) {
  const { source } = column;
  if (source.from !== 'profile' || !profile.rungs.length) return null;
  return (
    <span role="group" aria-label={`Rungs of ${profile.title}`} className="flex gap-1">
      {STAGES.filter((stage) => profile.rungs.includes(stage)).map((stage) => {
        const on = source.stages.includes(stage);
        return (
          <button
            key={stage}
            aria-pressed={on}
            className={`border-b-2 px-0.5 ${on ? 'border-verd text-ink' : 'border-transparent line-through'}`}
            onClick={() => onChange(toggleStage(column, stage))}
            onDoubleClick={() => onChange(stopAtStage(column, stage))}
            title="Click mutes it; double click stops here"
          >
            {words[stage]}
          </button>
        );
      })}
    </span>
  );
}
