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
import { choicesFor, EditorsThere, type EditorChoice } from './EditorsThere';
import { EnrolSteps } from './EnrolSteps';
import type { StationSystem } from './model/agent-lines';

interface NewStation {
  name: string;
  person: string;
  system: StationSystem;
}
interface Enrolment {
  station: string;
  code: string;
  system: StationSystem;
}

const systems = { macos: 'macOS', windows: 'Windows', linux: 'Linux' } as const;

export function Enrol({ editors }: { editors: EditorChoice[] }) {
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

function StationForm({ editors, onAdded }: { editors: EditorChoice[]; onAdded: (enrolment: Enrolment) => void }) {
  const { busy, problem, runAndRefresh } = useAction();
  const form = useSchemaForm<NewStation>(stationEndpoints['POST /api/stations'].body, {
    name: '',
    person: '',
    system: 'macos',
  });
  const [ticked, setTicked] = useState<string[]>([]);
  const choices = choicesFor(editors, form.watch('system'));
  const add = (station: NewStation) =>
    runAndRefresh(async () => {
      // what was ticked before another system was chosen is not there
      const there = ticked.filter((id) => choices.some((choice) => choice.id === id));
      const { id, code } = await call('POST /api/stations', { body: { ...station, editors: there } });
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
      <EditorsThere choices={choices} ticked={ticked} onTick={setTicked} />
      <Notice problem={problem} />
      <ModalFoot>
        <button className="button main" disabled={busy}>
          Add and make a code
        </button>
      </ModalFoot>
    </form>
  );
}
