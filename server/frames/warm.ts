/** What the worker makes ready when frames have come in, so that nobody waits for it at the bench: previews, and the full size. */
import type { JobContext } from '../jobs/service';
import type { Person } from '../people/roles';
import { fullSize } from './full';
import { widths } from './cache';
import { framePicture, linearPicture, listFrames } from './service';

/** The worker's own eyes: it only looks. */
const worker: Person = { id: '00000000-0000-0000-0000-000000000000', name: 'worker', email: '', role: 'retoucher' };

/** `payload.frames`: which. A frame that cannot be read says so when it is looked at. */
export async function warmFrames(job: JobContext): Promise<{ frames: number }> {
  const asked = new Set((job.payload.frames as string[] | undefined) ?? []);
  const list = (await listFrames(worker)).filter((f) => asked.has(f.id));
  for (const [i, f] of list.entries()) {
    try {
      for (const w of widths) {
        await framePicture(worker, f.id, w);
        if (f.file_kind === 'camera data') await linearPicture(worker, f.id, w);
      }
      await fullSize(worker, f.id);
    } catch (e) {
      console.error(`making ${f.name} ready:`, e);
    }
    await job.progress((i + 1) / list.length, f.name);
  }
  return { frames: list.length };
}
