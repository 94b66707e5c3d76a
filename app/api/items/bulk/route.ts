import { applyBulk, previewBulk, type BulkEdit } from '@/server/items/edit';
import { body, route } from '@/server/http';

/** A change of many items: shown first (?preview), then done. */
export const POST = route(async (person, request) => {
  const edit = await body<BulkEdit>(request);
  return new URL(request.url).searchParams.has('preview')
    ? { rows: await previewBulk(person, edit) }
    : applyBulk(person, edit);
});
