'use client';
/** The head of a row: the frame, its camera and light, and by what it is balanced. */
import type { ChoiceOnBench } from '@/core/bench/choice';
import type { WhiteBalance } from '@/core/bench/white-balance';
import { bodyOf } from '@/core/frame/body';
import { thousands } from '../kit/words';
import type { Rendered } from './hooks/pool';
import type { FrameOnBench } from './model/frame';
import { WhiteField } from './WhiteField';

interface Props {
  frame: FrameOnBench;
  white: WhiteBalance;
  /** the white that its cells came to */ seen: Rendered['white'];
  picking: boolean;
  /** the profile that most frames of this camera came with, where this one came with another */ most: string | null;
  /** the house choice for its case */ choice: ChoiceOnBench | null;
  onWhite: (white: WhiteBalance) => void;
  onPick: () => void;
  onRemove: () => void;
  onAnchor: () => void;
  onUp: () => void;
  onChart: (() => void) | null;
  onChoice: (choice: ChoiceOnBench) => void;
}

export function RowHead(props: Props) {
  const { frame, white, seen, picking, onChart, onUp, onRemove } = props;
  return (
    <div className="min-w-0 pr-2 text-[12px]" data-row={frame.name}>
      <h3 className="font-sans text-[13.5px] font-semibold leading-tight tracking-normal [overflow-wrap:anywhere]">
        {frame.name}
      </h3>
      <FrameFacts frame={frame} most={props.most} />
      <HouseChoice choice={props.choice} onChoice={props.onChoice} />
      <WhiteField frame={frame} white={white} seen={seen} onWhite={props.onWhite} onPick={props.onPick} />
      {picking && (
        <p className="mt-1 font-medium text-verd" role="status">
          Click something gray in this row.
        </p>
      )}
      <SeenWhite seen={seen} typed={white.by === 'temperature'} onAnchor={props.onAnchor} />
      <p className="mt-0.5 flex gap-2">
        {onChart && (
          <RowButton
            words={frame.chart_id ? 'target' : 'chart'}
            label={`The chart in ${frame.name}`}
            onClick={onChart}
          />
        )}
        <RowButton words="up" label={`Move ${frame.name} up`} onClick={onUp} />
        <RowButton words="take off" label={`Take ${frame.name} off`} onClick={onRemove} />
      </p>
    </div>
  );
}

function FrameFacts({ frame, most }: { frame: FrameOnBench; most: string | null }) {
  const kind = frame.file_kind === 'camera data' ? '' : 'rendered';
  return (
    <>
      <p className="text-soft">{[bodyOf(frame), frame.light, kind].filter(Boolean).join(', ')}</p>
      {frame.profile && !most && <p className="text-soft">came with {frame.profile}</p>}
      {most && (
        <p className="font-semibold leading-snug text-ochre">
          came with {frame.profile}, most with {most}
        </p>
      )}
      {frame.conversion && <p className="text-soft">recognized by its serial number, {frame.serial}</p>}
    </>
  );
}

function HouseChoice({ choice, onChoice }: Pick<Props, 'choice' | 'onChoice'>) {
  if (!choice) return null;
  const look = choice.look && `${choice.look} ${choice.strength} %`;
  return (
    <p className="leading-snug text-soft">
      house choice{choice.client ? ` for ${choice.client}` : ''}:{' '}
      <button className="underline" onClick={() => onChoice(choice)}>
        {[choice.profile, look].filter(Boolean).join(' + ')}
      </button>
    </p>
  );
}

interface SeenProps {
  seen: Rendered['white'];
  /** the temperature was typed, and stands in its field already */ typed: boolean;
  onAnchor: () => void;
}

function SeenWhite({ seen, typed, onAnchor }: SeenProps) {
  if (!seen) return null;
  return (
    <>
      {!typed && (
        <p className="mt-0.5 text-soft">
          {thousands(seen.kelvin)} K, tint {seen.tint.toFixed(0)}
        </p>
      )}
      {!seen.reachable && (
        <p className="mt-1 leading-snug text-madder">
          No temperature reaches this neutral.{' '}
          <button className="underline" onClick={onAnchor}>
            Show anchored at 5,000 K
          </button>
        </p>
      )}
    </>
  );
}

function RowButton({ words, label, onClick }: { words: string; label: string; onClick: () => void }) {
  return (
    <button className="text-soft underline" onClick={onClick} aria-label={label}>
      {words}
    </button>
  );
}
