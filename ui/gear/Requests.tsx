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
  state: Step;
  stateAt: string;
  person: string;
  at: string;
  met: boolean;
}
const steps = ['noted', 'sent', 'promised', 'fulfilled', 'declined'] as const;
type Step = (typeof steps)[number];

export function Requests({ requests, may }: { requests: RequestLine[]; may: boolean }) {
  const router = useRouter();
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const track = async (requestLine: RequestLine, change: { state?: Step; note?: string; askedOf?: string }) => {
    setProblem(null);
    try {
      await call('PATCH /api/gear/requests/:id', {
        id: requestLine.id,
        body: { state: requestLine.state, ...change },
      });
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
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
          {requests.map((requestLine) => (
            <tr key={`${requestLine.id} ${requestLine.state} ${requestLine.note} ${requestLine.askedOf}`}>
              <td>
                <span className="font-serif text-[15px] [overflow-wrap:anywhere]">{requestLine.about}</span>
                <span className="block text-[12px] text-soft">
                  by {requestLine.person}, <Ago at={requestLine.at} />
                </span>
              </td>
              <td>{requestLine.wanted}</td>
              <td className="[overflow-wrap:anywhere]">
                {may ? (
                  <input
                    className="field w-full min-w-[130px]"
                    aria-label={`Of whom it is asked for the ${requestLine.about}`}
                    defaultValue={requestLine.askedOf}
                    placeholder="nobody yet"
                    maxLength={120}
                    onBlur={(event) => {
                      if (event.target.value.trim() !== requestLine.askedOf)
                        void track(requestLine, { askedOf: event.target.value });
                    }}
                  />
                ) : (
                  requestLine.askedOf || <span className="text-soft">nobody yet</span>
                )}
              </td>
              <td>
                {may ? (
                  <select
                    className="field"
                    aria-label={`Where the request for the ${requestLine.about} stands`}
                    value={requestLine.state}
                    onChange={(e) => void track(requestLine, { state: e.target.value as Step })}
                  >
                    {steps.map((text) => (
                      <option key={text}>{text}</option>
                    ))}
                  </select>
                ) : (
                  <State of={requestLine.state} />
                )}
                <span className="block text-[12px] text-soft">
                  since <Ago at={requestLine.stateAt} />
                </span>
                {requestLine.met && (
                  <span className="block text-[12px] text-verd">
                    It is there now.{' '}
                    {may && (
                      <button className="underline" onClick={() => void track(requestLine, { state: 'fulfilled' })}>
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
                    aria-label={`Note on the request for the ${requestLine.about}`}
                    defaultValue={requestLine.note}
                    maxLength={2000}
                    onBlur={(event) => {
                      if (event.target.value.trim() !== requestLine.note)
                        void track(requestLine, { note: event.target.value });
                    }}
                  />
                ) : (
                  <span className="[overflow-wrap:anywhere]">{requestLine.note}</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
