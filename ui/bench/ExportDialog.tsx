'use client';
/** Brings in what an editor made of a frame, to stand beside Etagere's rendering. */
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { problemOf, sendFile, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

interface Props {
  frames: { id: string; name: string }[];
  labels: string[];
  onClose: () => void;
  onDone: (label: string) => void;
}

export function ExportDialog({ frames, labels, onClose, onDone }: Props) {
  const [frame, setFrame] = useState(frames[0]?.id ?? '');
  const [label, setLabel] = useState(labels[0] ?? '');
  const [file, setFile] = useState<File | null>(null);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const send = async () => {
    if (!file) return;
    setBusy(true);
    setProblem(null);
    try {
      await sendFile(`/api/frames/${frame}/exports?label=${encodeURIComponent(label)}`, file);
      onDone(label.trim().replace(/\s+/g, ' '));
    } catch (error) {
      setProblem(problemOf(error));
    } finally {
      setBusy(false);
    }
  };
  const field = 'mb-3 flex flex-col gap-0.5 text-[12px] text-soft';
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
          className="fixed left-1/2 top-[16vh] z-50 w-[460px] max-w-[92vw] -translate-x-1/2 border border-line bg-paper p-4"
          style={{ boxShadow: 'var(--shade)' }}
        >
          <Dialog.Title className="mb-1 text-[17px]">What an editor makes of a frame</Dialog.Title>
          <p className="mb-3 text-soft">
            Export the whole frame from the editor as JPEG, PNG or TIFF. Exports of one label are one column.
          </p>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void send();
            }}
          >
            <label className={field}>
              Frame
              <select className="field text-[13.5px] text-ink" value={frame} onChange={(e) => setFrame(e.target.value)}>
                {frames.map((f) => (
                  <option key={f.id} value={f.id}>
                    {f.name}
                  </option>
                ))}
              </select>
            </label>
            <label className={field}>
              Label: the editor, and what it was made with
              <input
                className="field text-[13.5px] text-ink"
                list="export-labels"
                value={label}
                onChange={(e) => setLabel(e.target.value)}
                required
                maxLength={120}
              />
              <datalist id="export-labels">
                {labels.map((line) => (
                  <option key={line} value={line} />
                ))}
              </datalist>
            </label>
            <label className={field}>
              Picture
              <input
                type="file"
                accept="image/jpeg,image/png,image/tiff,.tif,.tiff"
                className="text-[13.5px] text-ink"
                required
                onChange={(e) => setFile(e.target.files?.[0] ?? null)}
              />
            </label>
            <Notice problem={problem} className="mb-3" />
            <div className="flex justify-end gap-2">
              <Dialog.Close className="button quiet">Leave it</Dialog.Close>
              <button className="button main" disabled={busy || !file}>
                {busy ? 'Sending' : 'Bring it in'}
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
