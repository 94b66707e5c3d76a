'use client';
/** What each licence allows, and until when; changed in place. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { Notice } from '../kit/Notice';

export interface Licence {
  id: string;
  name: string;
  owner: string;
  terms: string;
  may_convert: string;
  may_spread: string;
  seats: number | null;
  seats_by: string;
  ends_on: string | null;
  at_end: string;
  items: number;
}
const empty = {
  name: '',
  owner: '',
  terms: '',
  may_convert: 'unknown',
  may_spread: 'unknown',
  seats: null as number | null,
  seats_by: 'person',
  ends_on: null as string | null,
  at_end: 'ask',
};
const counted = { person: 'person', device: 'device', site: 'site' };
const ends = { ask: 'ask', remove: 'remove', 'keep results': 'keep results' };
const says: Record<string, string> = { yes: 'yes', no: 'no', unknown: 'not known' };

type Fields = typeof empty;

/** Of a licence, what can be changed. */
function fieldsOf(licence: Licence): Fields {
  const { name, owner, terms, may_convert, may_spread, seats, seats_by, ends_on, at_end } = licence;
  return { name, owner, terms, may_convert, may_spread, seats, seats_by, ends_on, at_end };
}

export function Licences({ licences, may }: { licences: Licence[]; may: boolean }) {
  const [open, setOpen] = useState<Licence | 'new' | null>(null);
  return (
    <>
      {licences.length ? (
        <LicenceTable licences={licences} onChange={may ? setOpen : null} />
      ) : (
        <p className="border-t border-line py-3 text-soft">
          No licence is noted yet. One can be made when an arrival is accepted, or here.
        </p>
      )}
      {may && !open && (
        <button className="button mt-2" onClick={() => setOpen('new')}>
          New licence
        </button>
      )}
      {open && (
        <LicenceForm
          key={open === 'new' ? 'new' : open.id}
          licence={open === 'new' ? null : open}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}

interface TableProps {
  licences: Licence[];
  /** null where the person may not */ onChange: ((licence: Licence) => void) | null;
}

function LicenceTable({ licences, onChange }: TableProps) {
  return (
    <table className="list" aria-label="Licences">
      <thead>
        <tr>
          <th>Licence</th>
          <th>May be converted</th>
          <th>May be spread</th>
          <th>Seats</th>
          <th>Ends</th>
          <th className="text-right">Items</th>
          {onChange && (
            <th>
              <span className="sr-only">Change</span>
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {licences.map((licence) => (
          <tr key={licence.id}>
            <td className="[overflow-wrap:anywhere]">
              <b className="font-serif text-[15px] font-medium">{licence.name}</b>
              <span className="block text-[12px] text-soft">
                {[licence.owner, licence.terms].filter(Boolean).join(': ')}
              </span>
            </td>
            <td className={licence.may_convert === 'unknown' ? 'text-ochre' : ''}>{says[licence.may_convert]}</td>
            <td className={licence.may_spread === 'unknown' ? 'text-ochre' : ''}>{says[licence.may_spread]}</td>
            <td>{licence.seats ? `${licence.seats}, by ${licence.seats_by}` : '–'}</td>
            <td className="whitespace-nowrap">
              {licence.ends_on ?? '–'}
              {licence.ends_on && <span className="block text-[12px] text-soft">then {licence.at_end}</span>}
            </td>
            <td className="text-right">{licence.items}</td>
            {onChange && (
              <td>
                <button className="button" aria-label={`Change ${licence.name}`} onClick={() => onChange(licence)}>
                  Change
                </button>
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function LicenceForm({ licence, onClose }: { licence: Licence | null; onClose: () => void }) {
  const [fields, setFields] = useState<Fields>(licence ? fieldsOf(licence) : empty);
  const { busy, problem, runAndRefresh } = useAction();
  const change = (part: Partial<Fields>) => setFields({ ...fields, ...part });
  const save = async () => {
    const [path, method] = licence
      ? ([`/api/licences/${licence.id}`, 'PATCH'] as const)
      : (['/api/licences', 'POST'] as const);
    if (await runAndRefresh(() => call(path, method, fields))) onClose();
  };
  return (
    <form
      className="mt-3 border border-line bg-sheet p-3"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <div className="mb-3 grid grid-cols-4 gap-3">
        <Owner fields={fields} change={change} />
        <Terms fields={fields} change={change} />
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
  );
}

interface Part {
  fields: Fields;
  change: (part: Partial<Fields>) => void;
}

function Owner({ fields, change }: Part) {
  return (
    <>
      <Field label="Name" className="col-span-2">
        {(field) => (
          <input autoFocus {...field} value={fields.name} onChange={(e) => change({ name: e.target.value })} required />
        )}
      </Field>
      <Field label="Owner" className="col-span-2">
        {(field) => <input {...field} value={fields.owner} onChange={(e) => change({ owner: e.target.value })} />}
      </Field>
      <Field label="Terms" className="col-span-4">
        {(field) => (
          <textarea
            {...field}
            className={`${field.className} !h-[58px] py-1.5`}
            value={fields.terms}
            onChange={(e) => change({ terms: e.target.value })}
          />
        )}
      </Field>
    </>
  );
}

function Terms({ fields, change }: Part) {
  return (
    <>
      <Choice
        label="May be converted"
        value={fields.may_convert}
        words={says}
        onChange={(v) => change({ may_convert: v })}
      />
      <Choice
        label="May be spread"
        value={fields.may_spread}
        words={says}
        onChange={(v) => change({ may_spread: v })}
      />
      <Field label="Seats">
        {(field) => (
          <input
            type="number"
            min={1}
            {...field}
            value={fields.seats ?? ''}
            onChange={(e) => change({ seats: e.target.value ? Number(e.target.value) : null })}
          />
        )}
      </Field>
      <Choice label="Counted by" value={fields.seats_by} words={counted} onChange={(v) => change({ seats_by: v })} />
      <Field label="Ends on">
        {(field) => (
          <input
            type="date"
            {...field}
            value={fields.ends_on ?? ''}
            onChange={(e) => change({ ends_on: e.target.value || null })}
          />
        )}
      </Field>
      <Choice label="At its end" value={fields.at_end} words={ends} onChange={(v) => change({ at_end: v })} />
    </>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  /** by value */ words: Record<string, string>;
  onChange: (value: string) => void;
}

function Choice({ label, value, words, onChange }: ChoiceProps) {
  return (
    <Field label={label}>
      {(field) => (
        <select {...field} value={value} onChange={(event) => onChange(event.target.value)}>
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
