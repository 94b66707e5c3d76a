'use client';
/** Brings in what an editor made of a frame, to stand beside Etagere's rendering. */
import { mixed, object, string } from 'yup';
import { exportLabel } from '@/core/api/bench';
import { useAction } from '../kit/action';
import { send } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';

interface Props {
  frames: { id: string; name: string }[];
  labels: string[];
  onClose: () => void;
  onDone: (label: string) => void;
}
interface Fields {
  frame: string;
  label: string;
  picture: FileList | null;
}

const fields = object({
  frame: string().required('There is no frame on the bench.'),
  label: exportLabel,
  picture: mixed<FileList>()
    .nullable()
    .test('chosen', 'Choose the picture.', (files) => Boolean(files?.length)),
});

export function ExportDialog({ frames, labels, onClose, onDone }: Props) {
  const form = useSchemaForm<Fields>(fields, { frame: frames[0]?.id ?? '', label: labels[0] ?? '', picture: null });
  const { busy, problem, run } = useAction();
  const bringIn = async ({ frame, label, picture }: Fields) => {
    const file = picture?.[0];
    if (!file) return;
    await send('POST /api/frames/:id/exports', file, { id: frame, query: { label } });
    onDone(label.replace(/\s+/g, ' '));
  };
  return (
    <Modal title="What an editor makes of a frame" top="16vh" onClose={onClose}>
      <p className="mb-3 text-soft">
        Export the whole frame from the editor as JPEG, PNG or TIFF. Exports of one label are one column.
      </p>
      <form
        noValidate
        className="flex flex-col gap-3"
        onSubmit={(event) => void form.handleSubmit((typed) => run(() => bringIn(typed)))(event)}
      >
        <Field label="Frame" problem={problemWith(form, 'frame')}>
          {(attributes) => (
            <select {...attributes} {...form.register('frame')}>
              {frames.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Label: the editor, and what it was made with" problem={problemWith(form, 'label')}>
          {(attributes) => <input list="export-labels" {...attributes} {...form.register('label')} />}
        </Field>
        <datalist id="export-labels">
          {labels.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
        <Field label="Picture" problem={problemWith(form, 'picture')}>
          {({ className: _asField, ...attributes }) => (
            <input
              type="file"
              accept="image/jpeg,image/png,image/tiff,.tif,.tiff"
              className="text-[13.5px] text-ink"
              {...attributes}
              {...form.register('picture')}
            />
          )}
        </Field>
        <Notice problem={problem} className="mb-1" />
        <ModalFoot>
          <button className="button main" disabled={busy}>
            {busy ? 'Sending' : 'Bring it in'}
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}
