import Link from 'next/link';
import { may } from '@/server/people/roles';
import { stationViews } from '@/server/stations/service';
import { person } from '@/server/web';
import { PageHead } from '@/ui/frame/Shell';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';
import { Enrol } from '@/ui/stations/Enrol';

export const metadata = { title: 'Stations' };
const systemNames: Record<string, string> = { macos: 'macOS', windows: 'Windows', linux: 'Linux' };

const count = (views: { station: { kind: string } }[], kind: string): string => {
  const n = views.filter((v) => v.station.kind === kind).length;
  return `${n} ${kind}${n === 1 ? '' : 's'}`;
};

export default async function Page() {
  const p = await person();
  const views = await stationViews(p);
  const editors = [...new Map(views.flatMap((v) => v.editors).map((e) => [`${e.editor}@${e.version}`, e.title]))].sort(
    (a, b) => a[1].localeCompare(b[1]),
  );
  const good = views.filter((v) => v.editors.every((e) => ['in-step', 'empty', 'launch-due'].includes(e.state))).length;
  return (
    <div className="px-6 pb-16 pt-[18px]">
      <Refresh subjects={['station', 'rollout']} />
      <PageHead
        title="Stations"
        note={
          views.length
            ? `${count(views, 'workstation')}, ${count(views, 'card')}; ${good === views.length ? 'none needs anything' : `${good} of ${views.length} need nothing`}`
            : 'none yet'
        }
      >
        {may(p, 'station.enrol') && (
          <Enrol editors={editors.length ? editors.map(([id, title]) => ({ id, title })) : []} />
        )}
      </PageHead>
      {views.length ? (
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
            {views.map((v) => (
              <tr key={v.station.id} className="hover:bg-sheet">
                <td>
                  <Link
                    href={`/stations/${v.station.id}`}
                    className="font-serif text-[15.5px] font-medium hover:underline"
                  >
                    {v.station.name}
                  </Link>
                  <span className="block text-[12px] text-soft">
                    {v.host
                      ? `in the reader of ${v.host}`
                      : `${systemNames[v.station.system]}${v.station.person ? `, ${v.station.person}` : ''}`}
                  </span>
                </td>
                {editors.map(([id]) => {
                  const e = v.editors.find((x) => `${x.editor}@${x.version}` === id);
                  return (
                    <td key={id}>
                      {e ? (
                        <>
                          <State of={e.state} word={e.state === 'changed' ? `${e.changed} changed there` : undefined} />
                          <span className="block text-[12px] text-soft">
                            {e.waiting ? `${e.waiting} not listed yet` : e.placed ? `${e.placed} placed` : ''}
                            {e.listedAt ? `${e.placed ? ', ' : ''}lists ${e.listed}` : ''}
                            {e.running ? ', running' : ''}
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
                <td className={v.silent ? 'font-semibold text-ochre' : 'text-soft'}>
                  {v.station.enrolled || v.host ? (
                    <Ago at={v.station.last_report_at?.toISOString() ?? null} never="not reported yet" />
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
    </div>
  );
}
