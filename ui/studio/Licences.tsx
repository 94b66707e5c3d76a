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
  const begin = (l: Licence | null) => {
    setF(
      l
        ? {
            name: l.name,
            owner: l.owner,
            terms: l.terms,
            may_convert: l.may_convert,
            may_spread: l.may_spread,
            seats: l.seats,
            seats_by: l.seats_by,
            ends_on: l.ends_on,
            at_end: l.at_end,
          }
        : empty,
    );
    setOpen(l?.id ?? 'new');
    setProblem(null);
  };
  const save = async () => {
    try {
      await (open === 'new' ? call('/api/licences', 'POST', f) : call(`/api/licences/${open}`, 'PATCH', f));
      setOpen(null);
      router.refresh();
    } catch (e) {
      setProblem(problemOf(e));
    }
  };
  const choice = (k: 'may_convert' | 'may_spread') => (
    <select className={control} value={f[k]} onChange={(e) => setF({ ...f, [k]: e.target.value })}>
      {Object.entries(says).map(([v, w]) => (
        <option key={v} value={v}>
          {w}
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
            {licences.map((l) => (
              <tr key={l.id}>
                <td className="[overflow-wrap:anywhere]">
                  <b className="font-serif text-[15px] font-medium">{l.name}</b>
                  <span className="block text-[12px] text-soft">{[l.owner, l.terms].filter(Boolean).join(': ')}</span>
                </td>
                <td className={l.may_convert === 'unknown' ? 'text-ochre' : ''}>{says[l.may_convert]}</td>
                <td className={l.may_spread === 'unknown' ? 'text-ochre' : ''}>{says[l.may_spread]}</td>
                <td>{l.seats ? `${l.seats}, by ${l.seats_by}` : '–'}</td>
                <td className="whitespace-nowrap">
                  {l.ends_on ?? '–'}
                  {l.ends_on && <span className="block text-[12px] text-soft">then {l.at_end}</span>}
                </td>
                <td className="text-right">{l.items}</td>
                {may && (
                  <td>
                    <button className="button" aria-label={`Change ${l.name}`} onClick={() => begin(l)}>
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
          No licence is noted yet. One can be made when a delivery is accepted, or here.
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
          onSubmit={(e) => {
            e.preventDefault();
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
