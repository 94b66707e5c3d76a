'use client';
/** What is asked for less often: a licence that is not listed yet, where each kind goes, the release, the source. */
import type { ReactNode } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import { barControl, barLabel } from './bar-classes';
import { NEW, type AcceptForm } from './model/acceptance';

const sourceFields = [
  { key: 'address', words: 'Address', type: 'text' },
  { key: 'author', words: 'Author', type: 'text' },
  { key: 'date', words: 'Date', type: 'date' },
  { key: 'receipt', words: 'Receipt', type: 'text' },
] as const;

export function AcceptDetails({ children }: { children: ReactNode }) {
  const { control, register } = useFormContext<AcceptForm>();
  const licence = useWatch({ control, name: 'licence' });
  return (
    <div className="mb-3 flex flex-wrap gap-3 border-b border-line pb-3">
      {licence === NEW && <NewLicence />}
      {children}
      <label className={barLabel}>
        Release
        <input className={barControl} maxLength={80} {...register('release')} />
      </label>
      {sourceFields.map(({ key, words, type }) => (
        <label key={key} className={barLabel}>
          {words}
          <input className={barControl} type={type} {...register(`source.${key}`)} />
        </label>
      ))}
    </div>
  );
}

const says = [
  { value: 'unknown', words: 'not known' },
  { value: 'yes', words: 'yes' },
  { value: 'no', words: 'no' },
];
const permissions = [
  { name: 'newLicence.may_convert', label: 'May be converted' },
  { name: 'newLicence.may_spread', label: 'May be distributed' },
] as const;

function NewLicence() {
  const { register } = useFormContext<AcceptForm>();
  return (
    <>
      <label className={barLabel}>
        Name of the licence
        <input className={barControl} maxLength={120} {...register('newLicence.name')} />
      </label>
      {permissions.map(({ name, label }) => (
        <label key={name} className={barLabel}>
          {label}
          <select className={barControl} {...register(name)}>
            {says.map(({ value, words }) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </label>
      ))}
    </>
  );
}
