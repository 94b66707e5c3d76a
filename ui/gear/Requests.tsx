'use client';
/** What was asked for, of whom, and where it stands. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';
import { State } from '../kit/State';
import { Ago } from '../kit/time';

export interface RequestLine {
  id: string;
  about: string;
  wanted: string;
  askedOf: string;
  note: string;
  state: string;
  stateAt: string;
  person: string;
  at: string;
  met: boolean;
}
const steps = ['noted', 'sent', 'promised', 'fulfilled', 'declined'];

export function Requests({ requests, may }: { requests: RequestLine[]; may: boolean }) {
  const router = useRouter();
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const track = async (r: RequestLine, change: { state?: string; note?: string; askedOf?: string }) => {
    setProblem(null);
    try {
      await call(`/api/gear/requests/${r.id}`, 'PATCH', { state: r.state, ...change });
      router.refresh();
    } catch (e) {
      setProblem(problemOf(e));
    }
  };
  if (!requests.length) return <p className="border-t border-line py-3 text-soft">Nothing is asked for.</p>;
  return (
    <>
      <Notice problem={problem} className="mb-2" />
      <table className="list" aria-label="Requests">
        <thead>
          <tr>
            <th>For</th>
            <th>Wanted</th>
            <th>Asked of</th>
            <th>Stands</th>
            <th>Note</th>
          </tr>
        </thead>
        <tbody>
          {requests.map((r) => (
            <tr key={`${r.id} ${r.state} ${r.note} ${r.askedOf}`}>
              <td>
                <span className="font-serif text-[15px] [overflow-wrap:anywhere]">{r.about}</span>
                <span className="block text-[12px] text-soft">
                  by {r.person}, <Ago at={r.at} />
                </span>
              </td>
              <td>{r.wanted}</td>
              <td className="[overflow-wrap:anywhere]">
                {may ? (
                  <input
                    className="field w-full min-w-[130px]"
                    aria-label={`Of whom it is asked for the ${r.about}`}
                    defaultValue={r.askedOf}
                    placeholder="nobody yet"
                    maxLength={120}
                    onBlur={(e) => {
                      if (e.target.value.trim() !== r.askedOf) void track(r, { askedOf: e.target.value });
                    }}
                  />
                ) : (
                  r.askedOf || <span className="text-soft">nobody yet</span>
                )}
              </td>
              <td>
                {may ? (
                  <select
                    className="field"
                    aria-label={`Where the request for the ${r.about} stands`}
                    value={r.state}
                    onChange={(e) => void track(r, { state: e.target.value })}
                  >
                    {steps.map((s) => (
                      <option key={s}>{s}</option>
                    ))}
                  </select>
                ) : (
                  <State of={r.state} />
                )}
                <span className="block text-[12px] text-soft">
                  since <Ago at={r.stateAt} />
                </span>
                {r.met && (
                  <span className="block text-[12px] text-verd">
                    It is there now.{' '}
                    {may && (
                      <button className="underline" onClick={() => void track(r, { state: 'fulfilled' })}>
                        Close it
                      </button>
                    )}
                  </span>
                )}
              </td>
              <td>
                {may ? (
                  <input
                    className="field w-full min-w-[160px]"
                    aria-label={`Note on the request for the ${r.about}`}
                    defaultValue={r.note}
                    maxLength={2000}
                    onBlur={(e) => {
                      if (e.target.value.trim() !== r.note) void track(r, { note: e.target.value });
                    }}
                  />
                ) : (
                  <span className="[overflow-wrap:anywhere]">{r.note}</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
