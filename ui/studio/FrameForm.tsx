'use client';
import { frameWords, type FrameWords } from '@/core/api/frames';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import type { FrameInStudio } from './Frames';

const fields = [
  ['name', 'Name'],
  ['light', 'Light'],
  ['subject', 'What it shows'],
] as const satisfies readonly (readonly [keyof FrameWords, string])[];

/** What a frame is called, and by what it is grouped here and on the bench. */
export function FrameForm({ frame, onClose }: { frame: FrameInStudio; onClose: () => void }) {
  const { id, name, light, subject } = frame;
  const form = useSchemaForm<FrameWords>(frameWords, { name, light, subject });
  const { busy, problem, runAndRefresh } = useAction();
  const save = async (body: FrameWords) => {
    if (await runAndRefresh(() => call('PATCH /api/frames/:id', { id, body }))) onClose();
  };
  return (
    <Modal title={`Change ${name}`} width={420} top="20vh" onClose={onClose}>
      <form noValidate className="flex flex-col gap-2" onSubmit={(event) => void form.handleSubmit(save)(event)}>
        {fields.map(([field, label]) => (
          <Field key={field} label={label} problem={problemWith(form, field)}>
            {(attributes) => <input autoFocus={field === 'name'} {...attributes} {...form.register(field)} />}
          </Field>
        ))}
        <p className="text-[12.5px] text-soft">
          Frames of one light or subject are laid on the bench together; house choices go by the light.
        </p>
        <Notice problem={problem} />
        <ModalFoot>
          <button className="button main" disabled={busy}>
            Save
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}
