import Link from 'next/link';
import { notFound } from 'next/navigation';
import { orNull } from '@/core/problem';
import { signedInPerson } from '@/server/http';
import { listEditors } from '@/server/editors/service';
import { favoritesFor } from '@/server/favorites/service';
import { frameChoices } from '@/server/frames/service';
import { openingFor } from '@/server/opening/service';
import { dueAt, type DueHere } from '@/server/orders/service';
import { may, type Person } from '@/server/people/roles';
import { duplicatesIn } from '@/server/rollouts/duplicates';
import { carriedThere, type CarriedThere } from '@/server/stations/carried-there';
import { cameraChoices, type CameraChoice } from '@/server/stations/cameras-there';
import { sightingsAt } from '@/server/sightings/service';
import { foundCount } from '@/server/stations/station-arrival';
import { ignoredThere } from '@/server/stations/ignored';
import { foundEditors } from '@/server/stations/found-editors';
import { stationView, twoAgentsAt, type StationView } from '@/server/stations/views';
import { Refresh } from '@/ui/kit/Refresh';
import { counted } from '@/ui/kit/words';
import { Ago } from '@/ui/kit/time';
import { DueThere, type DueByOrder } from '@/ui/orders/DueThere';
import { PageHead } from '@/ui/shell/Shell';
import { SeeWorking } from '@/ui/sightings/SeeWorking';
import { Sighting } from '@/ui/sightings/Sighting';
import { stateWith } from '@/ui/sightings/sightings';
import { AddCard } from '@/ui/stations/AddCard';
import { AgentProgram } from '@/ui/stations/AgentProgram';
import { Carry } from '@/ui/stations/Carry';
import { ChangedThere, type ChangedFile } from '@/ui/stations/ChangedThere';
import { ChangeStation } from '@/ui/stations/ChangeStation';
import { choicesFor, choicesOf } from '@/ui/stations/EditorsThere';
import { Duplicates } from '@/ui/stations/Duplicates';
import { EditorStates } from '@/ui/stations/EditorStates';
import { FoundEditors } from '@/ui/stations/FoundEditors';
import { LeftOutOfReport } from '@/ui/stations/LeftOutOfReport';
import { NewCode } from '@/ui/stations/NewCode';
import { Placements } from '@/ui/stations/Placements';
import type { Where } from '@/ui/stations/PathThere';
import { TakeAway } from '@/ui/stations/TakeAway';
import { TwoAgents } from '@/ui/stations/TwoAgents';
import { Theirs } from '@/ui/stations/Theirs';
import { systemNames } from '@/ui/stations/model/systems';

export const metadata = { title: 'Station' };

type Row = StationView['rows'][number];

/** So many files are taken away by one rollout. */
const MOST_AT_ONCE = 500;

const changedFile = ({ path, is }: Row): ChangedFile => ({ path, gone: is === null });

function dueByOrder({ order, due, inStep }: DueHere, { editors }: StationView): DueByOrder {
  const titles = new Map(editors.map((editor) => [keyOf(editor), editor.title]));
  return {
    ...order,
    inStep,
    due: due.map(({ editor, followed: { item, variant, title, number }, is, there }) => ({
      key: `${editor} ${item} ${variant}`,
      item,
      title: variant ? `${title}, ${variant}` : title,
      editor: titles.get(editor) ?? editor,
      is,
      number,
      there,
    })),
  };
}

/** Lists that its editors keep themselves, where ours ask for something that is not in them. */
async function OwnLists({ person, station }: { person: Person; station: string }) {
  const [favorites, { lists }] = await Promise.all([favoritesFor(person, [station]), openingFor(person, [station])]);
  const due = [
    { what: 'favorites', href: '/stations/favorites', lists: favorites },
    { what: 'opening rules', href: '/stations/opening', lists },
  ].flatMap(({ what, href, lists }) => {
    const count = lists.filter(({ state }) => state === 'update-due').length;
    return count ? [{ what, href, count }] : [];
  });
  if (!due.length) return null;
  return (
    <p className="mb-6 border-l-[3px] border-ochre pl-3">
      {due.map(({ what, href, count }, n) => (
        <span key={what}>
          {n > 0 && '; '}
          <Link className="underline" href={href}>
            {what}
          </Link>{' '}
          of its editors would change: {counted(count, 'list')}
        </span>
      ))}
      .
    </p>
  );
}

