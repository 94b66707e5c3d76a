/** For tests of the server: files brought in as a person brings them, and read. */
import { must } from '@/core/must';
import { people } from '../db/testing/database';
import { runJob } from '../jobs/service';
import { arrivalFor, beginArrival, finishUpload, readArrival, uploadPart } from './service';

/** Answers the arrival, which waits to be settled. */
export async function arrive(files: Record<string, Uint8Array>, name = 'Delivery'): Promise<string> {
  const list = Object.entries(files);
  const begun = await beginArrival(people.librarian, {
    name,
    files: list.map(([path, bytes]) => ({ path, size: bytes.length })),
  });
  for (const [place, [, bytes]] of list.entries()) {
    const { id } = must(begun.files[place]);
    await uploadPart(people.librarian, id, 0, Buffer.from(bytes));
    await finishUpload(people.librarian, id);
  }
  const { arrival } = await arrivalFor(people.librarian, begun.arrival);
  await runJob(must(arrival.job_id), { arrival: readArrival });
  return begun.arrival;
}
