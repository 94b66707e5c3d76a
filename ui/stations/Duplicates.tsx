'use client';
/** What lies twice at a station, what of it stays, and a plan by which the rest goes. */
import { useRouter } from 'next/navigation';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';

interface File {
  path: string;
  ours: { title: string } | null;
}
export interface TwiceShown {
  how: 'bytes' | 'effect';
  keep: File & { editor: string };
  others: readonly File[];
}
interface Props {
  station: string;
  twice: readonly TwiceShown[];
  mayPlan: boolean;
}

export function Duplicates({ station, twice, mayPlan }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const plan = (groups: readonly TwiceShown[]) =>
    void run(async () => {
      const paths = groups.flatMap(({ others }) => others.map(({ path }) => path));
      const { rollout } = await call('POST /api/stations/:id/duplicates', { id: station, body: { paths } });
      router.push(`/rollouts/${rollout}`);
    });
  if (!twice.length) return null;
  return (
    <section aria-label="Lies there twice" className="mb-6">
      <div className="mb-1 mt-8 flex flex-wrap items-center gap-3">
        <h2 className="text-[17px]">Lies there twice</h2>
        {mayPlan && twice.length > 1 && (
          <button className="button" disabled={busy} onClick={() => plan(twice)}>
            Plan to take {counted(twice.flatMap(({ others }) => others).length, 'file')} away
          </button>
        )}
      </div>
      <ul className="border-t border-line">
        {twice.map((group) => (
          <li key={group.keep.path + group.how} className="border-b border-line py-2">
            <Told group={group} />
            {mayPlan && (
              <button
                className="text-[12px] underline"
                disabled={busy}
                aria-label={`Plan to keep ${group.keep.path} alone`}
                onClick={() => plan([group])}
              >
                Plan to keep the first alone
              </button>
            )}
          </li>
        ))}
      </ul>
      <Notice problem={problem} className="mt-2" />
    </section>
  );
}

function Told({ group: { how, keep, others } }: { group: TwiceShown }) {
  return (
    <>
      <span className="block">
        <span className="font-serif text-[15px]">{keep.ours?.title}</span>
        <span className="text-soft">
          {' '}
          in {keep.editor}: {how === 'bytes' ? 'the same file' : 'two of ours with the same effect'}
        </span>
      </span>
      {[keep, ...others].map(({ path, ours }, n) => (
        <span key={path} className="block text-[12px] [overflow-wrap:anywhere]">
          {path}
          {how === 'effect' && n > 0 && <span className="text-soft">, {ours?.title}</span>}
          {!ours && <span className="text-soft">, theirs</span>}
        </span>
      ))}
    </>
  );
}