/** What its editor lists, or what somebody put there by hand: it can be seen working. */
const isListed = ({ state }: Row): boolean => ['listed', 'update-due', 'surplus', 'by-hand'].includes(state);

/** Files whose editors can be asked for pictures, and were not yet. */
const seeable = (rows: readonly Row[], sightingOf: Awaited<ReturnType<typeof sightingsAt>>, station: string) =>
  rows.flatMap((row) =>
    row.itemId && row.asksForPictures && row.state === 'listed' && !sightingOf(station, row)
      ? [{ path: row.path, title: row.title ?? '', editor: row.editor }]
      : [],
  );

const whereOf = ({ station, agent, showsPaths }: StationView): Where => ({
  station: station.id,
  agent: agent.id,
  system: agent.system,
  shows: showsPaths,
});

const keyOf = ({ editor, version }: { editor: string; version: string }): string => `${editor}@${version}`;

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const person = await signedInPerson();
  const { id } = await params;
  const view = await orNull(stationView(person, id));
  if (!view) notFound();
  const known = await listEditors(person);
  const [bodies, due] = await Promise.all([cameraChoices(person, id), dueAt(person, id)]);
  const used = bodies.filter((camera) => camera.used);
  const found = may(person, 'arrival.make') ? await foundCount(person, id) : 0;
  const doubled = twoAgentsAt(view.station);
  const isOurs = (row: Row): boolean => row.base !== null || row.decision === 'taken-away';
  const ours = view.rows.filter(isOurs);
  const theirs = view.rows.filter((row) => !isOurs(row));
  const isInUse = view.station.retired_at === null;
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['station', 'rollout', 'order', 'item']} />
      <PageHead title={view.station.name} note={<Whose view={view} />}>
        <Link className="button" href={`/stations/${id}/past`}>
          What lay there
        </Link>
        {may(person, 'station.enrol') && (
          <Actions view={view} known={known} bodies={bodies} carried={await carriedThere(person, id)} />
        )}
      </PageHead>
      {view.station.retired_at && (
        <p className="mb-4 border-l-2 border-line-strong bg-sheet px-3 py-2">
          Retired <Ago at={view.station.retired_at.toISOString()} />: nothing is planned for it, and its agent is not
          let in.
        </p>
      )}
      {doubled && <TwoAgents {...doubled} />}
      <AgentProgram version={view.station.agent_version} fault={view.station.update_fault} />
      <LeftOutOfReport leftOut={view.station.left_out} />
      {used.length > 0 && (
        <p className="mb-4 text-soft">Cameras used there: {used.map(({ name }) => name).join('; ')}.</p>
      )}
      <h2 className="mb-1 text-[17px]">Editors</h2>
      <EditorStates station={id} editors={view.editors} may={may(person, 'station.editor')} />
      {isInUse && (
        <FoundEditors
          station={{ id, name: view.station.name, person: view.station.person }}
          found={await foundEditors(person, view)}
          may={may(person, 'station.enrol')}
        />
      )}
      {isInUse && <OwnLists person={person} station={id} />}
      {due.length > 0 && isInUse && (
        <DueThere
          orders={due.map((one) => dueByOrder(one, view))}
          station={may(person, 'rollout.plan') ? { id, name: view.station.name } : undefined}
        />
      )}
      <PlacedByUs person={person} view={view} ours={ours} />
      {isInUse && (
        <Duplicates station={id} twice={await duplicatesIn(person, view)} mayPlan={may(person, 'rollout.plan')} />
      )}
      {theirs.length > 0 && (
        <Theirs
          station={id}
          where={whereOf(view)}
          rows={theirs}
          ignored={await ignoredThere(person, view.agent.id)}
          found={found}
          may={may(person, 'arrival.make') && isInUse}
        />
      )}
    </div>
  );
}

interface PlacedProps {
  person: Person;
  view: StationView;
  ours: readonly Row[];
}

