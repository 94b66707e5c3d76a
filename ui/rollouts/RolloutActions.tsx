'use client';
import { AlertDialog } from 'radix-ui';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import '../kit/nonce';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

interface Props {
  id: string;
  status: string;
  files: number;
  stations: number;
  isUndo: boolean;
  may: boolean;
}

/** Confirm, drop, undo; each names in numbers what will happen. */
export function RolloutActions({ id, status, files, stations, isUndo, may }: Props) {
  const router = useRouter();
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const act = async (verb: string) => {
    setBusy(true);
    setProblem(null);
    try {
      const r = await call<{ id: string }>(`/api/rollouts/${id}`, 'POST', { verb });
      if (verb === 'drop') router.push('/rollouts');
      else if (r.id !== id) router.push(`/rollouts/${r.id}`);
      else router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
    setBusy(false);
  };
  const sentence = `${files} ${files === 1 ? 'file' : 'files'} on ${stations} ${stations === 1 ? 'station' : 'stations'}`;
  if (!may) return null;
  return (
    <>
      {(status === 'planned' || status === 'planning') && (
        <button className="button quiet danger" disabled={busy} onClick={() => void act('drop')}>
          Drop the plan
        </button>
      )}
      {status === 'planned' && (
        <button className="button main" disabled={busy || !files} onClick={() => void act('confirm')}>
          Confirm: write {sentence}
        </button>
      )}
      {(status === 'done' || status === 'confirmed') && !isUndo && (
        <AlertDialog.Root>
          <AlertDialog.Trigger className="button" disabled={busy || status === 'confirmed'}>
            Undo the rollout
          </AlertDialog.Trigger>
          <AlertDialog.Portal>
            <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
            <AlertDialog.Content
              className="fixed left-1/2 top-1/2 z-50 w-[420px] -translate-x-1/2 -translate-y-1/2 border border-line bg-paper p-6"
              style={{ boxShadow: 'var(--shade)' }}
            >
              <AlertDialog.Title className="mb-2 font-serif text-[20px]">Undo this rollout?</AlertDialog.Title>
              <AlertDialog.Description className="mb-4">
                It takes back {sentence}: what was not there before is removed, what was overwritten comes back. A file
                changed there since is left alone.
              </AlertDialog.Description>
              <div className="flex gap-2">
                <AlertDialog.Action className="button main" onClick={() => void act('undo')}>
                  Take back {sentence}
                </AlertDialog.Action>
                <AlertDialog.Cancel className="button quiet">Cancel</AlertDialog.Cancel>
              </div>
            </AlertDialog.Content>
          </AlertDialog.Portal>
        </AlertDialog.Root>
      )}
      <Notice problem={problem} className="basis-full" />
    </>
  );
}
