import { removeChoice } from '@/server/bench/decide';
import { route } from '@/server/http';

type C = { params: Promise<{ n: string }> };
export const DELETE = route<C>(async (person, _request, { params }) => {
  const n = Number((await params).n);
  return removeChoice(person, Number.isSafeInteger(n) && n > 0 ? n : 0).then(() => ({}));
});