/** What was put there by rollouts: what became of it, and what can be done about it. */
async function PlacedByUs({ person, view, ours }: PlacedProps) {
  const { id, name, retired_at } = view.station;
  const [sightingOf, frames] = await Promise.all([sightingsAt(person, [id]), frameChoices(person)]);
  const changed = ours.filter((row) => row.changed);
  const surplus = ours.filter((row) => row.state === 'surplus').slice(0, MOST_AT_ONCE);
  const decides = { put: may(person, 'rollout.plan'), takeIn: may(person, 'arrival.make') };
  const maySee = may(person, 'sighting.ask') && retired_at === null;
  const seeing = maySee ? seeable(ours, sightingOf, id) : [];
  const actionFor = (row: Row) => {
    if (row.changed) return <ChangedThere one station={id} files={[changedFile(row)]} may={decides} />;
    const sighting = isListed(row) ? sightingOf(id, row) : undefined;
    const title = row.title ?? '';
    return (
      <>
        {sighting && <Sighting sighting={sighting} title={title} editor={row.editor} may={maySee} />}
        <span className="flex flex-wrap gap-x-3">
          {maySee && row.itemId && isListed(row) && (
            <SeeWorking
              one
              station={{ id, name }}
              files={[{ path: row.path, title, editor: row.editor }]}
              frames={frames}
            />
          )}
          {decides.put && row.itemId && <TakeAway one station={id} paths={[row.path]} />}
        </span>
      </>
    );
  };
  return (
    <>
      <h2 className="mb-1 text-[17px]">Placed by us</h2>
      {changed.length > 1 && (
        <div className="mb-2 flex flex-wrap items-baseline gap-3 border-l-[3px] border-madder pl-3">
          <span>{counted(changed.length, 'file')} of ours were changed or taken away there. For all of them:</span>
          <ChangedThere station={id} files={changed.map(changedFile)} may={decides} />
        </div>
      )}
      {decides.put && surplus.length > 1 && (
        <div className="mb-2 flex flex-wrap items-baseline gap-3 border-l-[3px] border-ochre pl-3">
          <span>{counted(surplus.length, 'file')} here are of items that are not to be used any more.</span>
          <TakeAway station={id} paths={surplus.map(({ path }) => path)} />
        </div>
      )}
      {maySee && (
        <div className="flex flex-wrap items-baseline gap-3 text-soft not-empty:mb-2">
          <SeeWorking
            station={{ id, name }}
            files={seeing}
            frames={frames}
            words={`${counted(seeing.length, 'file')} here ${seeing.length === 1 ? 'is' : 'are'} listed, and not seen working yet.`}
          />
        </div>
      )}
      {ours.length ? (
        <Placements
          rows={ours}
          where={whereOf(view)}
          shownOf={(row) => stateWith(row, sightingOf(id, row))}
          action={actionFor}
        />
      ) : (
        <NothingPlaced />
      )}
    </>
  );
}

interface ActionsProps {
  view: StationView;
  known: Awaited<ReturnType<typeof listEditors>>;
  bodies: readonly CameraChoice[];
  carried: readonly CarriedThere[];
}

/** What the librarian does with a station; a card has no reader and no agent of its own. */
function Actions({ view: { station, host, editors }, known, bodies, carried }: ActionsProps) {
  const { id, name, person, system, enrolled, groups } = station;
  const readers = choicesFor(choicesOf(known, 'card'), system);
  const isInUse = !host && station.retired_at === null;
  const used = bodies.filter((camera) => camera.used).map((camera) => camera.id);
  const retired = station.retired_at !== null;
  return (
    <>
      <ChangeStation
        station={{ id, name, person, retired, editors: editors.map(keyOf), cameras: used, groups }}
        choices={host ? readers : choicesFor(choicesOf(known, 'editor'), system)}
        cameras={host ? [] : bodies.map((camera) => ({ id: camera.id, title: camera.name }))}
        placed={Object.fromEntries(editors.map((editor) => [keyOf(editor), editor.placed]))}
      />
      {isInUse && readers.length > 0 && <AddCard host={{ id, name }} cameras={readers} />}
      {isInUse && (
        <Carry
          station={{ id, name, system }}
          enrolled={enrolled}
          carried={carried.map(({ at, words, answered }) => ({
            at: at.toISOString(),
            words,
            answered: answered?.toISOString() ?? null,
          }))}
        />
      )}
      {isInUse && <NewCode station={{ id, name, system }} enrolled={enrolled} />}
    </>
  );
}

/** On what it runs, for whom, and when it was heard of last. */
function Whose({ view: { host, station } }: { view: StationView }) {
  const machine = [systemNames[station.system], station.person, ...station.groups].filter(Boolean).join(', ');
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
