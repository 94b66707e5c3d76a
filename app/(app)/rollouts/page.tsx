import Link from 'next/link';
import { listRollouts } from '@/server/rollouts/service';
import { signedInPerson } from '@/server/http';
import { ListTitle } from '@/ui/kit/ListTitle';
import { PageHead } from '@/ui/shell/Shell';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';

export const metadata = { title: 'Rollouts' };

export default async function Page() {
  const person = await signedInPerson();
  const all = await listRollouts(person);
  return (
    <div className="max-w-[1080px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['rollout']} />
      <PageHead
        title="Rollouts"
        note={
          all.length
            ? `${all.filter((r) => r.status === 'planned').length} planned, ${all.filter((r) => r.status === 'confirmed').length} under way`
            : 'none yet'
        }
      >
        <Link className="button main" href="/rollouts/new">
          Plan a rollout
        </Link>
      </PageHead>
      {all.length ? (
        <table className="list">
          <thead>
            <tr>
              <th>Rollout</th>
              <th>State</th>
              <th className="text-right">Files</th>
              <th className="text-right">Stations</th>
              <th className="pl-6">By</th>
              <th>When</th>
            </tr>
          </thead>
          <tbody>
            {all.map((rollout) => (
              <tr key={rollout.id} className="hover:bg-sheet">
                <td>
                  <ListTitle href={`/rollouts/${rollout.id}`}>{rollout.title}</ListTitle>
                </td>
                <td>
                  <State of={rollout.status} />
                  {rollout.bad > 0 && (
                    <span className="block text-[12px] text-madder">{rollout.bad} left alone or failed</span>
                  )}
                </td>
                <td className="text-right">
                  {rollout.settled} of {rollout.steps}
                </td>
                <td className="text-right">{rollout.stations}</td>
                <td className="pl-6">{rollout.person}</td>
                <td className="whitespace-nowrap text-soft">
                  <Ago at={rollout.created_at.toISOString()} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-4 text-soft">
          A rollout writes approved items onto stations, in the form that each editor there reads. Nothing is written
          before you have seen every file and confirmed.
        </p>
      )}
    </div>
  );
}
