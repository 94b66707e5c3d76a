import Link from 'next/link';
import { notFound } from 'next/navigation';
import { orNull } from '@/core/problem';
import { signedInPerson } from '@/server/http';
import { may } from '@/server/people/roles';
import { foundCount } from '@/server/stations/station-arrival';
import { stationView, twoAgentsAt, type StationView } from '@/server/stations/views';
import { Refresh } from '@/ui/kit/Refresh';
import { Ago } from '@/ui/kit/time';
import { PageHead } from '@/ui/shell/Shell';
import { ChangeStation } from '@/ui/stations/ChangeStation';
import { EditorStates } from '@/ui/stations/EditorStates';
import { LeftOutOfReport } from '@/ui/stations/LeftOutOfReport';
import { NewCode } from '@/ui/stations/NewCode';
import { Placements } from '@/ui/stations/Placements';
import { TwoAgents } from '@/ui/stations/TwoAgents';
import { TakeIn } from '@/ui/stations/TakeIn';

export const metadata = { title: 'Station' };
const systemNames: Record<string, string> = { macos: 'macOS', windows: 'Windows', linux: 'Linux' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const person = await signedInPerson();
  const { id } = await params;
  const view = await orNull(stationView(person, id));
  if (!view) notFound();
  const found = may(person, 'arrival.make') ? await foundCount(person, id) : 0;
  const doubled = twoAgentsAt(view.station);
  const isOurs = (row: (typeof view.rows)[number]): boolean => row.base !== null || row.decision === 'taken-away';
  const ours = view.rows.filter(isOurs);
  const theirs = view.rows.filter((row) => !isOurs(row));
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['station', 'rollout']} />
      <PageHead title={view.station.name} note={<Whose view={view} />}>
        {may(person, 'station.enrol') && (
          <ChangeStation
            station={{
              id,
              name: view.station.name,
              person: view.station.person,
              retired: view.station.retired_at !== null,
            }}
          />
        )}
        {may(person, 'station.enrol') && !view.host && view.station.retired_at === null && (
          <NewCode
            station={{ id, name: view.station.name, system: view.station.system }}
            enrolled={view.station.enrolled}
          />
        )}
      </PageHead>
      {view.station.retired_at && (
        <p className="mb-4 border-l-2 border-line-strong bg-sheet px-3 py-2">
          Retired <Ago at={view.station.retired_at.toISOString()} />: nothing is planned for it, and its agent is not
          let in.
        </p>
      )}
      {doubled && <TwoAgents {...doubled} />}
      <LeftOutOfReport leftOut={view.station.left_out} />
      <h2 className="mb-1 text-[17px]">Editors</h2>
      <EditorStates station={id} editors={view.editors} may={may(person, 'station.editor')} />
      <h2 className="mb-1 text-[17px]">Placed by us</h2>
      {ours.length ? <Placements rows={ours} /> : <NothingPlaced />}
      {theirs.length > 0 && (
        <>
          <div className="mb-1 mt-8 flex flex-wrap items-center gap-3">
            <h2 className="text-[17px]">Theirs</h2>
            {found > 0 && <TakeIn stationId={id} count={found} />}
          </div>
          <p className="mb-1 text-[12px] text-soft">
            Lies in the editors’ folders and was not put there by Etagere. It is never touched; what is taken in stays
            where it is, too.
          </p>
          <Placements rows={theirs} />
        </>
      )}
    </div>
  );
}

/** On what it runs, for whom, and when it was heard of last. */
function Whose({ view: { host, station } }: { view: StationView }) {
  const machine = systemNames[station.system] + (station.person ? `, ${station.person}` : '');
  return (
    <>
      {host ? `card in the reader of ${host}` : machine}, reported{' '}
      <Ago at={station.last_report_at?.toISOString() ?? null} />
    </>
  );
}

function NothingPlaced() {
  return (
    <p className="mb-8 border-t border-line py-2 text-soft">
      Nothing yet. Choose approved items on the{' '}
      <Link className="underline" href="/shelves?status=approved">
        shelves
      </Link>{' '}
      and roll them out.
    </p>
  );
}
