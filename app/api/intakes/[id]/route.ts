import { acceptIntake, discardIntake } from '@/server/packs/service';
import { addShelf } from '@/server/items/service';
import { body, route } from '@/server/web';

type C = { params: Promise<{ id: string }> };

export const POST = route<C>(async (person, request, { params }) => {
  const b = await body<{ entries: number[]; shelfId?: string; newShelf?: string; supplier?: string }>(request);
  const shelfId = b.newShelf ? await addShelf(person, { name: b.newShelf }) : (b.shelfId ?? '');
  return acceptIntake(person, (await params).id, { entries: b.entries, shelfId, supplier: b.supplier });
});
export const DELETE = route<C>(async (person, _r, { params }) => discardIntake(person, (await params).id).then(() => ({})));
