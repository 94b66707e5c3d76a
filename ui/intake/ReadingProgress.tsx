'use client';
/** Progress of the job that reads an arrival; it can be left and come back to. */
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import { call } from '../kit/call';
import { useLive } from '../kit/live';

interface Job {
  status: string;
  progress: number;
  note: string;
}

export function Reading({ jobId }: { jobId: string }) {
  const router = useRouter();
  const [job, setJob] = useState<Job | null>(null);
  const look = useCallback(async () => {
    const job = await call<Job>(`/api/jobs/${jobId}`).catch(() => null);
    if (job) {
      setJob(job);
      if (job.status !== 'queued' && job.status !== 'running') router.refresh();
    }
  }, [jobId, router]);
  useEffect(() => {
    const first = setTimeout(() => void look(), 0);
    const timer = setInterval(() => void look(), 1500);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [look]);
  useLive(
    (m) => (m.type === 'job' ? m.id === jobId : m.event.subject_id === jobId),
    () => void look(),
  );
  const share = Math.round(100 * (job?.progress ?? 0));
  return (
    <div className="max-w-[560px] py-6">
      <p className="mb-2">
        {job?.status === 'queued' || !job ? 'Waiting for its turn' : `Reading, ${job.note || 'begun'}`}
      </p>
      <div
        role="progressbar"
        aria-label="Reading the arrival"
        aria-valuenow={share}
        aria-valuemin={0}
        aria-valuemax={100}
        className="h-[4px] bg-line"
      >
        <div className="h-full bg-verd transition-[width]" style={{ width: `${share}%` }} />
      </div>
      <p className="mt-3 flex items-center gap-3 text-soft">
        You may leave this page; it goes on.{' '}
        <button className="button quiet" onClick={() => void call(`/api/jobs/${jobId}`, 'DELETE').then(look)}>
          Stop
        </button>
      </p>
    </div>
  );
}
