'use client';
/** Where a delivery goes, from whom it is, and under which licence: the bar that settles it. */
import { useState } from 'react';
import { kindWords } from '../shelves/model/spine';
import { shelfOfKind } from './usual-shelf';

interface Acceptance {
  shelfId?: string;
  /** where items of a kind go instead */ byKind: Record<string, string>;
  newShelf?: string;
  supplier: string;
  release: string;
  licenceId: string | null;
  newLicence?: { name: string; may_convert: string; may_spread: string };
  source: Record<string, string>;
}
interface Props {
  /** the shelf that is offered first */ usual: string | null;
  /** of what is new, the commonest first */ kinds: string[];
  takeable: number;
  left: number;
  shelves: { id: string; name: string }[];
  licences: { id: string; name: string }[];
  supplier: string;
  busy: boolean;
  onAccept: (a: Acceptance) => void;
  onDiscard: () => void;
}

const label = 'flex flex-col gap-0.5 text-[12px] text-soft';
const control = 'field text-[13.5px] text-ink';
const says = [
  ['unknown', 'not known'],
  ['yes', 'yes'],
  ['no', 'no'],
];

export function AcceptBar({
  usual,
  kinds,
  takeable,
  left,
  shelves,
  licences,
  supplier: from,
  busy,
  onAccept,
  onDiscard,
}: Props) {
  const [shelf, setShelf] = useState(usual ?? 'new');
  const [name, setName] = useState('');
  const [supplier, setSupplier] = useState(from);
  const [release, setRelease] = useState('');
  const [licence, setLicence] = useState('');
  const [more, setMore] = useState(kinds.length > 2);
  const [fresh, setFresh] = useState({ name: '', may_convert: 'unknown', may_spread: 'unknown' });
  const [source, setSource] = useState<Record<string, string>>({});
  const [own, setOwn] = useState<Record<string, string>>(() =>
    Object.fromEntries(kinds.slice(1).map((k) => [k, shelfOfKind(shelves, k) ?? ''])),
  );
  const count = takeable - left;
  const ready = count > 0 && (shelf !== 'new' || name.trim()) && (licence !== 'new' || fresh.name.trim());
  const accept = () =>
    onAccept({
      ...(shelf === 'new' ? { newShelf: name.trim() } : { shelfId: shelf }),
      byKind: Object.fromEntries(Object.entries(own).filter(([, v]) => v && v !== shelf)),
      supplier,
      release,
      licenceId: licence && licence !== 'new' ? licence : null,
      ...(licence === 'new' ? { newLicence: { ...fresh, name: fresh.name.trim() } } : {}),
      source: Object.fromEntries(Object.entries(source).filter(([, v]) => v.trim())),
    });
  const byKind = kinds.slice(1).map((key) => (
    <label key={key} className={label}>
      {kindWords[key] ?? key}s on
      <select
        className={`${control} w-[132px]`}
        value={own[key] ?? ''}
        onChange={(e) => setOwn({ ...own, [key]: e.target.value })}
      >
        <option value="">with the rest</option>
        {shelves.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </select>
    </label>
  ));
  return (
    <div className="sticky bottom-0 -mx-6 mt-auto border-t border-line bg-sheet px-6 py-3">
      {more && (
        <div className="mb-3 flex flex-wrap gap-3 border-b border-line pb-3">
          {licence === 'new' && (
            <>
              <label className={label}>
                Name of the licence
                <input
                  className={control}
                  value={fresh.name}
                  onChange={(e) => setFresh({ ...fresh, name: e.target.value })}
                />
              </label>
              <label className={label}>
                May be converted
                <select
                  className={control}
                  value={fresh.may_convert}
                  onChange={(e) => setFresh({ ...fresh, may_convert: e.target.value })}
                >
                  {says.map(([value, word]) => (
                    <option key={value} value={value}>
                      {word}
                    </option>
                  ))}
                </select>
              </label>
              <label className={label}>
                May be spread
                <select
                  className={control}
                  value={fresh.may_spread}
                  onChange={(e) => setFresh({ ...fresh, may_spread: e.target.value })}
                >
                  {says.map(([value, word]) => (
                    <option key={value} value={value}>
                      {word}
                    </option>
                  ))}
                </select>
              </label>
            </>
          )}
          {kinds.length > 2 && byKind}
          <label className={label}>
            Release
            <input className={control} value={release} onChange={(e) => setRelease(e.target.value)} />
          </label>
          {[
            ['address', 'Address'],
            ['author', 'Author'],
            ['date', 'Date'],
            ['receipt', 'Receipt'],
          ].map(([key, word]) => (
            <label key={key} className={label}>
              {word}
              <input
                className={control}
                type={key === 'date' ? 'date' : 'text'}
                value={source[key!] ?? ''}
                onChange={(e) => setSource({ ...source, [key!]: e.target.value })}
              />
            </label>
          ))}
        </div>
      )}
      <div className="flex flex-wrap items-end gap-3">
        <label className={label}>
          Shelf
          <select className={`${control} w-[168px]`} value={shelf} onChange={(e) => setShelf(e.target.value)}>
            {shelves.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
            <option value="new">a new shelf</option>
          </select>
        </label>
        {shelf === 'new' && (
          <label className={label}>
            Its name
            <input className={control} value={name} onChange={(e) => setName(e.target.value)} />
          </label>
        )}
        {kinds.length === 2 && byKind}
        <label className={label}>
          Supplier
          <input
            className={`${control} w-[120px]`}
            value={supplier}
            onChange={(e) => setSupplier(e.target.value)}
            placeholder="own work"
          />
        </label>
        <label className={label}>
          Licence
          <select
            className={`${control} w-[138px]`}
            value={licence}
            onChange={(event) => {
              setLicence(event.target.value);
              if (event.target.value === 'new') setMore(true);
            }}
          >
            <option value="">{supplier.trim() ? 'not known' : 'own work'}</option>
            {licences.map((l) => (
              <option key={l.id} value={l.id}>
                {l.name}
              </option>
            ))}
            <option value="new">a new licence</option>
          </select>
        </label>
        <button className="button quiet" aria-expanded={more} onClick={() => setMore(!more)}>
          {more ? 'Less' : 'Source'}
        </button>
        <button className="button danger ml-auto" disabled={busy} onClick={onDiscard}>
          Discard the delivery
        </button>
        <button className="button main" disabled={busy || !ready} onClick={accept}>
          Accept {count.toLocaleString('en')} {left === 0 ? 'as proposed' : `of ${takeable.toLocaleString('en')}`}
        </button>
      </div>
    </div>
  );
}
