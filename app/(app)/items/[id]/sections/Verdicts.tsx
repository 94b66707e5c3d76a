import { Verdicts } from '@/ui/item/Verdicts';
import { verdictsOfRequest } from '../request';

export async function VerdictsSection({ id }: { id: string }) {
  const verdicts = await verdictsOfRequest(id);
  return <Verdicts verdicts={verdicts.map((verdict) => ({ ...verdict, at: verdict.at.toISOString() }))} />;
}
