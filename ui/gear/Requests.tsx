'use client';
/** What was asked for, of whom, and where it stands. */
import { useAction } from '../kit/action';
import { call } from '../kit/call';
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

interface Change {
  state?: Step;
  note?: string;
  askedOf?: string;
}

export function Requests({ requests, may }: { requests: RequestLine[]; may: boolean }) {
  const { problem, runAndRefresh } = useAction();
  const track = ({ id, state }: RequestLine, change: Change) =>
    void runAndRefresh(() => call('PATCH /api/gear/requests/:id', { id, body: { state, ...change } }));
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
            <th>State</th>
            <th>Note</th>
          </tr>
        </thead>
        <tbody>
          {requests.map((request) => (
            <RequestRow
              key={`${request.id} ${request.state} ${request.note} ${request.askedOf}`}
              request={request}
              onChange={may ? (change) => track(request, change) : null}
            />
          ))}
        </tbody>
      </table>
    </>
  );
}

interface RowProps {
  request: RequestLine;
  /** null where it may be read alone */ onChange: ((change: Change) => void) | null;
}

function RequestRow({ request, onChange }: RowProps) {
  return (
    <tr>
      <td>
        <span className="font-serif text-[15px] [overflow-wrap:anywhere]">{request.about}</span>
        <span className="block text-[12px] text-soft">
          by {request.person}, <Ago at={request.at} />
        </span>
      </td>
      <td>{request.wanted}</td>
      <td className="[overflow-wrap:anywhere]">
        <Written
          label={`Of whom it is asked for the ${request.about}`}
          className="min-w-[130px]"
          text={request.askedOf}
          none="nobody yet"
          most={120}
          onText={onChange && ((askedOf) => onChange({ askedOf }))}
        />
      </td>
      <td>
        <Stands request={request} onChange={onChange} />
      </td>
      <td className="[overflow-wrap:anywhere]">
        <Written
          label={`Note on the request for the ${request.about}`}
          className="min-w-[160px]"
          text={request.note}
          most={2000}
          onText={onChange && ((note) => onChange({ note }))}
        />
      </td>
    </tr>
  );
}

/** How far it has come. */
function Stands({ request, onChange }: RowProps) {
  return (
    <>
      {onChange ? (
        <select
          className="field"
          aria-label={`Where the request for the ${request.about} stands`}
          value={request.state}
          onChange={(event) => onChange({ state: event.target.value as Step })}
        >
          {steps.map((step) => (
            <option key={step}>{step}</option>
          ))}
        </select>
      ) : (
        <State of={request.state} />
      )}
      <span className="block text-[12px] text-soft">
        since <Ago at={request.stateAt} />
      </span>
      {request.met && (
        <span className="block text-[12px] text-verd">
          It is there now.{' '}
          {onChange && (
            <button className="underline" onClick={() => onChange({ state: 'fulfilled' })}>
              Close it
            </button>
          )}
        </span>
      )}
    </>
  );
}

interface WrittenProps {
  label: string;
  className: string;
  text: string;
  /** what stands where there is no text */ none?: string;
  most: number;
  /** null where it may be read alone */ onText: ((text: string) => void) | null;
}

/** Words that are kept when one leaves them. */
function Written({ label, className, text, none, most, onText }: WrittenProps) {
  if (!onText) return text || <span className="text-soft">{none}</span>;
  return (
    <input
      className={`field w-full ${className}`}
      aria-label={label}
      defaultValue={text}
      placeholder={none}
      maxLength={most}
      onBlur={(event) => {
        if (event.target.value.trim() !== text) onText(event.target.value);
      }}
    />
  );
}
