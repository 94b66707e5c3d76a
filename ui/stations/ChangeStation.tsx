'use client';
/** What a station is called and whose it is; and its end, which can be taken back. */
import { useState } from 'react';
import { stationEndpoints } from '@/core/api/stations';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';

interface Station {
  id: string;
  name: string;
  person: string;
  retired: boolean;
}
type Fields = Omit<Station, 'id'>;

export function ChangeStation({ station }: { station: Station }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button className="button" onClick={() => setOpen(true)}>
        Change
      </button>
      {open && <Form station={station} onClose={() => setOpen(false)} />}
    </>
  );
}

function Form({ station: { id, ...said }, onClose }: { station: Station; onClose: () => void }) {
  const { busy, problem, runAndRefresh } = useAction();
  const tell = useToast();
  const form = useSchemaForm<Fields>(stationEndpoints['PATCH /api/stations/:id'].body, said);
  const send = (body: Fields) => call('PATCH /api/stations/:id', { id, body });
  const save = async (body: Fields) => {
    if (await runAndRefresh(() => send(body))) onClose();
  };
  const retire = async () => {
    const retired = !said.retired;
    if (!(await runAndRefresh(() => send({ ...said, retired })))) return;
    tell({
      words: retired ? `${said.name} is retired. Its agent is not let in any more.` : `${said.name} is in use again.`,
      undo: () => send(said),
    });
    onClose();
  };
  return (
    <Modal title={`Change ${said.name}`} onClose={onClose}>
      <form noValidate className="flex flex-col gap-3" onSubmit={(event) => void form.handleSubmit(save)(event)}>
        <Field label="Name" problem={problemWith(form, 'name')}>
          {(attributes) => <input autoFocus {...attributes} {...form.register('name')} />}
        </Field>
        <Field label="Person" problem={problemWith(form, 'person')}>
          {(attributes) => <input {...attributes} {...form.register('person')} />}
        </Field>
        {!said.retired && (
          <p className="text-soft">
            A retired station gets nothing any more, and its agent is not let in; what lies there stays, and so does its
            history. When it is brought back, its agent is enrolled anew.
          </p>
        )}
        <Notice problem={problem} />
        <ModalFoot
          apart={
            <button type="button" className="button danger" disabled={busy} onClick={() => void retire()}>
              {said.retired ? 'Bring it back' : 'Retire it'}
            </button>
          }
        >
          <button className="button main" disabled={busy}>
            Save
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}
