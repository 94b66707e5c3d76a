'use client';
/** Progress of a job that the page waits for; it can be left and come back to, and stopped. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import type { AnswerOf } from '@/core/api';
import { useAction } from './action';
import { call } from './call';
import { useLive } from './live';
import { Notice } from './Notice';

type Job = AnswerOf<'GET /api/jobs/:id'>;

interface Props {
  jobId: string;
  /** what it does, as one word: Reading, Planning */ doing: string;
  /** for those who do not see the bar */ label: string;
  /** left out for who may not stop it */ onStop?: () => Promise<unknown>;
  /** begins it anew after it has failed; left out where that is offered elsewhere, or to nobody */ onAgain?: () => Promise<unknown>;
}

/** Seconds between looks, for when no word comes from the server. */
const LOOK_EVERY = 1.5;
const isOver = (job: Job | undefined): boolean => !!job && job.status !== 'queued' && job.status !== 'running';

/** The job as it stands; the page is fetched anew when it has come to its end. */
function useJob(jobId: string): Job | undefined {
  const router = useRouter();
  const queries = useQueryClient();
  const key = ['job', jobId];
  const { data: job } = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => call('GET /api/jobs/:id', { id: jobId, signal }),
    refetchInterval: ({ state }) => (isOver(state.data) ? false : LOOK_EVERY * 1000),
    staleTime: 0,
  });
  useLive(
    (message) => (message.type === 'job' ? message.id === jobId : message.event.subject_id === jobId),
    () => void queries.invalidateQueries({ queryKey: key }),
  );
  const over = isOver(job);
  useEffect(() => {
    if (over) router.refresh();
  }, [over, router]);
  return job;
}

export function JobProgress({ jobId, doing, label, onStop, onAgain }: Props) {
  const job = useJob(jobId);
  const action = useAction();
  if (job?.status === 'failed')
    return (
      <div className="my-4 max-w-[640px]">
        <Notice problem={job.error} />
        {onAgain && (
          <button className="button mt-3" disabled={action.busy} onClick={() => void action.run(onAgain)}>
            Start it again
          </button>
        )}
        <Notice problem={action.problem} className="mt-2" />
      </div>
    );
  const share = Math.round(100 * (job?.progress ?? 0));
  return (
    <div className="max-w-[560px] py-6">
      <p className="mb-2 [overflow-wrap:anywhere]">
        {job?.status === 'queued' || !job ? 'Waiting for its turn' : `${doing}, ${job.note || 'begun'}`}
      </p>
      <div
        role="progressbar"
        aria-label={label}
        aria-valuenow={share}
        aria-valuemin={0}
        aria-valuemax={100}
        className="h-[4px] bg-line"
      >
        <div className="h-full bg-verd transition-[width]" style={{ width: `${share}%` }} />
      </div>
      <p className="mt-3 flex items-center gap-3 text-soft">
        You may leave this page; it goes on.{' '}
        {onStop && (
          <button className="button quiet" disabled={action.busy} onClick={() => void action.run(onStop)}>
            Stop
          </button>
        )}
      </p>
      <Notice problem={action.problem} className="mt-2" />
    </div>
  );
}
