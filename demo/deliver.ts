import { must } from '@/core/must';
import { arrivalFor, beginUpload, finishUpload, readArrival, uploadPart } from '@/server/arrivals/service';
import { runJob } from '@/server/jobs/service';
import type { Person } from '@/server/people/roles';

const PART = 4 << 20;

/** A file brought in as people do, and read at once; answers with its arrival. */
export async function deliver(person: Person, name: string, bytes: Uint8Array): Promise<string> {
  const upload = await beginUpload(person, { name, size: bytes.length });
  for (let at = 0; at < bytes.length; at += PART)
    await uploadPart(person, upload.id, at, Buffer.from(bytes.subarray(at, at + PART)));
  const { arrival } = await finishUpload(person, upload.id);
  await runJob(must((await arrivalFor(person, arrival)).arrival.job_id), { arrival: readArrival });
  return arrival;
}
