'use client';
/** Progress of the job that works a rollout out; one that has failed can be begun anew. */
import { useRouter } from 'next/navigation';
import { call } from '../kit/call';
import { JobProgress } from '../kit/JobProgress';

interface Props {
  rollout: string;
  jobId: string;
  may: boolean;
}

export function PlanningProgress({ rollout, jobId, may }: Props) {
  const router = useRouter();
  const again = async () => {
    await call('POST /api/rollouts/:id', { id: rollout, body: { verb: 'again' } });
    router.refresh();
  };
  return (
    <JobProgress jobId={jobId} doing="Planning" label="Planning the rollout" {...(may ? { onAgain: again } : {})} />
  );
}
