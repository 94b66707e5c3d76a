'use client';
/** Progress of the job that works a conversion out, or carries it through; one that has failed can be begun anew. */
import { useRouter } from 'next/navigation';
import { call } from '../kit/call';
import { JobProgress } from '../kit/JobProgress';

interface Props {
  id: string;
  jobId: string;
  doing: 'Planning' | 'Converting';
  may: boolean;
}

export function ConversionProgress({ id, jobId, doing, may }: Props) {
  const router = useRouter();
  const again = async () => {
    await call('POST /api/conversions/:id', { id, body: { verb: doing === 'Planning' ? 'plan' : 'start' } });
    router.refresh();
  };
  const label = doing === 'Planning' ? 'Working the conversion out' : 'Converting';
  return <JobProgress key={jobId} jobId={jobId} doing={doing} label={label} {...(may ? { onAgain: again } : {})} />;
}
