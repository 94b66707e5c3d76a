'use client';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

/** Asks for a name and a note; what goes wrong is said there, and nothing typed is lost. */
export function NameDialog({
  title,
  action,
  name = '',
  note = '',
  noNote = false,
  about = '',
  onSave,
  onClose,
}: {
  title: string;
  noNote?: boolean;
  /** what follows from it, in a sentence */ about?: string;
  action: string;
  name?: string;
  note?: string;
  onSave: (name: string, note: string) => Promise<void>;
  onClose: () => void;
}) {
  const [n, setN] = useState(name);
  const [text, setT] = useState(note);
  const [problem, setProblem] = useState<ProblemText | null>(null);
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
          className="fixed left-1/2 top-[20vh] z-50 w-[420px] -translate-x-1/2 border border-line bg-paper p-4"
          style={{ boxShadow: 'var(--shade)' }}
        >
          <Dialog.Title className="mb-2 text-[17px]">{title}</Dialog.Title>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void onSave(n, text).catch((x: unknown) => setProblem(problemOf(x)));
            }}
          >
            <label className="mb-2 flex flex-col gap-0.5 text-[12px] text-soft">
              Name
              <input
                autoFocus
                className="field text-[13.5px] text-ink"
                value={n}
                onChange={(e) => setN(e.target.value)}
                required
                maxLength={120}
              />
            </label>
            {!noNote && (
              <label className="mb-3 flex flex-col gap-0.5 text-[12px] text-soft">
                Note
                <input
                  className="field text-[13.5px] text-ink"
                  value={text}
                  onChange={(e) => setT(e.target.value)}
                  maxLength={300}
                />
              </label>
            )}
            {about && <p className="mb-3 text-[12.5px] text-soft">{about}</p>}
            <Notice problem={problem} className="mb-3" />
            <div className="flex justify-end gap-2">
              <Dialog.Close className="button quiet">Leave it</Dialog.Close>
              <button className="button main">{action}</button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
