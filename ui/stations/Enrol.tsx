'use client';
/** Adds a workstation, then shows how its agent comes onto it. */
import { useState } from 'react';
import { stationEndpoints } from '@/core/api/stations';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { EnrolSteps } from './EnrolSteps';
import type { StationSystem } from './model/agent-lines';

interface Editor {
  id: string;
  title: string;
}
interface NewStation {
  name: string;
  person: string;
  system: StationSystem;
  editors: string[];
}
interface Enrolment {
  station: string;
  code: string;
  system: StationSystem;
}

const systems = { macos: 'macOS', windows: 'Windows', linux: 'Linux' } as const;

export function Enrol({ editors }: { editors: Editor[] }) {
  const [open, setOpen] = useState(false);
  const [enrolment, setEnrolment] = useState<Enrolment | null>(null);
  const close = () => {
    setOpen(false);
    setEnrolment(null);
  };
  return (
    <>
      <button className="button" onClick={() => setOpen(true)}>
        Add a station
      </button>
      {open && (
        <Modal title={enrolment ? 'Enrol its agent' : 'Add a station'} width={enrolment ? 680 : 460} onClose={close}>
          {enrolment ? (
            <>
              <EnrolSteps {...enrolment} />
              <ModalFoot cancel="Done" />
            </>
          ) : (
            <StationForm editors={editors} onAdded={setEnrolment} />
          )}
        </Modal>
      )}
    </>
  );
}

function StationForm({ editors, onAdded }: { editors: Editor[]; onAdded: (enrolment: Enrolment) => void }) {
  const { busy, problem, runAndRefresh } = useAction();
  const form = useSchemaForm<NewStation>(stationEndpoints['POST /api/stations'].body, {
    name: '',
    person: '',
    system: 'macos',
    editors: [],
  });
  const add = (station: NewStation) =>
    runAndRefresh(async () => {
      const { id, code } = await call('POST /api/stations', { body: station });
      onAdded({ station: id, code, system: station.system });
    });
  return (
    <form noValidate className="flex flex-col gap-3" onSubmit={(event) => void form.handleSubmit(add)(event)}>
      <Field label="Name" problem={problemWith(form, 'name')}>
        {(attributes) => <input autoFocus {...attributes} {...form.register('name')} />}
      </Field>
      <Field label="Person" problem={problemWith(form, 'person')}>
        {(attributes) => <input {...attributes} {...form.register('person')} />}
      </Field>
      <Field label="System">
        {(attributes) => (
          <select {...attributes} {...form.register('system')}>
            {Object.entries(systems).map(([system, name]) => (
              <option key={system} value={system}>
                {name}
              </option>
            ))}
          </select>
        )}
      </Field>
      {editors.length > 0 && (
        <fieldset>
          <legend className="mb-1 text-[12px] text-soft">Editors there</legend>
          {editors.map((editor) => (
            <label key={editor.id} className="flex gap-2 py-0.5">
              <input type="checkbox" value={editor.id} {...form.register('editors')} />
              {editor.title}
            </label>
          ))}
        </fieldset>
      )}
      <Notice problem={problem} />
      <ModalFoot>
        <button className="button main" disabled={busy}>
          Add and make a code
        </button>
      </ModalFoot>
    </form>
  );
}
