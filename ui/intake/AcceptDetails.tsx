'use client';
/** What is asked for less often: a licence that is not listed yet, where each kind goes, the release, the source. */
import type { ReactNode } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import { origins, sourceParts } from '@/core/item/fields';
import { barControl, barLabel } from './bar-classes';
import { NEW, type AcceptForm } from './model/acceptance';

/** @param papers what the supplier says, beside what is asked */
export function AcceptDetails({ papers, children }: { papers: ReactNode; children: ReactNode }) {
  const { control, register } = useFormContext<AcceptForm>();
  const licence = useWatch({ control, name: 'licence' });
  return (
    <div className="mb-3 grid grid-cols-[repeat(auto-fit,minmax(min(100%,320px),1fr))] gap-4 border-b border-line pb-3">
      <div className="flex flex-wrap content-start gap-3">
        {licence === NEW && <NewLicence />}
        {children}
        <label className={barLabel}>
          Release
          <input className={barControl} maxLength={80} {...register('release')} />
        </label>
        <label className={barLabel}>
          Origin
          <select className={barControl} {...register('origin')}>
            <option value="">bought, or own work</option>
            {origins.map((origin) => (
              <option key={origin}>{origin}</option>
            ))}
          </select>
        </label>
        {sourceParts.map(({ part, label, type }) => (
          <label key={part} className={barLabel}>
            {label}
            <input className={barControl} type={type} {...register(`source.${part}`)} />
          </label>
        ))}
      </div>
      {papers}
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
