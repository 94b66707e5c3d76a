import Link from 'next/link';
import { listIntakes, unfinishedUploads } from '@/server/packs/service';
import { may } from '@/server/people/roles';
import { signedInPerson } from '@/server/web';
import { PageHead } from '@/ui/shell/Shell';
import { DropZone } from '@/ui/intake/DropZone';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';

export const metadata = { title: 'Intake' };

export default async function Page() {
  const person = await signedInPerson();
  if (!may(person, 'intake.read'))
    return (
      <div className="px-6 pt-[18px]">
        <PageHead title="Intake" />
        <p className="text-soft">Deliveries are taken in by the librarian.</p>
      </div>
    );
  const [arrivals, waiting] = await Promise.all([listIntakes(person), unfinishedUploads(person)]);
  const open = arrivals.filter((a) => a.status !== 'accepted').length;
  return (
    <div className="max-w-[1080px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['intake', 'job']} />
      <PageHead
        title="Intake"
        note={open ? `${open} ${open === 1 ? 'arrival waits' : 'arrivals wait'} to be settled` : 'nothing waits'}
      />
      {may(person, 'intake.make') && <DropZone waiting={waiting} />}
      <h2 className="mb-1 mt-8 text-[17px]">Arrivals</h2>
      {arrivals.length ? (
        <table className="list">
          <thead>
            <tr>
              <th>Delivery</th>
              <th>State</th>
              <th className="text-right">New</th>
              <th className="text-right">Held</th>
              <th className="text-right">Refused</th>
              <th className="text-right">Other</th>
              <th className="pl-6">Came</th>
            </tr>
          </thead>
          <tbody>
            {arrivals.map((intake) => (
              <tr key={intake.id} className="hover:bg-sheet">
                <td>
                  <Link
                    href={`/intake/${intake.id}`}
                    className="font-serif text-[15.5px] font-medium hover:underline [overflow-wrap:anywhere]"
                  >
                    {intake.name}
                  </Link>
                  <span className="block text-[12px] text-soft">
                    {(intake.size / 1e6).toFixed(1)} MB{intake.person ? `, brought by ${intake.person}` : ''}
                  </span>
                </td>
                <td>
                  <State of={intake.status} />
                </td>
                {[
                  intake.counts.new,
                  intake.counts.duplicate,
                  intake.counts.refused,
                  (intake.counts.document ?? 0) + (intake.counts.unknown ?? 0) + (intake.counts.ignored ?? 0),
                ].map((n, i) => (
                  <td key={i} className="text-right">
                    {n || <span className="text-soft">–</span>}
                  </td>
                ))}
                <td className="whitespace-nowrap pl-6 text-soft">
                  <Ago at={intake.created_at.toISOString()} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-4 text-soft">
          No delivery has come yet. What suppliers and colleagues send is dropped above, looked through, and accepted
          onto a shelf.
        </p>
      )}
    </div>
  );
}
