'use client';
/** What each licence allows, and until when; changed in place. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
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
const label = 'flex flex-col gap-0.5 text-[12px] text-soft';
const control = 'field text-[13.5px] text-ink';
const says: Record<string, string> = { yes: 'yes', no: 'no', unknown: 'not known' };

export function Licences({ licences, may }: { licences: Licence[]; may: boolean }) {
  const router = useRouter();
  const [open, setOpen] = useState<string | null>(null);
  const [f, setF] = useState<typeof empty>(empty);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const begin = (licence: Licence | null) => {
    setF(
      licence
        ? {
            name: licence.name,
            owner: licence.owner,
            terms: licence.terms,
            may_convert: licence.may_convert,
            may_spread: licence.may_spread,
            seats: licence.seats,
            seats_by: licence.seats_by,
            ends_on: licence.ends_on,
            at_end: licence.at_end,
          }
        : empty,
    );
    setOpen(licence?.id ?? 'new');
    setProblem(null);
  };
  const save = async () => {
    try {
      await (open === 'new' ? call('/api/licences', 'POST', f) : call(`/api/licences/${open}`, 'PATCH', f));
      setOpen(null);
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const choice = (k: 'may_convert' | 'may_spread') => (
    <select className={control} value={f[k]} onChange={(e) => setF({ ...f, [k]: e.target.value })}>
      {Object.entries(says).map(([value, word]) => (
        <option key={value} value={value}>
          {word}
        </option>
      ))}
    </select>
  );
  return (
    <>
      {licences.length ? (
        <table className="list" aria-label="Licences">
          <thead>
            <tr>
              <th>Licence</th>
              <th>May be converted</th>
              <th>May be spread</th>
              <th>Seats</th>
              <th>Ends</th>
              <th className="text-right">Items</th>
              {may && (
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
                {may && (
                  <td>
                    <button className="button" aria-label={`Change ${licence.name}`} onClick={() => begin(licence)}>
                      Change
                    </button>
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-3 text-soft">
          No licence is noted yet. One can be made when an arrival is accepted, or here.
        </p>
      )}
      {may && !open && (
        <button className="button mt-2" onClick={() => begin(null)}>
          New licence
        </button>
      )}
      {open && (
        <form
          className="mt-3 border border-line bg-sheet p-3"
          onSubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          <div className="mb-3 grid grid-cols-4 gap-3">
            <label className={`${label} col-span-2`}>
              Name
              <input
                autoFocus
                className={control}
                value={f.name}
                onChange={(e) => setF({ ...f, name: e.target.value })}
                required
              />
            </label>
            <label className={`${label} col-span-2`}>
              Owner
              <input className={control} value={f.owner} onChange={(e) => setF({ ...f, owner: e.target.value })} />
            </label>
            <label className={`${label} col-span-4`}>
              Terms
              <textarea
                className={`${control} !h-[58px] py-1.5`}
                value={f.terms}
                onChange={(e) => setF({ ...f, terms: e.target.value })}
              />
            </label>
            <label className={label}>May be converted{choice('may_convert')}</label>
            <label className={label}>May be spread{choice('may_spread')}</label>
            <label className={label}>
              Seats
              <input
                type="number"
                min={1}
                className={control}
                value={f.seats ?? ''}
                onChange={(e) => setF({ ...f, seats: e.target.value ? Number(e.target.value) : null })}
              />
            </label>
            <label className={label}>
              Counted by
              <select className={control} value={f.seats_by} onChange={(e) => setF({ ...f, seats_by: e.target.value })}>
                <option>person</option>
                <option>device</option>
                <option>site</option>
              </select>
            </label>
            <label className={label}>
              Ends on
              <input
                type="date"
                className={control}
                value={f.ends_on ?? ''}
                onChange={(e) => setF({ ...f, ends_on: e.target.value || null })}
              />
            </label>
            <label className={label}>
              At its end
              <select className={control} value={f.at_end} onChange={(e) => setF({ ...f, at_end: e.target.value })}>
                <option>ask</option>
                <option>remove</option>
                <option>keep results</option>
              </select>
            </label>
          </div>
          <Notice problem={problem} className="mb-2" />
          <div className="flex justify-end gap-2">
            <button type="button" className="button quiet" onClick={() => setOpen(null)}>
              Leave it
            </button>
            <button className="button main">Keep</button>
          </div>
        </form>
      )}
    </>
  );
}
