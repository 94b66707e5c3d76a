'use client';
/** The agent of a station: a code to enrol it, and an end to the token that it has. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { EnrolSteps } from './EnrolSteps';
import type { StationSystem } from './model/agent-lines';

interface Props {
  station: { id: string; name: string; system: StationSystem };
  /** it has a token now */ enrolled: boolean;
}

export function NewCode({ station, enrolled }: Props) {
  const { busy, problem, run } = useAction();
  const [code, setCode] = useState<string | null>(null);
  const make = () => run(async () => setCode((await call('POST /api/stations/:id/code', { id: station.id })).code));
  return (
    <>
      {enrolled && <RevokeToken station={station} />}
      <button className="button" disabled={busy} onClick={() => void make()}>
        {enrolled ? 'Enrol its agent anew' : 'Enrol its agent'}
      </button>
      {code && (
        <Modal title={`Enrol the agent of ${station.name}`} width={680} onClose={() => setCode(null)}>
          <EnrolSteps station={station.id} system={station.system} code={code} />
          <ModalFoot cancel="Done" />
        </Modal>
      )}
      <Notice problem={problem} className="basis-full" />
    </>
  );
}

function RevokeToken({ station: { id, name } }: Pick<Props, 'station'>) {
  const { busy, problem, runAndRefresh } = useAction();
  const [asked, setAsked] = useState(false);
  const revoke = async () => {
    if (await runAndRefresh(() => call('DELETE /api/stations/:id/token', { id }))) setAsked(false);
  };
  return (
    <>
      <button className="button quiet danger" onClick={() => setAsked(true)}>
        Revoke its token
      </button>
      {asked && (
        <Modal title={`Revoke the token of ${name}?`} width={420} top="30vh" onClose={() => setAsked(false)}>
          <p>
            Its agent, wherever it runs, is not let in any more: the station is silent until an agent is enrolled with a
            new code. What is placed there stays.
          </p>
          <Notice problem={problem} className="mt-3" />
          <ModalFoot>
            <button className="button main" disabled={busy} onClick={() => void revoke()}>
              Revoke it
            </button>
          </ModalFoot>
        </Modal>
      )}
    </>
  );
}
