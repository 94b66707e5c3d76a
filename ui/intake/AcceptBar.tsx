'use client';
/** Where an arrival goes, from whom it is, and under which licence: the bar that settles it. */
import { useState, type ReactNode } from 'react';
import { FormProvider, useFormContext, useWatch } from 'react-hook-form';
import { arrivalEndpoints } from '@/core/api/arrivals';
import { problemsIn, useWrittenForm } from '../kit/form';
import { FormProblems } from '../kit/FormProblems';
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
  /** the shelf that is offered first; null for a new one */ usual: string | null;
  /** what a new shelf would be called */ named: string;
  /** of what is new, the commonest first */ kinds: string[];
  takeable: number;
  left: number;
  shelves: Named[];
  licences: Named[];
  supplier: string;
  /** licences and read-me files, beside the fields that are filled from them */ papers: ReactNode;
  busy: boolean;
  onAccept: (acceptance: Acceptance) => void;
  onDiscard: () => void;
}

function beginning({ usual, named, kinds, shelves, supplier }: Props): AcceptForm {
  const others = kinds.slice(1);
  return {
    shelf: usual ?? NEW,
    newShelf: named,
    byKind: Object.fromEntries(others.map((kind) => [kind, shelfOfKind(shelves, kind) ?? ''])),
    supplier,
    release: '',
    licence: '',
    newLicence: { name: '', may_convert: 'unknown', may_spread: 'unknown' },
    origin: '',
    source: {},
  };
}

export function AcceptBar(props: Props) {
  const { kinds, takeable, left, shelves, licences, busy, onAccept, onDiscard, papers } = props;
  const others = kinds.slice(1);
  const form = useWrittenForm<AcceptForm, Acceptance>(
    arrivalEndpoints['POST /api/arrivals/:id'].body,
    acceptanceOf,
    beginning(props),
  );
  const typed = useWatch({ control: form.control }) as AcceptForm;
  const [open, setOpen] = useState(kinds.length > 2);
  const count = takeable - left;
  const byKind = <ShelvesByKind kinds={others} shelves={shelves} />;
  return (
    <FormProvider {...form}>
      <form
        noValidate
        className="sticky bottom-0 -mx-6 mt-auto border-t border-line bg-sheet px-6 py-3"
        onSubmit={(event) => void form.handleSubmit((acceptance) => onAccept(acceptance))(event)}
      >
        <FormProblems words={problemsIn(form)} />
        {(open || typed.licence === NEW) && <AcceptDetails papers={papers}>{kinds.length > 2 && byKind}</AcceptDetails>}
        <div className="flex flex-wrap items-end gap-3">
          <ShelfField isNew={typed.shelf === NEW} shelves={shelves} />
          {kinds.length === 2 && byKind}
          <label className={barLabel}>
            Supplier
            <input
              className={`${barControl} w-[120px]`}
              placeholder="own work"
              maxLength={200}
              {...form.register('supplier')}
            />
          </label>
          <LicenceField none={typed.supplier.trim() ? 'not known' : 'own work'} licences={licences} />
          <button type="button" className="button quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Less' : 'Source and papers'}
          </button>
          <button type="button" className="button danger ml-auto" disabled={busy} onClick={onDiscard}>
            Discard the arrival
          </button>
          <button className="button main" disabled={busy || count < 1 || !isComplete(typed)}>
            Accept {count.toLocaleString('en')} {left === 0 ? 'as proposed' : `of ${takeable.toLocaleString('en')}`}
          </button>
        </div>
      </form>
    </FormProvider>
  );
}

function ShelfField({ isNew, shelves }: { isNew: boolean; shelves: Named[] }) {
  const { register } = useFormContext<AcceptForm>();
  return (
    <>
      <label className={barLabel}>
        Shelf
        <select className={`${barControl} w-[168px]`} {...register('shelf')}>
          {shelves.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
          <option value={NEW}>a new shelf</option>
        </select>
      </label>
      {isNew && (
        <label className={barLabel}>
          Its name
          <input className={barControl} maxLength={120} {...register('newShelf')} />
        </label>
      )}
    </>
  );
}

function ShelvesByKind({ kinds, shelves }: { kinds: string[]; shelves: Named[] }) {
  const { register } = useFormContext<AcceptForm>();
  return kinds.map((kind) => (
    <label key={kind} className={barLabel}>
      {kindWords[kind] ?? kind}s on
      <select className={`${barControl} w-[132px]`} {...register(`byKind.${kind}`)}>
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
  /** what it means that none is chosen */ none: string;
  licences: Named[];
}

function LicenceField({ none, licences }: LicenceProps) {
  const { register } = useFormContext<AcceptForm>();
  return (
    <label className={barLabel}>
      Licence
      <select className={`${barControl} w-[138px]`} {...register('licence')}>
        <option value="">{none}</option>
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
