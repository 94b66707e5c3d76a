import Link from 'next/link';
import { fleetAddress, fleetFilterOf, wholeFleet, type FleetFilter, type Need } from '@/core/records/fleet';
import { listEditors } from '@/server/editors/service';
import { signedInPerson } from '@/server/http';
import { may } from '@/server/people/roles';
import { fleet, FLEET_AT_ONCE, type Fleet } from '@/server/stations/fleet';
import { retiredStations } from '@/server/stations/views';
import { Refresh } from '@/ui/kit/Refresh';
import { counted } from '@/ui/kit/words';
import { PageHead } from '@/ui/shell/Shell';
import { choicesOf } from '@/ui/stations/EditorsThere';
import { Enrol } from '@/ui/stations/Enrol';
import { FleetChoice } from '@/ui/stations/FleetChoice';
import { FleetTable } from '@/ui/stations/FleetTable';

export const metadata = { title: 'Stations' };

interface Props {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export default async function Page({ searchParams }: Props) {
  const person = await signedInPerson();
  const asked = await searchParams;
  const filter = fleetFilterOf(asked);
  const [shown, known, retired] = await Promise.all([
    fleet(person, Math.max(0, Math.trunc(Number(asked.from ?? 0)) || 0), filter),
    listEditors(person),
    retiredStations(person),
  ]);
  const all = shown.workstations + shown.cards;
  return (
    <div className="px-6 pb-16 pt-[18px]">
      <Refresh subjects={['station', 'rollout', 'order', 'item']} />
      <PageHead title="Stations" note={<Note shown={shown} filter={filter} />}>
        <Link className="button" href="/stations/matrix">
          Who has what
        </Link>
        <Link className="button" href="/stations/orders">
          Standing orders
        </Link>
        <Link className="button" href="/stations/favorites">
          Favorites
        </Link>
        <Link className="button" href="/stations/opening">
          Opening rules
        </Link>
        {may(person, 'station.enrol') && <Enrol editors={choicesOf(known, 'editor')} />}
      </PageHead>
      {all > 0 && (
        <FleetChoice key={fleetAddress(filter)} filter={filter} editors={shown.editors} groups={shown.groups} />
      )}
      {shown.stations.length > 0 && <FleetTable stations={shown.stations} />}
      {all > 0 && !shown.stations.length && (
        <p className="border-t border-line py-4 text-soft">
          None of {counted(all, 'station')} is like this.{' '}
          <Link className="underline" href="/stations">
            Show all of them
          </Link>
        </p>
      )}
      {all === 0 && (
        <p className="border-t border-line py-4 text-soft">
          No workstation has an agent yet. Add one, and run the agent there once with the code that you get.
        </p>
      )}
      <Pages from={shown.from} fitting={shown.fitting} filter={filter} />
      {retired.length > 0 && <Retired stations={retired} />}
    </div>
  );
}

const needWords: readonly (readonly [Exclude<Need, 'none'>, string])[] = [
  ['somebody', 'to see to'],
  ['due', 'due'],
  ['start', 'to be started'],
];

/** How many there are, and what those that are shown need; numbers lead to the stations that they count. */
function Note({
  shown: { stations, fitting, workstations, cards, silent },
  filter,
}: {
  shown: Fleet;
  filter: FleetFilter;
}) {
  if (!workstations && !cards) return 'none yet';
  const some = stations.length < fitting || fitting < workstations + cards;
  const said = needWords.flatMap(([need, words]) => {
    const count = stations.filter((one) => one.need === need).length;
    return count ? [{ need, words: `${count} ${words}` }] : [];
  });
  return (
    <>
      {counted(workstations, 'workstation')}, {counted(cards, 'card')}
      {stations.length > 0 && (some ? `; of the ${stations.length} shown, ` : '; ')}
      {stations.length > 0 && !said.length && 'all are in step'}
      {said.map(({ need, words }, at) => (
        <span key={need}>
          {at > 0 && ', '}
          <Link className="underline" href={fleetAddress({ ...filter, show: need })}>
            {words}
          </Link>
        </span>
      ))}
      {silent > 0 && (
        <>
          {'; '}
          <Link className="underline" href={fleetAddress({ ...wholeFleet, show: 'silent', order: 'report' })}>
            {silent} silent for a day
          </Link>
        </>
      )}
    </>
  );
}

/** Those that are not used any more: on their pages they are brought back. */
function Retired({ stations }: { stations: { id: string; name: string }[] }) {
  return (
    <details className="mt-8">
      <summary className="cursor-pointer text-[17px] [font-family:var(--font-serif)]">
        Retired: {stations.length}
      </summary>
      <ul>
        {stations.map(({ id, name }) => (
          <li key={id} className="border-b border-line py-1.5">
            <Link className="hover:underline" href={`/stations/${id}`}>
              {name}
            </Link>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** To the stations before and behind those that are shown. */
function Pages({ from, fitting, filter }: { from: number; fitting: number; filter: FleetFilter }) {
  if (fitting <= FLEET_AT_ONCE) return null;
  const next = from + FLEET_AT_ONCE;
  return (
    <nav aria-label="Pages of stations" className="mt-3 flex items-center gap-3">
      {from > 0 && (
        <Link className="button" href={fleetAddress(filter, Math.max(0, from - FLEET_AT_ONCE))}>
          Before
        </Link>
      )}
      <span className="text-soft">
        {from + 1} to {Math.min(fitting, next)} of {fitting.toLocaleString('en')}
      </span>
      {next < fitting && (
        <Link className="button" href={fleetAddress(filter, next)}>
          Next
        </Link>
      )}
    </nav>
  );
}
