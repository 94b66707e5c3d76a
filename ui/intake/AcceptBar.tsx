'use client';
/** Where an arrival goes, from whom it is, and under which licence: the bar that settles it. */
import { useState } from 'react';
import { kindWords } from '../shelves/model/spine';
import { barControl, barLabel } from './bar-classes';
import { AcceptDetails } from './AcceptDetails';
import { acceptanceOf, isComplete, NEW, type Acceptance, type AcceptForm } from './model/acceptance';
import { shelfOfKind } from './model/usual-shelf';

interface Named {
  id: string;
  name: string;
}
interface Props {
  /** the shelf that is offered first */ usual: string | null;
  /** of what is new, the commonest first */ kinds: string[];
  takeable: number;
  left: number;
  shelves: Named[];
  licences: Named[];
  supplier: string;
  busy: boolean;
  onAccept: (acceptance: Acceptance) => void;
  onDiscard: () => void;
}

export function AcceptBar(props: Props) {
  const { usual, kinds, takeable, left, shelves, licences, busy, onAccept, onDiscard } = props;
  const others = kinds.slice(1);
  const [form, setForm] = useState<AcceptForm>(() => ({
    shelf: usual ?? NEW,
    newShelf: '',
    byKind: Object.fromEntries(others.map((kind) => [kind, shelfOfKind(shelves, kind) ?? ''])),
    supplier: props.supplier,
    release: '',
    licence: '',
    newLicence: { name: '', may_convert: 'unknown', may_spread: 'unknown' },
    source: {},
  }));
  const [open, setOpen] = useState(kinds.length > 2);
  const change = (part: Partial<AcceptForm>) => setForm({ ...form, ...part });
  const count = takeable - left;
  const byKind = <ShelvesByKind kinds={others} form={form} shelves={shelves} onForm={change} />;
  return (
    <div className="sticky bottom-0 -mx-6 mt-auto border-t border-line bg-sheet px-6 py-3">
      {open && (
        <AcceptDetails form={form} onForm={change}>
          {kinds.length > 2 && byKind}
        </AcceptDetails>
      )}
      <div className="flex flex-wrap items-end gap-3">
        <ShelfField form={form} shelves={shelves} onForm={change} />
        {kinds.length === 2 && byKind}
        <label className={barLabel}>
          Supplier
          <input
            className={`${barControl} w-[120px]`}
            value={form.supplier}
            onChange={(event) => change({ supplier: event.target.value })}
            placeholder="own work"
          />
        </label>
        <LicenceField
          form={form}
          licences={licences}
          onLicence={(licence) => {
            change({ licence });
            if (licence === NEW) setOpen(true);
          }}
        />
        <button className="button quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Less' : 'Source'}
        </button>
        <button className="button danger ml-auto" disabled={busy} onClick={onDiscard}>
          Discard the arrival
        </button>
        <button
          className="button main"
          disabled={busy || count < 1 || !isComplete(form)}
          onClick={() => onAccept(acceptanceOf(form))}
        >
          Accept {count.toLocaleString('en')} {left === 0 ? 'as proposed' : `of ${takeable.toLocaleString('en')}`}
        </button>
      </div>
    </div>
  );
}

interface Part {
  form: AcceptForm;
  onForm: (part: Partial<AcceptForm>) => void;
}

function ShelfField({ form, shelves, onForm }: Part & { shelves: Named[] }) {
  return (
    <>
      <label className={barLabel}>
        Shelf
        <select
          className={`${barControl} w-[168px]`}
          value={form.shelf}
          onChange={(event) => onForm({ shelf: event.target.value })}
        >
          {shelves.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
          <option value={NEW}>a new shelf</option>
        </select>
      </label>
      {form.shelf === NEW && (
        <label className={barLabel}>
          Its name
          <input
            className={barControl}
            value={form.newShelf}
            onChange={(event) => onForm({ newShelf: event.target.value })}
          />
        </label>
      )}
    </>
  );
}

function ShelvesByKind({ kinds, form, shelves, onForm }: Part & { kinds: string[]; shelves: Named[] }) {
  return kinds.map((kind) => (
    <label key={kind} className={barLabel}>
      {kindWords[kind] ?? kind}s on
      <select
        className={`${barControl} w-[132px]`}
        value={form.byKind[kind] ?? ''}
        onChange={(event) => onForm({ byKind: { ...form.byKind, [kind]: event.target.value } })}
      >
        <option value="">with the rest</option>
        {shelves.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  ));
}

interface LicenceProps {
  form: AcceptForm;
  licences: Named[];
  onLicence: (licence: string) => void;
}

function LicenceField({ form, licences, onLicence }: LicenceProps) {
  return (
    <label className={barLabel}>
      Licence
      <select
        className={`${barControl} w-[138px]`}
        value={form.licence}
        onChange={(event) => onLicence(event.target.value)}
      >
        <option value="">{form.supplier.trim() ? 'not known' : 'own work'}</option>
        {licences.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
        <option value={NEW}>a new licence</option>
      </select>
    </label>
  );
}
