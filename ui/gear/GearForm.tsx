'use client';
/** A camera or a lens of the studio: its names, what tells it apart, and where it fits. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { bodyOf, fieldsOf, type GearFields, type KnownGear } from './model/gear-fields';

export interface Gear extends KnownGear {
  id: string;
}
type Kind = 'camera' | 'lens';

interface Props {
  kind: Kind;
  gear: Gear | null;
  onClose: () => void;
}

export function GearForm({ kind, gear, onClose }: Props) {
  const [fields, setFields] = useState(() => fieldsOf(gear));
  const { busy, problem, runAndRefresh } = useAction();
  const all = kind === 'camera' ? 'cameras' : 'lenses';
  const run = async (work: () => Promise<unknown>) => {
    if (await runAndRefresh(work)) onClose();
  };
  const save = () => {
    const body = bodyOf(kind, fields);
    return run(() =>
      gear ? call(`PUT /api/gear/${all}/:id`, { id: gear.id, body }) : call(`POST /api/gear/${all}`, { body }),
    );
  };
  const takeOff = () => void (gear && run(() => call(`DELETE /api/gear/${all}/:id`, { id: gear.id })));
  return (
    <Modal title={gear ? gear.model : `A ${kind} of the studio`} width={620} top="12vh" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <div className="mb-3 grid grid-cols-4 gap-3">
          <Names fields={fields} onChange={setFields} />
          {kind === 'camera' && <Body fields={fields} onChange={setFields} />}
        </div>
        <Notice problem={problem} className="mb-3" />
        <ModalFoot apart={gear && <TakeOff model={gear.model} busy={busy} onSure={takeOff} />}>
          <button className="button main" disabled={busy}>
            {gear ? 'Save' : 'List it'}
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}

interface Part {
  fields: GearFields;
  onChange: (fields: GearFields) => void;
}

/** What an input of one of the fields needs beside its own rules. */
function bound({ fields, onChange }: Part, name: keyof GearFields) {
  return {
    value: fields[name],
    onChange: (event: { target: { value: string } }) => onChange({ ...fields, [name]: event.target.value }),
  };
}

function Names(part: Part) {
  return (
    <>
      <Field label="Maker">{(field) => <input {...field} {...bound(part, 'maker')} maxLength={80} />}</Field>
      <Field label="Model, as its files name it" className="col-span-3">
        {(field) => <input autoFocus {...field} {...bound(part, 'model')} required maxLength={120} />}
      </Field>
      <Field label="Other names that it bears, with commas" className="col-span-4">
        {(field) => <input {...field} {...bound(part, 'names')} />}
      </Field>
      <Field label="Mount">{(field) => <input {...field} {...bound(part, 'mount')} maxLength={60} />}</Field>
    </>
  );
}

/** What only a camera has. */
function Body(part: Part) {
  const millimeters = { type: 'number', step: 'any', min: 1, max: 200 };
  return (
    <>
      <Field label="Serials of our bodies, with commas" className="col-span-3">
        {(field) => <input {...field} {...bound(part, 'serials')} />}
      </Field>
      <Field label="Conversion, such as infrared; none for a plain body" className="col-span-2">
        {(field) => <input {...field} {...bound(part, 'conversion')} maxLength={60} />}
      </Field>
      <Field label="Sensor width, mm">
        {(field) => <input {...millimeters} {...field} {...bound(part, 'sensor_width')} />}
      </Field>
      <Field label="Sensor height, mm">
        {(field) => <input {...millimeters} {...field} {...bound(part, 'sensor_height')} />}
      </Field>
    </>
  );
}

/** Asks once more before the deed. */
function TakeOff({ model, busy, onSure }: { model: string; busy: boolean; onSure: () => void }) {
  const [asked, setAsked] = useState(false);
  if (!asked)
    return (
      <button type="button" className="button danger" onClick={() => setAsked(true)}>
        Take off the list
      </button>
    );
  return (
    <span className="flex items-center gap-2">
      <button type="button" className="button danger" disabled={busy} onClick={onSure}>
        Take {model} off the list
      </button>
      <span className="text-soft">Requests for it stay.</span>
    </span>
  );
}
