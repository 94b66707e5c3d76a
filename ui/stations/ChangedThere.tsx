'use client';
/** Files of ours that somebody changed or took away at a station: theirs is let be, ours goes there again, or theirs comes in. */
import { useRouter } from 'next/navigation';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';
import { counted } from '../kit/words';

export interface ChangedFile {
  path: string;
  /** nothing lies there any more */ gone: boolean;
}
interface Props {
  station: string;
  files: readonly ChangedFile[];
  may: { put: boolean; takeIn: boolean };
  /** of one file among others, which its name tells apart */ one?: boolean;
}

export function ChangedThere({ station, files, may, one = false }: Props) {
  const router = useRouter();
  const { busy, problem, run, runAndRefresh } = useAction();
  const tell = useToast();
  const ask = (verb: 'keep' | 'put' | 'take-in', some: readonly ChangedFile[]) =>
    call('POST /api/stations/:id/changed', { id: station, body: { verb, paths: some.map(({ path }) => path) } });
  const lying = files.filter(({ gone }) => !gone);
  const letBe = lying.length ? 'Let theirs be' : 'Let it be gone';
  const keep = async () => {
    if (await runAndRefresh(() => ask('keep', files)))
      tell({
        words: `${counted(files.length, 'file')} here ${files.length === 1 ? 'is' : 'are'} looked after no longer.`,
      });
  };
  const put = () => run(async () => router.push(`/rollouts/${(await ask('put', files)).rollout}`));
  const takeIn = () => run(async () => router.push(`/intake/${(await ask('take-in', lying)).arrival}`));
  const named = (words: string): { 'aria-label'?: string } =>
    one ? { 'aria-label': `${words}: ${files[0]?.path}` } : {};
  return (
    <span className="flex flex-wrap gap-x-3 gap-y-1">
      {may.put && (
        <>
          <button className="underline" disabled={busy} {...named('Put ours again')} onClick={() => void put()}>
            Put ours again
          </button>
          <button className="underline" disabled={busy} {...named(letBe)} onClick={() => void keep()}>
            {letBe}
          </button>
        </>
      )}
      {may.takeIn && lying.length > 0 && (
        <button className="underline" disabled={busy} {...named('Take theirs in')} onClick={() => void takeIn()}>
          Take theirs in
        </button>
      )}
      <Notice problem={problem} className="mt-1 basis-full" />
    </span>
  );
}
