import { setRibbon } from '@/server/items/service';
import { body, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const POST = route<C>(async (person, request, { params }) => {
  const b = await body<{ on: boolean; whose: 'mine' | 'house' }>(request);
  await setRibbon(person, (await params).id, { on: !!b.on, whose: b.whose === 'house' ? 'house' : 'mine' });
});
