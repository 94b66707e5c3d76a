'use client';
/** Where a person is signed in; each can be ended. */
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { Ago } from '../kit/time';
import { browserOf } from './browser-names';

export interface SessionView {
  id: string;
  begun: string;
  seen: string;
  agent: string;
  network: string;
  own: boolean;
}

export function Sessions({ sessions }: { sessions: SessionView[] }) {
  const { busy, problem, runAndRefresh } = useAction();
  return (
    <>
      <table className="list" aria-label="Where you are signed in">
        <thead>
          <tr>
            <th>Browser</th>
            <th>From</th>
            <th>Signed in</th>
            <th>Last used</th>
            <th>
              <span className="sr-only">Sign out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sessions.map(({ id, agent, network, begun, seen, own }) => (
            <tr key={id}>
              <td>{browserOf(agent)}</td>
              <td className="[overflow-wrap:anywhere]">{network || '–'}</td>
              <td>
                <Ago at={begun} />
              </td>
              <td>{own ? 'here, now' : <Ago at={seen} />}</td>
              <td className="text-right">
                {!own && (
                  <button
                    className="button"
                    disabled={busy}
                    aria-label={`Sign out ${browserOf(agent)} from ${network || 'an unknown network'}`}
                    onClick={() => void runAndRefresh(() => call('DELETE /api/sessions/:id', { id }))}
                  >
                    Sign out
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Notice problem={problem} className="mt-2" />
    </>
  );
}
