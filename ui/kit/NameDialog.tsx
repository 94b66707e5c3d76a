'use client';
import { named, type Named } from '@/core/api/named';
import { useAction } from './action';
import { Field } from './Field';
import { problemWith, useSchemaForm } from './form';
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

/** Asks for a name and a note; what goes wrong is said there, and nothing typed is lost. */
export function NameDialog({ title, action, name = '', note = '', noNote = false, about, onSave, onClose }: Props) {
  const form = useSchemaForm<Named>(named, { name, note });
  const { busy, problem, run } = useAction();
  const save = (typed: Named) => run(() => onSave(typed.name, typed.note));
  return (
    <Modal title={title} width={420} top="20vh" onClose={onClose}>
      <form noValidate className="flex flex-col gap-2" onSubmit={(event) => void form.handleSubmit(save)(event)}>
        <Field label="Name" problem={problemWith(form, 'name')}>
          {(attributes) => <input autoFocus {...attributes} {...form.register('name')} />}
        </Field>
        {!noNote && (
          <Field label="Note" problem={problemWith(form, 'note')}>
            {(attributes) => <input {...attributes} {...form.register('note')} />}
          </Field>
        )}
        {about && <p className="mb-1 text-[12.5px] text-soft">{about}</p>}
        <Notice problem={problem} className="mb-1" />
        <ModalFoot>
          <button className="button main" disabled={busy}>
            {action}
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}
