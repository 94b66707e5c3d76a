import Link from 'next/link';
import { distinct } from '@/core/lists';
import { byGroup } from '@/core/records/groups';
import { signedInPerson } from '@/server/http';
import { ordersFor, type OrderView } from '@/server/orders/service';
import { listPacks } from '@/server/packs/service';
import { may } from '@/server/people/roles';
import { listShelves } from '@/server/items/service';
import { stationChoices } from '@/server/stations/views';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { counted } from '@/ui/kit/words';
import { NewOrder, OrderActions } from '@/ui/orders/OrderActions';
import type { OrderChoices } from '@/ui/orders/OrderForm';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Standing orders' };

const dueOf = ({ due }: OrderView): number => due.reduce((sum, { missing, updates }) => sum + missing + updates, 0);

/** What an order follows, in words. */
function followsWords({ shelves, packs, ribbons, choices }: OrderView): string {
  const shelfWords = shelves.map(({ name }) => name).join(', ');
  return [
    shelves.length ? `the ${shelves.length === 1 ? 'shelf' : 'shelves'} ${shelfWords}` : '',
    packs.length ? `the ${packs.length === 1 ? 'pack' : 'packs'} ${packs.map(({ name }) => name).join(', ')}` : '',
    ribbons ? 'the house’s everyday list' : '',
    choices ? 'the profiles and looks that the house has chosen' : '',
  ]
    .filter(Boolean)
    .join('; ');
}

export default async function Page() {
  const person = await signedInPerson();
  const [orders, shelves, packs, stations] = await Promise.all([
    ordersFor(person),
    listShelves(person),
    listPacks(person),
    stationChoices(person),
  ]);
  const choices: OrderChoices = {
    shelves: shelves.map(({ id, name }) => ({ id, title: name })),
    packs: packs.map(({ id, name, release }) => ({ id, title: name.includes(release) ? name : `${name} ${release}` })),
    stations: stations.map(({ id, name }) => ({ id, title: name })),
    // one that no station is in any more can still be taken off
    groups: distinct([...byGroup(stations).map(({ name }) => name), ...orders.flatMap(({ groups }) => groups)]),
  };
  const mayPlan = may(person, 'rollout.plan');
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['station', 'rollout', 'order', 'item', 'shelf']} />
      <PageHead title="Standing orders" note="what stations follow, and what is due there">
        {mayPlan && stations.length > 0 && <NewOrder choices={choices} />}
      </PageHead>
      {orders.map((order) => (
        <section key={order.id} aria-label={order.name} className="mb-8">
          <div className="mb-1 flex flex-wrap items-baseline gap-3">
            <h2 className="text-[17px]">{order.name}</h2>
            {mayPlan && (
              <OrderActions
                order={{ id: order.id, revision: order.revision, fields: fieldsOf(order) }}
                choices={choices}
                due={dueOf(order)}
              />
            )}
          </div>
          <p className="mb-1 text-soft">
            Follows {followsWords(order) || 'nothing any more'}: {counted(order.items, 'approved item')} today.
            {order.groups.length > 0 && ` Followed by whatever is in ${order.groups.join(', ')}.`}
          </p>
          <StationsOf order={order} />
        </section>
      ))}
      {!orders.length && (
        <p className="border-t border-line py-2 text-soft">
          None yet. A standing order says which shelves, packs or choices of the house some stations follow; Etagere
          then tells what is missing there, and what has a newer version.
        </p>
      )}
    </div>
  );
}

const fieldsOf = (order: OrderView) => ({
  name: order.name,
  shelves: order.shelves.map(({ id }) => id),
  packs: order.packs.map(({ id }) => id),
  ribbons: order.ribbons,
  choices: order.choices,
  groups: order.groups,
  stations: order.stations.filter(({ named }) => named).map(({ id }) => id),
});

function StationsOf({ order }: { order: OrderView }) {
  const nameOf = new Map(order.stations.map(({ id, name }) => [id, name]));
  return (
    <table className="list">
      <thead>
        <tr>
          <th>Station</th>
          <th>State</th>
          <th>Missing</th>
          <th>Newer version due</th>
          <th>Put there</th>
        </tr>
      </thead>
      <tbody>
        {order.due.map(({ station, missing, updates, inStep }) => (
          <tr key={station}>
            <td>
              <Link className="font-serif text-[15px] hover:underline" href={`/stations/${station}`}>
                {nameOf.get(station)}
              </Link>
            </td>
            <td>
              <State of={stateOf(missing, updates)} />
            </td>
            <td className="tabular-nums">{missing}</td>
            <td className="tabular-nums">{updates}</td>
            <td className="tabular-nums">{inStep}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function stateOf(missing: number, updates: number): string {
  if (missing) return 'missing';
  return updates ? 'update-due' : 'in-step';
}
