'use client';
/** What is asked for less often: a licence that is not listed yet, where each kind goes, the release, the source. */
import type { ReactNode } from 'react';
import { barControl, barLabel } from './bar-classes';
import { NEW, type AcceptForm } from './model/acceptance';

interface Props {
  form: AcceptForm;
  onForm: (part: Partial<AcceptForm>) => void;
  children: ReactNode;
}

const sourceFields = [
  { key: 'address', words: 'Address' },
  { key: 'author', words: 'Author' },
  { key: 'date', words: 'Date' },
  { key: 'receipt', words: 'Receipt' },
];

export function AcceptDetails({ form, onForm, children }: Props) {
  return (
    <div className="mb-3 flex flex-wrap gap-3 border-b border-line pb-3">
      {form.licence === NEW && <NewLicence form={form} onForm={onForm} />}
      {children}
      <label className={barLabel}>
        Release
        <input
          className={barControl}
          value={form.release}
          onChange={(event) => onForm({ release: event.target.value })}
        />
      </label>
      {sourceFields.map(({ key, words }) => (
        <label key={key} className={barLabel}>
          {words}
          <input
            className={barControl}
            type={key === 'date' ? 'date' : 'text'}
            value={form.source[key] ?? ''}
            onChange={(event) => onForm({ source: { ...form.source, [key]: event.target.value } })}
          />
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

function NewLicence({ form, onForm }: Omit<Props, 'children'>) {
  const { newLicence } = form;
  const set = (part: Partial<AcceptForm['newLicence']>) => onForm({ newLicence: { ...newLicence, ...part } });
  const permission = (label: string, key: 'may_convert' | 'may_spread') => (
    <label className={barLabel}>
      {label}
      <select className={barControl} value={newLicence[key]} onChange={(event) => set({ [key]: event.target.value })}>
        {says.map(({ value, words }) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <>
      <label className={barLabel}>
        Name of the licence
        <input className={barControl} value={newLicence.name} onChange={(event) => set({ name: event.target.value })} />
      </label>
      {permission('May be converted', 'may_convert')}
      {permission('May be distributed', 'may_spread')}
    </>
  );
}
