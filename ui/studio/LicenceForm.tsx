'use client';
/** A licence as a person notes it: new, or changed. */
import { FormProvider, useFormContext } from 'react-hook-form';
import { newLicence, type NewLicence } from '@/core/api/studio';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Notice } from '../kit/Notice';
import { says, type Licence } from './model/licence';

type Fields = Required<NewLicence>;

const empty: Fields = {
  name: '',
  owner: '',
  terms: '',
  may_convert: 'unknown',
  may_spread: 'unknown',
  seats: null,
  seats_by: 'person',
  ends_on: null,
  at_end: 'ask',
};
const countedBy = { person: 'person', device: 'device', site: 'site' };
const ends = { ask: 'ask', remove: 'remove', 'keep results': 'keep results' };

/** Of a licence, what can be changed. */
function fieldsOf(licence: Licence): Fields {
  const { id: _id, items: _items, ...fields } = licence;
  return fields as Fields;
}

export function LicenceForm({ licence, onClose }: { licence: Licence | null; onClose: () => void }) {
  const { busy, problem, runAndRefresh } = useAction();
  const form = useSchemaForm<Fields>(newLicence, licence ? fieldsOf(licence) : empty);
  const save = async (body: Fields) => {
    const send = () =>
      licence ? call('PATCH /api/licences/:id', { id: licence.id, body }) : call('POST /api/licences', { body });
    if (await runAndRefresh(send)) onClose();
  };
  return (
    <FormProvider {...form}>
      <form
        noValidate
        className="mt-3 border border-line bg-sheet p-3"
        onSubmit={(event) => void form.handleSubmit(save)(event)}
      >
        <div className="mb-3 grid grid-cols-4 gap-3">
          <Owner />
          <Terms />
        </div>
        <Notice problem={problem} className="mb-2" />
        <div className="flex justify-end gap-2">
          <button type="button" className="button quiet" onClick={onClose}>
            Cancel
          </button>
          <button className="button main" disabled={busy}>
            Save
          </button>
        </div>
      </form>
    </FormProvider>
  );
}

function Owner() {
  const form = useFormContext<Fields>();
  return (
    <>
      <Field label="Name" className="col-span-2" problem={problemWith(form, 'name')}>
        {(attributes) => <input autoFocus {...attributes} {...form.register('name')} />}
      </Field>
      <Field label="Owner" className="col-span-2" problem={problemWith(form, 'owner')}>
        {(attributes) => <input {...attributes} {...form.register('owner')} />}
      </Field>
      <Field label="Terms" className="col-span-4" problem={problemWith(form, 'terms')}>
        {(attributes) => (
          <textarea
            {...attributes}
            className={`${attributes.className} !h-[58px] py-1.5`}
            {...form.register('terms')}
          />
        )}
      </Field>
    </>
  );
}

const numberOrNull = (text: unknown): number | null => (text === '' || text === null ? null : Number(text));
const textOrNull = (text: unknown): string | null => (text === '' ? null : (text as string | null));

function Terms() {
  const form = useFormContext<Fields>();
  return (
    <>
      <Choice label="May be converted" name="may_convert" words={says} />
      <Choice label="May be distributed" name="may_spread" words={says} />
      <Field label="Seats" problem={problemWith(form, 'seats')}>
        {(attributes) => (
          <input type="number" min={1} {...attributes} {...form.register('seats', { setValueAs: numberOrNull })} />
        )}
      </Field>
      <Choice label="Counted by" name="seats_by" words={countedBy} />
      <Field label="Ends on" problem={problemWith(form, 'ends_on')}>
        {(attributes) => (
          <input type="date" {...attributes} {...form.register('ends_on', { setValueAs: textOrNull })} />
        )}
      </Field>
      <Choice label="At its end" name="at_end" words={ends} />
    </>
  );
}

interface ChoiceProps {
  label: string;
  name: 'may_convert' | 'may_spread' | 'seats_by' | 'at_end';
  /** by value */ words: Record<string, string>;
}

function Choice({ label, name, words }: ChoiceProps) {
  const form = useFormContext<Fields>();
  return (
    <Field label={label} problem={problemWith(form, name)}>
      {(attributes) => (
        <select {...attributes} {...form.register(name)}>
          {Object.entries(words).map(([choice, word]) => (
            <option key={choice} value={choice}>
              {word}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}
