'use client';
/** Brings in what an editor made of a frame, to stand beside Etagere's rendering. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { send } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';

interface Props {
  frames: { id: string; name: string }[];
  labels: string[];
  onClose: () => void;
  onDone: (label: string) => void;
}

const label = 'mb-3 flex flex-col gap-0.5 text-[12px] text-soft';
const field = 'field text-[13.5px] text-ink';

export function ExportDialog({ frames, labels, onClose, onDone }: Props) {
  const [frame, setFrame] = useState(frames[0]?.id ?? '');
  const [typedLabel, setLabel] = useState(labels[0] ?? '');
  const [file, setFile] = useState<File | null>(null);
  const { busy, problem, run } = useAction();
  const bringIn = async () => {
    if (!file) return;
    await send('POST /api/frames/:id/exports', file, { id: frame, query: { label: typedLabel } });
    onDone(typedLabel.trim().replace(/\s+/g, ' '));
  };
  return (
    <Modal title="What an editor makes of a frame" top="16vh" onClose={onClose}>
      <p className="mb-3 text-soft">
        Export the whole frame from the editor as JPEG, PNG or TIFF. Exports of one label are one column.
      </p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void run(bringIn);
        }}
      >
        <label className={label}>
          Frame
          <select className={field} value={frame} onChange={(event) => setFrame(event.target.value)}>
            {frames.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className={label}>
          Label: the editor, and what it was made with
          <input
            className={field}
            list="export-labels"
            value={typedLabel}
            onChange={(event) => setLabel(event.target.value)}
            required
            maxLength={120}
          />
          <datalist id="export-labels">
            {labels.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
        </label>
        <label className={label}>
          Picture
          <input
            type="file"
            accept="image/jpeg,image/png,image/tiff,.tif,.tiff"
            className="text-[13.5px] text-ink"
            required
            onChange={(event) => setFile(event.target.files?.[0] ?? null)}
          />
        </label>
        <Notice problem={problem} className="mb-3" />
        <ModalFoot>
          <button className="button main" disabled={busy || !file}>
            {busy ? 'Sending' : 'Bring it in'}
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}
