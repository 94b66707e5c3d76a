'use client';
/** One of the items that do the same. */
import Link from 'next/link';
import { FramePreview } from '../kit/FramePreview';
import { NotShown } from '../kit/NotShown';
import { Selvedge } from '../kit/Selvedge';
import { State } from '../kit/State';
import { counted } from '../kit/words';
import { apart, type Spine } from '../shelves/model/spine';

interface Props {
  spine: Spine;
  /** names the choice that it is one of */ group: string;
  /** the picture that it is shown on, if it is */ frame: { id: string; name: string } | null;
  isKept: boolean;
  /** null where the person may not choose */ onKeep: (() => void) | null;
}

/** What tells it from the others, in words. */
const whereabouts = (spine: Spine): string =>
  [
    apart(spine),
    `on ${spine.shelf}`,
    `version ${spine.number}`,
    spine.stations ? `on ${counted(spine.stations, 'station')}` : '',
  ]
    .filter(Boolean)
    .join(', ');

export function Copy({ spine, group, frame, isKept, onKeep }: Props) {
  return (
    <label data-copy={spine.title} className={`block border bg-paper p-3 ${isKept ? 'border-verd' : 'border-line'}`}>
      {frame ? (
        <>
          <FramePreview
            frame={frame.id}
            version={spine.versionId}
            strength={100}
            width={320}
            label={`${spine.title} on ${frame.name}`}
          />
          <NotShown kind={spine.kind} version={spine.versionId} />
        </>
      ) : (
        <Selvedge threads={spine.selvedge} className="h-[64px]" />
      )}
      <span className="mt-2 flex items-start gap-2">
        {onKeep && <input type="radio" name={`keep-${group}`} className="mt-1" checked={isKept} onChange={onKeep} />}
        <span className="min-w-0">
          <Link href={`/items/${spine.id}`} className="font-serif text-[15.5px] underline [overflow-wrap:anywhere]">
            {spine.title}
          </Link>
          <span className="block text-[12px] text-soft">{whereabouts(spine)}</span>
          <State of={spine.status} />
        </span>
      </span>
    </label>
  );
}
