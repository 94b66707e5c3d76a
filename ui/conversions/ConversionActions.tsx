'use client';
/** Start, pause, stop, try again; each names in numbers what will happen. */
import { useRouter } from 'next/navigation';
import type { ConversionVerb } from '@/core/api/conversions';
import { useAction } from '../kit/action';
import { useApprove } from '../kit/approve';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';

interface Props {
  id: string;
  status: 'planning' | 'planned' | 'running' | 'paused' | 'done' | 'stopped';
  /** rows that will be made */ going: number;
  failed: number;
  /** items that were made and are drafts */ drafts: string[];
  may: { convert: boolean; approve: boolean };
}

export function ConversionActions({ id, status, going, failed, drafts, may }: Props) {
  const router = useRouter();
  const action = useAction();
  const approve = useApprove(action);
  const act = (verb: ConversionVerb) =>
    void action.run(async () => {
      await call('POST /api/conversions/:id', { id, body: { verb } });
      if (verb === 'drop') router.push('/convert');
      else router.refresh();
    });
  const isOpen = status === 'planning' || status === 'planned';
  const isOver = status === 'done' || status === 'stopped';
  return (
    <>
      {may.convert && (
        <>
          {isOpen && <Act words="Drop the plan" tone="quiet danger" off={action.busy} onPress={() => act('drop')} />}
          {status === 'planned' && (
            <Act
              words={going ? `Make ${counted(going, 'item')}` : 'Nothing to make'}
              tone="main"
              off={action.busy || !going}
              onPress={() => act('start')}
            />
          )}
          {status === 'running' && <Act words="Pause" off={action.busy} onPress={() => act('pause')} />}
          {(status === 'running' || status === 'paused') && (
            <Act words="Stop for good" tone="quiet danger" off={action.busy} onPress={() => act('stop')} />
          )}
          {status === 'paused' && going > 0 && (
            <Act
              words={`Go on with ${counted(going, 'item')}`}
              tone="main"
              off={action.busy}
              onPress={() => act('start')}
            />
          )}
          {(isOver || status === 'paused') && failed > 0 && (
            <Act words={`Try ${counted(failed, 'item')} again`} off={action.busy} onPress={() => act('retry')} />
          )}
        </>
      )}
      {may.approve && isOver && drafts.length > 0 && (
        <Act
          words={`Approve ${counted(drafts.length, 'draft')}`}
          tone="main"
          off={action.busy}
          onPress={() => void approve(drafts)}
        />
      )}
      <Notice problem={action.problem} className="basis-full" />
    </>
  );
}

interface ActProps {
  words: string;
  tone?: string;
  off: boolean;
  onPress: () => void;
}
const Act = ({ words, tone = '', off, onPress }: ActProps) => (
  <button className={`button ${tone}`} disabled={off} onClick={onPress}>
    {words}
  </button>
);
