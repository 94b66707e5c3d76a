'use client';
/** What a look takes, and what it gives where that is something else. */
import { FormProvider, useFormContext, useWatch, type FieldPath } from 'react-hook-form';
import type { BodyOf } from '@/core/api';
import { versionEndpoints } from '@/core/api/versions';
import { primaryNames, rangeNames, referredNames, transferNames, whiteNames } from '@/core/look/encoding-names';
import type { Encoding, Values } from '@/core/look/look';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';

export type ConfirmedEncoding = BodyOf<'POST /api/versions/:id/encoding'>;
type Fields = Pick<Encoding, 'primaries' | 'transfer' | 'range' | 'referred' | 'white'> & {
  /** null where it gives what it takes */ output: Values | null;
};

interface Props {
  encoding: Encoding;
  busy: boolean;
  onConfirm: (confirmed: ConfirmedEncoding) => void;
  onClose: () => void;
}

const USUAL_OUTPUT: Values = { primaries: 'sRGB', transfer: 'sRGB', range: 'full' };

const fieldsOf = ({ primaries, transfer, range, referred, white, output }: Encoding): Fields => ({
  primaries,
  transfer,
  range,
  referred,
  white,
  output: output ?? null,
});

export function EncodingForm({ encoding, busy, onConfirm, onClose }: Props) {
  const form = useSchemaForm<Fields>(versionEndpoints['POST /api/versions/:id/encoding'].body, fieldsOf(encoding));
  const apart = useWatch({ control: form.control, name: 'output' }) !== null;
  const setApart = (on: boolean) => form.setValue('output', on ? (encoding.output ?? USUAL_OUTPUT) : null);
  return (
    <FormProvider {...form}>
      <form
        noValidate
        className="mt-3 border-t border-line py-3"
        onSubmit={(event) => void form.handleSubmit((fields) => onConfirm(fields))(event)}
      >
        <div className="grid grid-cols-2 gap-x-3 gap-y-2">
          <div className="flex flex-col gap-2">
            <Choice name="primaries" label="Primaries" values={primaryNames} />
            <Choice name="transfer" label="Transfer" values={transferNames} />
            <Choice name="range" label="Range" values={rangeNames} />
          </div>
          <div className="flex flex-col gap-2">{apart ? <Output /> : <Scene />}</div>
          {apart && <Scene />}
        </div>
        <label className="my-2.5 flex items-center gap-2 text-[12.5px]">
          <input type="checkbox" checked={apart} onChange={(event) => setApart(event.target.checked)} />
          the output uses a different encoding
        </label>
        <button className="button main mr-2" disabled={busy}>
          Confirm
        </button>
        <button type="button" className="button quiet" onClick={onClose}>
          Cancel
        </button>
      </form>
    </FormProvider>
  );
}

function Output() {
  return (
    <>
      <Choice name="output.primaries" label="Primaries given" values={primaryNames} />
      <Choice name="output.transfer" label="Transfer given" values={transferNames} />
      <Choice name="output.range" label="Range given" values={rangeNames} />
    </>
  );
}

function Scene() {
  return (
    <>
      <Choice name="referred" label="Referred to" values={referredNames} />
      <Choice name="white" label="White" values={whiteNames} />
    </>
  );
}

interface ChoiceProps {
  name: FieldPath<Fields>;
  label: string;
  values: readonly string[];
}

function Choice({ name, label, values }: ChoiceProps) {
  const form = useFormContext<Fields>();
  return (
    <Field label={label} problem={problemWith(form, name)}>
      {(attributes) => (
        <select {...attributes} className={`${attributes.className} w-full`} {...form.register(name)}>
          {values.map((choice) => (
            <option key={choice}>{choice}</option>
          ))}
        </select>
      )}
    </Field>
  );
}
