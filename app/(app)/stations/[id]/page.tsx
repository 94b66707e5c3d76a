import Link from 'next/link';
import { notFound } from 'next/navigation';
import { Problem } from '@/core/problem';
import { may } from '@/server/people/roles';
import { foundCount } from '@/server/stations/station-arrival';
import { stationView } from '@/server/stations/views';
import { signedInPerson } from '@/server/http';
import { PageHead } from '@/ui/shell/Shell';
import { fidelity } from '@/ui/kit/fidelity';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';
import { EditorSwitch } from '@/ui/stations/EditorSwitch';
import { NewCode } from '@/ui/stations/NewCode';
import { TakeIn } from '@/ui/stations/TakeIn';

export const metadata = { title: 'Station' };
const systemNames: Record<string, string> = { macos: 'macOS', windows: 'Windows', linux: 'Linux' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const person = await signedInPerson();
  const { id } = await params;
  const station = await stationView(person, id).catch((error: unknown) => {
    if (error instanceof Problem) return null;
    throw error;
  });
  if (!station) notFound();
  const found = may(person, 'arrival.make') ? await foundCount(person, id) : 0;
  const ours = station.rows.filter((r) => r.base);
  const theirs = station.rows.filter((r) => !r.base);
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['station', 'rollout']} />
      <PageHead
        title={station.station.name}
        note={
          <>
            {station.host
              ? `card in the reader of ${station.host}`
              : `${systemNames[station.station.system]}${station.station.person ? `, ${station.station.person}` : ''}`}
            , reported <Ago at={station.station.last_report_at?.toISOString() ?? null} />
          </>
        }
      >
        {may(person, 'station.enrol') && !station.host && <NewCode stationId={station.station.id} />}
      </PageHead>
      <h2 className="mb-1 text-[17px]">Editors</h2>
      <table className="list mb-8 table-fixed">
        <colgroup>
          <col className="w-[170px]" />
          <col className="w-[190px]" />
          <col />
          <col className="w-[200px]" />
        </colgroup>
        <thead>
          <tr>
            <th>Editor</th>
            <th>State</th>
            <th>What it says</th>
            <th>
              <span className="sr-only">Start and quit</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {station.editors.map((editorState) => (
            <tr
              key={editorState.editor + editorState.version}
              data-editor={`${editorState.editor}@${editorState.version}`}
            >
              <td className="font-serif text-[15.5px] font-medium">
                {editorState.title}
                <span className="block font-sans text-[12px] font-normal text-soft">
                  {editorState.running ? 'running' : 'not running'}; sees new files{' '}
                  {editorState.sees === 'launch' ? 'at launch only' : 'when it rescans'}
                </span>
              </td>
              <td>
                <State of={editorState.state} />
                {editorState.waiting > 0 && (
                  <span className="block text-[12px] text-soft">{editorState.waiting} not listed yet</span>
                )}
              </td>
              <td>
                {editorState.listedAt ? (
                  <>
                    lists {editorState.listed}, refuses {editorState.refused.length}{' '}
                    <span className="text-soft">
                      (<Ago at={editorState.listedAt} />)
                    </span>
                  </>
                ) : (
                  <span className="text-soft">has never been started since it is watched</span>
                )}
                {editorState.refused.slice(0, 6).map((file) => (
                  <span key={file.path} className="block text-[12px]">
                    <span className="text-madder">{file.path.split('/').pop()}</span>: {file.reason}
                  </span>
                ))}
                {editorState.refused.length > 6 && (
                  <span className="block text-[12px] text-soft">and {editorState.refused.length - 6} more</span>
                )}
              </td>
              <td>
                {may(person, 'station.editor') && (
                  <EditorSwitch
                    stationId={station.station.id}
                    editor={`${editorState.editor}@${editorState.version}`}
                    running={editorState.running}
                    restart={editorState.state === 'restart-due'}
                  />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2 className="mb-1 text-[17px]">Placed by us</h2>
      {ours.length ? (
        <Rows rows={ours} />
      ) : (
        <p className="mb-8 border-t border-line py-2 text-soft">
          Nothing yet. Choose approved items on the{' '}
          <Link className="underline" href="/shelves?status=approved">
            shelves
          </Link>{' '}
          and roll them out.
        </p>
      )}
      {theirs.length > 0 && (
        <>
          <div className="mb-1 mt-8 flex flex-wrap items-center gap-3">
            <h2 className="text-[17px]">Theirs</h2>
            {found > 0 && may(person, 'arrival.make') && <TakeIn stationId={station.station.id} count={found} />}
          </div>
          <p className="mb-1 text-[12px] text-soft">
            Lies in the editors’ folders and was not put there by Etagere. It is never touched; what is taken in stays
            where it is, too.
          </p>
          <Rows rows={theirs} />
        </>
      )}
    </div>
  );
}

function Rows({ rows }: { rows: Awaited<ReturnType<typeof stationView>>['rows'] }) {
  return (
    <table className="list table-fixed">
      <colgroup>
        <col className="w-[200px]" />
        <col className="w-[120px]" />
        <col />
        <col className="w-[280px]" />
      </colgroup>
      <thead>
        <tr>
          <th>Item</th>
          <th>Editor</th>
          <th>File</th>
          <th>State</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((place) => (
          <tr key={place.editor + place.path} data-path={place.path} data-state={place.state}>
            <td className="[overflow-wrap:anywhere]">
              {place.itemId ? (
                <Link className="font-serif text-[15px] underline" href={`/items/${place.itemId}`}>
                  {place.title}
                </Link>
              ) : (
                <span className="text-soft">{place.title ?? '–'}</span>
              )}
              {place.number && <span className="text-soft"> v{place.number}</span>}
            </td>
            <td>{place.editor}</td>
            <td className="text-[12px] [overflow-wrap:anywhere]">
              {place.path}
              {place.points && (
                <span className="text-soft">
                  , {place.points} points{fidelity(place.residual)}
                </span>
              )}
            </td>
            <td>
              {place.state ? <State of={place.state} /> : <State of="theirs" />}
              <span className="block text-[12px] text-soft">{place.reason}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
