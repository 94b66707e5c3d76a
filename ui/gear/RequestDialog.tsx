'use client';
/** Notes that something is missing for a camera or a lens, and of whom it is asked. */
import { Dialog } from 'radix-ui';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { wishes } from '@/core/records/coverage';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

export interface Asking {
  camera: string | null;
  lens: string | null;
  about: string;
  wanted: string;
  askedOf: string;
}
const label = 'flex flex-col gap-0.5 text-[12px] text-soft';
const control = 'field text-[13.5px] text-ink';

export function RequestDialog({
  about,
  suppliers,
  onClose,
}: {
  about: Asking;
  /** whom one can ask, offered while typing */ suppliers: string[];
  onClose: () => void;
}) {
  const router = useRouter();
  const [f, setF] = useState({ ...about, note: '' });
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const set = (k: 'about' | 'wanted' | 'askedOf' | 'note') => (e: { target: { value: string } }) =>
    setF({ ...f, [k]: e.target.value });
  const save = async () => {
    setBusy(true);
    setProblem(null);
    try {
      await call('/api/gear/requests', 'POST', f);
      router.refresh();
      onClose();
    } catch (error) {
      setProblem(problemOf(error));
    }
    setBusy(false);
  };
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[16vh] z-50 w-[480px] max-w-[94vw] -translate-x-1/2 border border-line bg-paper p-4"
          style={{ boxShadow: 'var(--shade)' }}
        >
          <Dialog.Title className="mb-2 text-[17px]">Ask for what is missing</Dialog.Title>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void save();
            }}
          >
            <label className={`${label} mb-2`}>
              Camera or lens
              <input
                autoFocus={!about.about}
                className={control}
                value={f.about}
                onChange={set('about')}
                readOnly={!!(f.camera ?? f.lens)}
                required
                maxLength={160}
              />
            </label>
            <label className={`${label} mb-2`}>
              What is wanted
              <select className={control} value={f.wanted} onChange={set('wanted')}>
                {wishes.map((w) => (
                  <option key={w}>{w}</option>
                ))}
              </select>
            </label>
            <label className={`${label} mb-2`}>
              Asked of
              <input
                className={control}
                list="asked-of"
                value={f.askedOf}
                onChange={set('askedOf')}
                maxLength={120}
                placeholder="a supplier, or the maker of an editor"
              />
            </label>
            <datalist id="asked-of">
              {suppliers.map((text) => (
                <option key={text} value={text} />
              ))}
            </datalist>
            <label className={`${label} mb-3`}>
              Note
              <textarea
                className={`${control} !h-[58px] py-1.5`}
                value={f.note}
                onChange={set('note')}
                maxLength={2000}
              />
            </label>
            <Notice problem={problem} className="mb-3" />
            <div className="flex justify-end gap-2">
              <Dialog.Close className="button quiet" type="button">
                Cancel
              </Dialog.Close>
              <button className="button main" disabled={busy}>
                Note the request
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
