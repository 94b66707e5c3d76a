import { discardedArrivals, listArrivals, unfinishedUploads } from '@/server/arrivals/service';
import { may } from '@/server/people/roles';
import { signedInPerson } from '@/server/http';
import { ListTitle } from '@/ui/kit/ListTitle';
import { PageHead } from '@/ui/shell/Shell';
import { Discarded } from '@/ui/intake/Discarded';
import { DropZone } from '@/ui/intake/DropZone';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';

export const metadata = { title: 'Intake' };

export default async function Page() {
  const person = await signedInPerson();
  if (!may(person, 'arrival.read'))
    return (
      <div className="px-6 pt-[18px]">
        <PageHead title="Intake" />
        <p className="text-soft">Arrivals are taken in by the librarian.</p>
      </div>
    );
  const [arrivals, discarded, waiting] = await Promise.all([
    listArrivals(person),
    discardedArrivals(person),
    unfinishedUploads(person),
  ]);
  const open = arrivals.filter((a) => a.status !== 'accepted').length;
  return (
    <div className="max-w-[1080px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['arrival', 'job']} />
      <PageHead
        title="Intake"
        note={open ? `${open} ${open === 1 ? 'arrival waits' : 'arrivals wait'} to be settled` : 'nothing waits'}
      />
      {may(person, 'arrival.make') && <DropZone waiting={waiting} />}
      <h2 className="mb-1 mt-8 text-[17px]">Arrivals</h2>
      {arrivals.length ? (
        <table className="list">
          <thead>
            <tr>
              <th>Arrival</th>
              <th>State</th>
              <th className="text-right">New</th>
              <th className="text-right">Held</th>
              <th className="text-right">Refused</th>
              <th className="text-right">Other</th>
              <th className="pl-6">Came</th>
            </tr>
          </thead>
          <tbody>
            {arrivals.map((arrival) => (
              <tr key={arrival.id} className="hover:bg-sheet">
                <td>
                  <ListTitle href={`/intake/${arrival.id}`}>{arrival.name}</ListTitle>
                  <span className="block text-[12px] text-soft">
                    {(arrival.size / 1e6).toFixed(1)} MB{arrival.person ? `, brought by ${arrival.person}` : ''}
                  </span>
                </td>
                <td>
                  <State of={arrival.status} />
                </td>
                {[
                  arrival.counts.new,
                  arrival.counts.duplicate,
                  arrival.counts.refused,
                  (arrival.counts.document ?? 0) + (arrival.counts.unknown ?? 0) + (arrival.counts.ignored ?? 0),
                ].map((count, i) => (
                  <td key={i} className="text-right">
                    {count || <span className="text-soft">–</span>}
                  </td>
                ))}
                <td className="whitespace-nowrap pl-6 text-soft">
                  <Ago at={arrival.created_at.toISOString()} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-4 text-soft">
          No arrival has come yet. What suppliers and colleagues send is dropped above, looked through, and accepted
          onto a shelf.
        </p>
      )}
      {discarded.length > 0 && (
        <Discarded
          may={may(person, 'arrival.accept')}
          arrivals={discarded.map(({ id, name, settled_at }) => ({
            id,
            name,
            when: settled_at ? <Ago at={settled_at.toISOString()} /> : null,
          }))}
        />
      )}
    </div>
  );
}
