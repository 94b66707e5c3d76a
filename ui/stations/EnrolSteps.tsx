'use client';
/** How the agent comes onto a workstation, line by line; says by itself when it has. */
import { useState } from 'react';
import { CopyLine } from '../kit/CopyLine';
import { useLive } from '../kit/live';
import { State } from '../kit/State';
import { agentLines, type StationSystem } from './model/agent-lines';

const CODE_MINUTES = 30;

interface Props {
  station: string;
  system: StationSystem;
  code: string;
}

export function EnrolSteps({ station, system, code }: Props) {
  const [enrolled, setEnrolled] = useState(false);
  useLive(
    (message) =>
      message.type === 'event' &&
      message.event.subject === 'station' &&
      message.event.subject_id === station &&
      message.event.action === 'enrolled',
    () => setEnrolled(true),
  );
  const lines = agentLines(system, location.origin, code);
  return (
    <div className="flex flex-col gap-3">
      <p>
        At the workstation, in {lines.where}. It needs Node.js 20 or newer there: {lines.node}. The code{' '}
        <b className="font-mono">{code}</b> holds once, for {CODE_MINUTES} minutes.
      </p>
      <CopyLine label="Fetch the agent and enrol it" line={lines.enrol} />
      <p className="text-soft">
        Then have it run, now and whenever somebody is signed in there; it reports every half minute. To watch it run
        instead, type <code className="font-mono text-[12px]">run</code> for the last word.
      </p>
      <CopyLine label="Have it run from now on" line={lines.run} />
      <p role="status" className="border-t border-line pt-3">
        {enrolled ? (
          <State of="listed" word="enrolled: it reports as soon as it runs" />
        ) : (
          <State of="waiting" word="waiting for the agent to enrol" />
        )}
      </p>
    </div>
  );
}
