'use client';
/** Progress of the job that reads an arrival. */
import { call } from '../kit/call';
import { JobProgress } from '../kit/JobProgress';

export function ReadingProgress({ jobId }: { jobId: string }) {
  return (
    <JobProgress
      jobId={jobId}
      doing="Reading"
      label="Reading the arrival"
      onStop={() => call('DELETE /api/jobs/:id', { id: jobId })}
    />
  );
}
