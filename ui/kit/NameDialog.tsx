'use client';
import { useState } from 'react';
import { useAction } from './action';
import { Modal, ModalFoot } from './Modal';
import { Notice } from './Notice';

interface Props {
  title: string;
  action: string;
  name?: string;
  note?: string;
  noNote?: boolean;
  /** what follows from it, in a sentence */ about?: string;
  onSave: (name: string, note: string) => Promise<void>;
  onClose: () => void;
}

const label = 'mb-2 flex flex-col gap-0.5 text-[12px] text-soft';

/** Asks for a name and a note; what goes wrong is said there, and nothing typed is lost. */
export function NameDialog({ title, action, name = '', note = '', noNote = false, about, onSave, onClose }: Props) {
  const [typedName, setName] = useState(name);
  const [typedNote, setNote] = useState(note);
  const { busy, problem, run } = useAction();
  return (
    <Modal title={title} width={420} top="20vh" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void run(() => onSave(typedName, typedNote));
        }}
      >
        <label className={label}>
          Name
          <input
            autoFocus
            className="field text-[13.5px] text-ink"
            value={typedName}
            onChange={(event) => setName(event.target.value)}
            required
            maxLength={120}
          />
        </label>
        {!noNote && (
          <label className={label}>
            Note
            <input
              className="field text-[13.5px] text-ink"
              value={typedNote}
              onChange={(event) => setNote(event.target.value)}
              maxLength={300}
            />
          </label>
        )}
        {about && <p className="mb-3 text-[12.5px] text-soft">{about}</p>}
        <Notice problem={problem} className="mb-3" />
        <ModalFoot>
          <button className="button main" disabled={busy}>
            {action}
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}
