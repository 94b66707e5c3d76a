'use client';
/** Notes that something is missing for a camera or a lens, and of whom it is asked. */
import { gearEndpoints } from '@/core/api/gear';
import { wishes } from '@/core/records/coverage';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';

type Wish = (typeof wishes)[number];

export interface Asking {
  camera: string | null;
  lens: string | null;
  about: string;
  wanted: Wish;
  askedOf: string;
}
type Request = Asking & { note: string };

interface Props {
  about: Asking;
  /** whom one can ask, offered while typing */ suppliers: string[];
  onClose: () => void;
}

export function RequestDialog({ about, suppliers, onClose }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  const form = useSchemaForm<Request>(gearEndpoints['POST /api/gear/requests'].body, { ...about, note: '' });
  const save = async (request: Request) => {
    if (await runAndRefresh(() => call('POST /api/gear/requests', { body: request }))) onClose();
  };
  return (
    <Modal title="Ask for what is missing" width={480} top="16vh" onClose={onClose}>
      <form noValidate className="flex flex-col gap-2" onSubmit={(event) => void form.handleSubmit(save)(event)}>
        <Field label="Camera or lens" problem={problemWith(form, 'about')}>
          {(attributes) => (
            <input
              autoFocus={!about.about}
              readOnly={!!(about.camera ?? about.lens)}
              {...attributes}
              {...form.register('about')}
            />
          )}
        </Field>
        <Field label="What is wanted" problem={problemWith(form, 'wanted')}>
          {(attributes) => (
            <select {...attributes} {...form.register('wanted')}>
              {wishes.map((wish) => (
                <option key={wish}>{wish}</option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Asked of" problem={problemWith(form, 'askedOf')}>
          {(attributes) => (
            <input
              list="asked-of"
              placeholder="a supplier, or the maker of an editor"
              {...attributes}
              {...form.register('askedOf')}
            />
          )}
        </Field>
        <datalist id="asked-of">
          {suppliers.map((supplier) => (
            <option key={supplier} value={supplier} />
          ))}
        </datalist>
        <Field label="Note" problem={problemWith(form, 'note')}>
          {(attributes) => (
            <textarea
              {...attributes}
              className={`${attributes.className} !h-[58px] py-1.5`}
              {...form.register('note')}
            />
          )}
        </Field>
        <Notice problem={problem} className="mt-1" />
        <ModalFoot>
          <button className="button main" disabled={busy}>
            Note the request
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}
