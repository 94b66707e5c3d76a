import { markMeant, mergeItems } from '@/server/copies/service';
import { body, route } from '@/server/http';

/** Merges items that do the same into one, or says that they are meant to be several. */
export const POST = route(async (person, request) => {
  const b = await body<{ keep?: string; others?: string[]; meant?: string[] }>(request);
  return b.meant
    ? markMeant(person, { items: b.meant }).then(() => ({}))
    : mergeItems(person, { keep: b.keep ?? '', others: b.others ?? [] });
});
