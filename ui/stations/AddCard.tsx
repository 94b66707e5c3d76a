'use client';
/** A camera's card in the reader of a workstation: its agent writes it as it writes everything else there. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { stationEndpoints } from '@/core/api/stations';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import type { EditorChoice } from './EditorsThere';

interface Props {
  host: { id: string; name: string };
  cameras: readonly EditorChoice[];
}

export function AddCard(props: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button className="button" onClick={() => setOpen(true)}>
        Add a card
      </button>
      {open && <Form {...props} onClose={() => setOpen(false)} />}
    </>
  );
}

function Form({ host, cameras, onClose }: Props & { onClose: () => void }) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const form = useSchemaForm(stationEndpoints['POST /api/stations/:id/card'].body, {
    name: '',
    camera: cameras[0]?.id ?? '',
  });
  const add = (body: { name: string; camera: string }) =>
    run(async () => {
      const { id } = await call('POST /api/stations/:id/card', { id: host.id, body });
      router.push(`/stations/${id}`);
    });
  return (
    <Modal title={`Add a card in the reader of ${host.name}`} onClose={onClose}>
      <form noValidate className="flex flex-col gap-3" onSubmit={(event) => void form.handleSubmit(add)(event)}>
        <Field label="Name" problem={problemWith(form, 'name')}>
          {(attributes) => <input autoFocus {...attributes} {...form.register('name')} />}
        </Field>
        <Field label="Camera that reads it" problem={problemWith(form, 'camera')}>
          {(attributes) => (
            <select {...attributes} {...form.register('camera')}>
              {cameras.map(({ id, title }) => (
                <option key={id} value={id}>
                  {title}
                </option>
              ))}
            </select>
          )}
        </Field>
        <p className="text-soft">
          What is rolled out to the card is written by the agent of {host.name} while the card is in its reader; from
          each rollout it can be taken as a zip, too.
        </p>
        <Notice problem={problem} />
        <ModalFoot>
          <button className="button main" disabled={busy}>
            Add it
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}
