/** That two agents report with one token: what one says is undone by the other. */
import { Ago } from '../kit/time';

export function TwoAgents({ hosts, at }: { hosts: string[]; at: string }) {
  const where = hosts.filter(Boolean);
  return (
    <p role="status" className="mb-4 max-w-[720px] border-l-2 border-madder pl-3">
      Two agents report with this station’s token{where.length > 0 && `, on ${where.join(' and ')}`}, last{' '}
      <Ago at={at} />. What one of them reports, the other takes back. Stop the one that does not belong here; if you do
      not know it, revoke the token and enrol the right one anew.
    </p>
  );
}
