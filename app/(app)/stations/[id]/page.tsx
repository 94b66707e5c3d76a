import Link from 'next/link';
import { notFound } from 'next/navigation';
import { Problem } from '@/core/problem';
import { may } from '@/server/people/roles';
import { foundCount } from '@/server/stations/found';
import { stationView } from '@/server/stations/service';
import { person } from '@/server/web';
import { PageHead } from '@/ui/frame/Shell';
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
  const p = await person();
  const { id } = await params;
  const v = await stationView(p, id).catch((e: unknown) => {
    if (e instanceof Problem) return null;
    throw e;
  });
  if (!v) notFound();
  const found = may(p, 'intake.make') ? await foundCount(p, id) : 0;
  const ours = v.rows.filter((r) => r.base);
  const theirs = v.rows.filter((r) => !r.base);
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['station', 'rollout']} />
      <PageHead
        title={v.station.name}
        note={
          <>
            {v.host
              ? `card in the reader of ${v.host}`
              : `${systemNames[v.station.system]}${v.station.person ? `, ${v.station.person}` : ''}`}
            , reported <Ago at={v.station.last_report_at?.toISOString() ?? null} />
          </>
        }
      >
        {may(p, 'station.enrol') && !v.host && <NewCode stationId={v.station.id} />}
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
          {v.editors.map((e) => (
            <tr key={e.editor + e.version} data-editor={`${e.editor}@${e.version}`}>
              <td className="font-serif text-[15.5px] font-medium">
                {e.title}
                <span className="block font-sans text-[12px] font-normal text-soft">
                  {e.running ? 'running' : 'not running'}; sees new files{' '}
                  {e.sees === 'launch' ? 'at launch only' : 'when it rescans'}
                </span>
              </td>
              <td>
                <State of={e.state} />
                {e.waiting > 0 && <span className="block text-[12px] text-soft">{e.waiting} not listed yet</span>}
              </td>
              <td>
                {e.listedAt ? (
                  <>
                    lists {e.listed}, refuses {e.refused.length}{' '}
                    <span className="text-soft">
                      (<Ago at={e.listedAt} />)
                    </span>
                  </>
                ) : (
                  <span className="text-soft">has never been started since it is watched</span>
                )}
                {e.refused.slice(0, 6).map((r) => (
                  <span key={r.path} className="block text-[12px]">
                    <span className="text-madder">{r.path.split('/').pop()}</span>: {r.reason}
                  </span>
                ))}
                {e.refused.length > 6 && (
                  <span className="block text-[12px] text-soft">and {e.refused.length - 6} more</span>
                )}
              </td>
              <td>
                {may(p, 'station.editor') && (
                  <EditorSwitch
                    stationId={v.station.id}
                    editor={`${e.editor}@${e.version}`}
                    running={e.running}
                    restart={e.state === 'restart-due'}
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
            {found > 0 && may(p, 'intake.make') && <TakeIn stationId={v.station.id} count={found} />}
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
        {rows.map((r) => (
          <tr key={r.editor + r.path} data-path={r.path} data-state={r.state}>
            <td className="[overflow-wrap:anywhere]">
              {r.itemId ? (
                <Link className="font-serif text-[15px] underline" href={`/items/${r.itemId}`}>
                  {r.title}
                </Link>
              ) : (
                <span className="text-soft">{r.title ?? '–'}</span>
              )}
              {r.number && <span className="text-soft"> v{r.number}</span>}
            </td>
            <td>{r.editor}</td>
            <td className="text-[12px] [overflow-wrap:anywhere]">
              {r.path}
              {r.points && (
                <span className="text-soft">
                  , {r.points} points{fidelity(r.residual)}
                </span>
              )}
            </td>
            <td>
              {r.state ? <State of={r.state} /> : <State of="theirs" />}
              <span className="block text-[12px] text-soft">{r.reason}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
