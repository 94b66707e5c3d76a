'use client';
/** A camera or a lens of the studio: its names, what tells it apart, and where it fits. */
import { useState } from 'react';
import { FormProvider, useFormContext } from 'react-hook-form';
import type { BodyOf } from '@/core/api';
import { gearEndpoints } from '@/core/api/gear';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useWrittenForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { bodyOf, fieldsOf, type GearFields, type KnownGear } from './model/gear-fields';

export interface Gear extends KnownGear {
  id: string;
}
type Kind = 'camera' | 'lens';
type Body = BodyOf<'POST /api/gear/cameras'>;

interface Props {
  kind: Kind;
  gear: Gear | null;
  onClose: () => void;
}

export function GearForm({ kind, gear, onClose }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  const form = useWrittenForm<GearFields, Body>(
    gearEndpoints[kind === 'camera' ? 'POST /api/gear/cameras' : 'POST /api/gear/lenses'].body,
    (fields) => bodyOf(kind, fields),
    fieldsOf(gear),
  );
  const all = kind === 'camera' ? 'cameras' : 'lenses';
  const run = async (work: () => Promise<unknown>) => {
    if (await runAndRefresh(work)) onClose();
  };
  const save = (body: Body) =>
    run(() =>
      gear ? call(`PUT /api/gear/${all}/:id`, { id: gear.id, body }) : call(`POST /api/gear/${all}`, { body }),
    );
  const takeOff = () => void (gear && run(() => call(`DELETE /api/gear/${all}/:id`, { id: gear.id })));
  return (
    <Modal title={gear ? gear.model : `A ${kind} of the studio`} width={620} top="12vh" onClose={onClose}>
      <FormProvider {...form}>
        <form noValidate onSubmit={(event) => void form.handleSubmit(save)(event)}>
          <div className="mb-3 grid grid-cols-4 gap-3">
            <Names />
            {kind === 'camera' && <OfCamera />}
          </div>
          <Notice problem={problem} className="mb-3" />
          <ModalFoot apart={gear && <TakeOff model={gear.model} busy={busy} onSure={takeOff} />}>
            <button className="button main" disabled={busy}>
              {gear ? 'Save' : 'List it'}
            </button>
          </ModalFoot>
        </form>
      </FormProvider>
    </Modal>
  );
}

interface TypedProps {
  name: keyof GearFields;
  label: string;
  className?: string;
  autoFocus?: boolean;
}

function Typed({ name, label, className, autoFocus = false }: TypedProps) {
  const form = useFormContext<GearFields>();
  return (
    <Field label={label} className={className} problem={problemWith(form, name)}>
      {(attributes) => <input autoFocus={autoFocus} {...attributes} {...form.register(name)} />}
    </Field>
  );
}

function Names() {
  return (
    <>
      <Typed name="maker" label="Maker" />
      <Typed name="model" label="Model, as its files name it" className="col-span-3" autoFocus />
      <Typed name="names" label="Other names that it bears, with commas" className="col-span-4" />
      <Typed name="mount" label="Mount" />
    </>
  );
}

/** What only a camera has. */
function OfCamera() {
  return (
    <>
      <Typed name="serials" label="Serials of our bodies, with commas" className="col-span-3" />
      <Typed name="conversion" label="Conversion, such as infrared; none for a plain body" className="col-span-2" />
      <Typed name="sensor_width" label="Sensor width, mm" />
      <Typed name="sensor_height" label="Sensor height, mm" />
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
