'use client';
/** The trim that a verdict has kept with an item; it can be forgotten. */
import type { Trim } from '@/core/bench/measure';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';

const parts = ['slope', 'offset', 'power'] as const;
const plain = { slope: 1, offset: 0, power: 1 } as const;

/** The parts that change something, by red, green and blue. */
export const trimWords = (trim: Trim): string =>
  parts
    .filter((part) => trim[part].some((value) => value !== plain[part]))
    .map((part) => `${part} ${trim[part].map((value) => Number(value.toFixed(3))).join(' ')}`)
    .join(', ') || 'changes nothing';

export function KeptTrim({ itemId, trim, mayEdit }: { itemId: string; trim: Trim; mayEdit: boolean }) {
  const { busy, problem, runAndRefresh } = useAction();
  const tell = useToast();
  const forget = async () => {
    if (await runAndRefresh(() => call('DELETE /api/items/:id/trim', { id: itemId })))
      tell({ words: 'The trim is forgotten; the verdict that kept it stays.' });
  };
  return (
    <>
      {trimWords(trim)} <span className="text-soft">laid with it on the bench</span>
      {mayEdit && (
        <button className="ml-2 underline" disabled={busy} onClick={() => void forget()}>
          Forget it
        </button>
      )}
      <Notice problem={problem} />
    </>
  );
}
