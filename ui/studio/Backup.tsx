'use client';
/** A backup to take away, and one to restore from. */
import { Dialog } from 'radix-ui';
import { useRef, useState } from 'react';
import type { ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

export function Backup() {
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const restore = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const response = await fetch('/api/backup', { method: 'POST', body: file });
      if (response.ok) {
        location.assign('/sign-in');
        return;
      }
      setProblem(((await response.json()) as { error: ProblemText }).error);
      setBusy(false);
    } catch {
      setProblem({
        code: 'offline',
        message: 'The server cannot be reached.',
        where: 'backup',
        remedy: 'Look whether Etagere runs, and try again.',
      });
      setBusy(false);
    }
  };
  return (
    <>
      <p className="mb-2 text-soft">
        Everything that Etagere holds, contents included, as one file; it is made while people work.
      </p>
      <div className="flex gap-2">
        <a className="button" href="/api/backup" download>
          Take a backup
        </a>
        <button className="button danger" onClick={() => input.current?.click()}>
          Restore from a file
        </button>
        <input
          ref={input}
          type="file"
          className="sr-only"
          aria-label="Backup to restore"
          tabIndex={-1}
          onChange={(event) => {
            setFile(event.target.files?.[0] ?? null);
            setProblem(null);
            event.target.value = '';
          }}
        />
      </div>
      <Dialog.Root
        open={!!file}
        onOpenChange={(open) => {
          if (!open && !busy) setFile(null);
        }}
      >
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
          <Dialog.Content
            className="fixed left-1/2 top-[22vh] z-50 w-[460px] -translate-x-1/2 border border-line bg-paper p-4"
            style={{ boxShadow: 'var(--shade)' }}
          >
            <Dialog.Title className="mb-2 text-[17px]">Restore {file?.name}?</Dialog.Title>
            <Dialog.Description className="mb-3">
              All items, versions, contents, people and records become what they were in this file (
              {((file?.size ?? 0) / 1e6).toFixed(1)} MB). What is there now is kept beside it as a database of its own
              until the next restore. Everyone has to sign in again; stations are not touched.
            </Dialog.Description>
            <Notice problem={problem} className="mb-3" />
            <div className="flex justify-end gap-2">
              <Dialog.Close className="button quiet" disabled={busy}>
                Cancel
              </Dialog.Close>
              <button className="button danger" disabled={busy} onClick={() => void restore()}>
                {busy ? 'Restoring' : 'Restore'}
              </button>
            </div>
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </>
  );
}
