'use client';
/** The fields of an item as a form, as their definitions say. */
import type { ReactNode } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import {
  itemFieldNames,
  itemFields,
  scopeInputs,
  scopeResults,
  sourceParts,
  type ItemField,
  type ItemFieldName,
} from '@/core/item/fields';
import { Field } from '../kit/Field';
import type { EditForm } from './model/edit-form';

interface Props {
  licences: { id: string; name: string }[];
}

const spans = { 1: '', 2: 'col-span-2', 4: 'col-span-4' } as const;
const strengths: readonly ItemFieldName[] = ['strength_least', 'strength_usual', 'strength_most'];

export function ItemFields({ licences }: Props) {
  return (
    <div className="mb-3 grid grid-cols-4 gap-3">
      {itemFieldNames.map((name) => {
        if (name === 'scope') return <ScopeFields key={name} />;
        if (name === 'source') return <SourceFields key={name} />;
        if (name === 'strength_least') return <TakesStrength key={name} />;
        return strengths.includes(name) ? null : <OneField key={name} name={name} licences={licences} />;
      })}
    </div>
  );
}

function OneField({ name, licences }: Props & { name: ItemFieldName }) {
  const { register, formState } = useFormContext<EditForm>();
  const field: ItemField = itemFields[name];
  return (
    <Field label={field.label} className={spans[field.span]} problem={formState.errors[name]?.message}>
      {(attributes) => <Control field={field} licences={licences} {...attributes} {...register(name)} />}
    </Field>
  );
}

type Registered = ReturnType<ReturnType<typeof useFormContext<EditForm>>['register']>;

function Control({ field, licences, ...input }: Props & Registered & { field: ItemField; className: string }) {
  const { shape } = field;
  switch (shape.is) {
    case 'text':
      return <textarea {...input} className={`${input.className} !h-[58px] py-1.5`} />;
    case 'whole':
      return <input {...input} type="number" min={shape.least} max={shape.most} />;
    case 'choice':
      return (
        <select {...input}>
          {shape.of.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      );
    case 'licence':
      return (
        <select {...input}>
          <option value="">none noted</option>
          {licences.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      );
    default:
      return <input {...input} />;
  }
}

const Options = ({ any, of }: { any: string; of: readonly string[] }): ReactNode => (
  <>
    <option value="">{any}</option>
    {of.map((one) => (
      <option key={one}>{one}</option>
    ))}
  </>
);

function ScopeFields() {
  const { register } = useFormContext<EditForm>();
  return (
    <>
      <Field label="Works on">
        {(attributes) => (
          <select {...attributes} {...register('scope.input' as 'scope')}>
            <Options any="any input" of={scopeInputs} />
          </select>
        )}
      </Field>
      <Field label="Gives">
        {(attributes) => (
          <select {...attributes} {...register('scope.result' as 'scope')}>
            <Options any="color or monochrome" of={scopeResults} />
          </select>
        )}
      </Field>
    </>
  );
}

function SourceFields() {
  const { register } = useFormContext<EditForm>();
  return sourceParts.map(({ part, label, most, type }) => (
    <Field key={part} label={label} className={part === 'access' ? 'col-span-2' : ''}>
      {(attributes) => (
        <input {...attributes} type={type} maxLength={most} {...register(`source.${part}` as 'source')} />
      )}
    </Field>
  ));
}

/** Whether an item takes a strength, and from where to where; what takes none is as made, at 100 %. */
function TakesStrength() {
  const { register, setValue, formState } = useFormContext<EditForm>();
  const [least, most] = useWatch<EditForm>({ name: ['strength_least', 'strength_most'] }) as [unknown, unknown];
  const fixed = String(least) === String(most);
  const set = (takes: boolean) => {
    setValue('strength_least', takes ? 0 : 100);
    if (!takes) setValue('strength_usual', 100);
    setValue('strength_most', takes ? 150 : 100);
  };
  return (
    <>
      <label className="flex items-center gap-2 self-end pb-1.5">
        <input type="checkbox" checked={!fixed} onChange={(event) => set(event.target.checked)} />
        Takes a strength
      </label>
      {strengths.map((name) => (
        <Field key={name} label={itemFields[name].label} problem={formState.errors[name]?.message}>
          {(attributes) => <input {...attributes} {...register(name)} type="number" readOnly={fixed} />}
        </Field>
      ))}
    </>
  );
}
