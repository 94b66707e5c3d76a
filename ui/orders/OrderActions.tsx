'use client';
/** Makes a standing order, changes it, removes it, and plans what is due by it. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { PlanDue } from './PlanDue';
import { OrderForm, type OrderChoices, type OrderFields } from './OrderForm';

const none: OrderFields = {
  name: '',
  shelves: [],
  packs: [],
  ribbons: false,
  choices: false,
  groups: [],
  stations: [],
};

export function NewOrder({ choices }: { choices: OrderChoices }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button className="button main" onClick={() => setOpen(true)}>
        New standing order
      </button>
      {open && (
        <OrderForm
          title="New standing order"
          choices={choices}
          fields={none}
          onSave={(body) => call('POST /api/orders', { body })}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}

interface Props {
  order: { id: string; revision: number; fields: OrderFields };
  choices: OrderChoices;
  /** how many things are due by it at its stations */ due: number;
}

export function OrderActions({ order: { id, revision, fields }, choices, due }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  const [open, setOpen] = useState<'change' | 'remove' | null>(null);
  const close = () => setOpen(null);
  const remove = async () => {
    if (await runAndRefresh(() => call('DELETE /api/orders/:id', { id }))) close();
  };
  return (
    <div className="ml-auto flex flex-wrap gap-2">
      <button className="button quiet" onClick={() => setOpen('remove')} aria-label={`Remove ${fields.name}`}>
        Remove
      </button>
      <button className="button quiet" onClick={() => setOpen('change')} aria-label={`Change ${fields.name}`}>
        Change
      </button>
      {due > 0 && <PlanDue order={{ id, name: fields.name }} due={due} />}
      <Notice problem={open ? null : problem} className="basis-full" />
      {open === 'change' && (
        <OrderForm
          title={`Change ${fields.name}`}
          choices={choices}
          fields={fields}
          onSave={(body) => call('PATCH /api/orders/:id', { id, body: { ...body, revision } })}
          onClose={close}
        />
      )}
      {open === 'remove' && (
        <Modal title={`Remove ${fields.name}?`} width={420} top="30vh" onClose={close}>
          <p>
            Its stations follow it no longer. What was put there stays where it lies, and is looked after as before.
          </p>
          <Notice problem={problem} className="mt-3" />
          <ModalFoot>
            <button className="button main" disabled={busy} onClick={() => void remove()}>
              Remove it
            </button>
          </ModalFoot>
        </Modal>
      )}
    </div>
  );
}
