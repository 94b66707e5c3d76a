/** What the worker makes ready when frames have come in, so that nobody waits for it at the bench: previews, and the full size. */
import { log } from '../log';
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
  for (const [i, frame] of list.entries()) {
    try {
      for (const width of widths) {
        await framePicture(worker, frame.id, width);
        if (frame.file_kind === 'camera data') await linearPicture(worker, frame.id, width);
      }
      await fullSize(worker, frame.id);
    } catch (error) {
      log.error({ err: error, frame: frame.id }, 'a frame could not be made ready');
    }
    await job.progress((i + 1) / list.length, frame.name);
  }
  return { frames: list.length };
}
