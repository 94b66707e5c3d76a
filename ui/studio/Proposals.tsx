'use client';
/** Descriptors that somebody brought in and that the lead has not decided on: what each would change. */
import { useState } from 'react';
import type { Difference } from '@/core/editor/differences';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { Ago } from '../kit/time';
import { counted } from '../kit/words';

export interface ProposalView {
  id: string;
  key: string;
  title: string;
  cameFrom: string;
  by: string | null;
  at: string;
  /** the editor is not known yet */ isNew: boolean;
  differences: Difference[];
  outside: { what: string; template: string }[];
}

const SHOWN_AT_FIRST = 8;
const LONGEST_VALUE = 400;
/** A list of five thousand cameras is not read through; that it is long is. */
const short = (value: string): string =>
  value.length > LONGEST_VALUE ? `${value.slice(0, LONGEST_VALUE)}… (${value.length} characters)` : value;

export function Proposals({ proposals, may }: { proposals: ProposalView[]; may: boolean }) {
  if (!proposals.length) return null;
  return (
    <section className="mb-5" aria-label="Proposed descriptors">
      {proposals.map((proposal) => (
        <Proposal key={proposal.id} proposal={proposal} may={may} />
      ))}
    </section>
  );
}

function Proposal({ proposal, may }: { proposal: ProposalView; may: boolean }) {
  const { id, key, title, cameFrom, by, at, isNew, outside } = proposal;
  const { busy, problem, runAndRefresh } = useAction();
  const [allowed, setAllowed] = useState(false);
  const decide = (verb: 'take' | 'decline') =>
    void runAndRefresh(() => call('POST /api/proposals/:id', { id, body: { verb, outside: allowed } }));
  return (
    <article className="mb-3 border-l-2 border-ochre pl-3">
      <p>
        <b className="font-serif text-[15px] font-medium">{title}</b>{' '}
        {isNew ? 'is not known yet and would be' : 'would be described anew'} <span className="text-soft">({key})</span>
        <span className="block text-[12px] text-soft">
          from {cameFrom}
          {by ? `, brought in by ${by}` : ''}, <Ago at={at} />
        </span>
      </p>
      <Differences proposal={proposal} />
      {outside.length > 0 && <Outside places={outside} allowed={may ? allowed : null} onAllow={setAllowed} />}
      {may ? (
        <div className="mt-2 flex gap-2">
          <button
            className="button main"
            disabled={busy || (outside.length > 0 && !allowed)}
            onClick={() => decide('take')}
          >
            Use this descriptor
          </button>
          <button className="button quiet" disabled={busy} onClick={() => decide('decline')}>
            Decline
          </button>
        </div>
      ) : (
        <p className="mt-1 text-soft">It waits for the studio lead.</p>
      )}
      <Notice problem={problem} className="mt-2" />
    </article>
  );
}

function Differences({ proposal: { title, differences } }: { proposal: ProposalView }) {
  const [all, setAll] = useState(false);
  const shown = all ? differences : differences.slice(0, SHOWN_AT_FIRST);
  return (
    <>
      <table className="list mt-1" aria-label={`What would change for ${title}`}>
        <thead>
          <tr>
            <th className="w-[34%]">What</th>
            <th>Now</th>
            <th>Then</th>
          </tr>
        </thead>
        <tbody>
          {shown.map(({ at, before, after }) => (
            <tr key={at}>
              <td className="[overflow-wrap:anywhere]">{at}</td>
              <td className="text-soft [overflow-wrap:anywhere]">{before === null ? '–' : short(before)}</td>
              <td className="[overflow-wrap:anywhere]">{after === null ? 'taken out' : short(after)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {shown.length < differences.length && (
        <button className="button quiet mt-1" onClick={() => setAll(true)}>
          Show all {counted(differences.length, 'difference')}
        </button>
      )}
    </>
  );
}

interface OutsideProps {
  places: ProposalView['outside'];
  /** null for who may not decide */ allowed: boolean | null;
  onAllow: (allowed: boolean) => void;
}

function Outside({ places, allowed, onAllow }: OutsideProps) {
  const list = (
    <ul className="ml-5 list-disc text-[12px]">
      {places.map(({ what, template }) => (
        <li key={what} className="[overflow-wrap:anywhere]">
          {what}: {template}
        </li>
      ))}
    </ul>
  );
  return (
    <div className="mt-2">
      <p className="text-madder">Agents would read or write outside the editor’s own folders:</p>
      {list}
      {allowed !== null && (
        <label className="mt-1 flex items-center gap-2">
          <input type="checkbox" checked={allowed} onChange={(event) => onAllow(event.target.checked)} />
          These places are right, and agents may use them
        </label>
      )}
    </div>
  );
}
