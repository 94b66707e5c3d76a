import { verdictsOf } from '@/server/bench/decide';
import { Verdicts } from '@/ui/item/Verdicts';
import { personOfRequest } from '../request';

export async function VerdictsSection({ id }: { id: string }) {
  const verdicts = await verdictsOf(await personOfRequest(), id);
  return <Verdicts verdicts={verdicts.map((verdict) => ({ ...verdict, at: verdict.at.toISOString() }))} />;
}
