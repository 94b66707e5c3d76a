import { removeChoice } from '@/server/bench/decide';
import { serve } from '@/server/http';

export const DELETE = serve('DELETE /api/bench/choices/:n', ({ person, id }) => {
  const n = Number(id);
  return removeChoice(person, Number.isSafeInteger(n) && n > 0 ? n : 0);
});
