import Link from 'next/link';
import { dueByStation } from '@/server/orders/service';
import { may } from '@/server/people/roles';
import { listEditors } from '@/server/editors/service';
import { fleet, FLEET_AT_ONCE, retiredStations } from '@/server/stations/views';
import { signedInPerson } from '@/server/http';
import { ListTitle } from '@/ui/kit/ListTitle';
import { PageHead } from '@/ui/shell/Shell';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { counted } from '@/ui/kit/words';
import { Ago } from '@/ui/kit/time';
import { choicesOf } from '@/ui/stations/EditorsThere';
import { Enrol } from '@/ui/stations/Enrol';
import { systemNames } from '@/ui/stations/model/systems';

export const metadata = { title: 'Stations' };

function placedWords({ waiting, placed }: { waiting: number; placed: number }): string {
  if (waiting) return `${waiting} not listed yet`;
  return placed ? `${placed} placed` : '';
}

/** What a station lacks by the orders that it follows. */
function Due({ files }: { files: number }) {
  if (!files) return null;
  return <span className="block text-[12px] text-ochre">{counted(files, 'file')} due by standing orders</span>;
}

interface Props {
  searchParams: Promise<{ from?: string }>;
}

export default async function Page({ searchParams }: Props) {
  const person = await signedInPerson();
  const asked = Math.max(0, Math.trunc(Number((await searchParams).from ?? 0)) || 0);
  const [{ views, from, workstations, cards, silent }, known, retired] = await Promise.all([
    fleet(person, asked),
    listEditors(person),
    retiredStations(person),
  ]);
  const all = workstations + cards;
  const editors = [...new Map(views.flatMap((v) => v.editors).map((e) => [`${e.editor}@${e.version}`, e.title]))].sort(
    (a, b) => a[1].localeCompare(b[1]),
  );
  const due = await dueByStation(
    person,
    views.map(({ station }) => station.id),
  );
  const every = (...states: string[]): number =>
    views.filter((view) => !due.has(view.station.id) && view.editors.every((editor) => states.includes(editor.state)))
      .length;
  const inStep = every('in-step', 'empty');
  const waiting = every('in-step', 'empty', 'launch-due') - inStep;
  const needs = [
    inStep === views.length ? 'all are in step' : `${inStep} of ${views.length} are in step`,
    waiting ? `${waiting} will be when an editor is started` : '',
  ]
    .filter(Boolean)
    .join(', ');
  return (
    <div className="px-6 pb-16 pt-[18px]">
      <Refresh subjects={['station', 'rollout', 'order', 'item']} />
      <PageHead
        title="Stations"
        note={
          all
            ? [
                `${counted(workstations, 'workstation')}, ${counted(cards, 'card')}`,
                views.length < all ? `of the ${views.length} shown, ${needs}` : needs,
                silent ? `${silent} silent for a day` : '',
              ]
                .filter(Boolean)
                .join('; ')
            : 'none yet'
        }
      >
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
      {all ? (
        <table className="list min-w-[760px]">
          <thead>
            <tr>
              <th>Station</th>
              {editors.map(([id, title]) => (
                <th key={id}>{title}</th>
              ))}
              <th>Last report</th>
            </tr>
          </thead>
          <tbody>
            {views.map((station) => (
              <tr key={station.station.id} className="hover:bg-sheet">
                <td>
                  <ListTitle href={`/stations/${station.station.id}`}>{station.station.name}</ListTitle>
                  <span className="block text-[12px] text-soft">
                    {station.host
                      ? `in the reader of ${station.host}`
                      : `${systemNames[station.station.system]}${station.station.person ? `, ${station.station.person}` : ''}`}
                  </span>
                  <Due files={due.get(station.station.id) ?? 0} />
                </td>
                {editors.map(([id]) => {
                  const editorState = station.editors.find((x) => `${x.editor}@${x.version}` === id);
                  return (
                    <td key={id}>
                      {editorState ? (
                        <>
                          <State
                            of={editorState.state}
                            word={editorState.state === 'changed' ? `${editorState.changed} changed there` : undefined}
                          />
                          <span className="block text-[12px] text-soft">
                            {placedWords(editorState)}
                            {editorState.listedAt ? `${editorState.placed ? ', ' : ''}lists ${editorState.listed}` : ''}
                            {editorState.running ? ', running' : ''}
                          </span>
                        </>
                      ) : (
                        <span className="text-soft">
                          –<span className="sr-only">not installed</span>
                        </span>
                      )}
                    </td>
                  );
                })}
                <td className={station.silent ? 'font-semibold text-ochre' : 'text-soft'}>
                  {station.station.enrolled || station.host ? (
                    <Ago at={station.station.last_report_at?.toISOString() ?? null} never="not reported yet" />
                  ) : (
                    'not enrolled yet'
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-4 text-soft">
          No workstation has an agent yet. Add one, and run the agent there once with the code that you get.
        </p>
      )}
      <Pages from={from} all={all} />
      {retired.length > 0 && <Retired stations={retired} />}
    </div>
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
function Pages({ from, all }: { from: number; all: number }) {
  if (all <= FLEET_AT_ONCE) return null;
  const before = Math.max(0, from - FLEET_AT_ONCE);
  const next = from + FLEET_AT_ONCE;
  return (
    <nav aria-label="Pages of stations" className="mt-3 flex items-center gap-3">
      {from > 0 && (
        <Link className="button" href={`/stations?from=${before}`}>
          Before
        </Link>
      )}
      <span className="text-soft">
        {from + 1} to {Math.min(all, next)} of {all.toLocaleString('en')}
      </span>
      {next < all && (
        <Link className="button" href={`/stations?from=${next}`}>
          Next
        </Link>
      )}
    </nav>
  );
}
