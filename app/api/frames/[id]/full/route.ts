import { fullSize } from '@/server/frames/full';
import { route } from '@/server/http';

/** How large a frame is at full size. */
export const GET = route<{ params: Promise<{ id: string }> }>(async (person, _r, { params }) =>
  fullSize(person, (await params).id),
);
