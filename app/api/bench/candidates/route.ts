import { candidatesFor, moreCandidates } from '@/server/bench/service';
import { serve } from '@/server/http';
import { candidateOf } from '@/ui/bench/model/candidate';

export const GET = serve('GET /api/bench/candidates', async ({ person, query }) => {
  const versions = query.get('versions');
  const rows = versions
    ? await candidatesFor(person, versions.split(','))
    : await moreCandidates(person, {
        shelf: query.get('shelf') ?? undefined,
        like: query.get('like') ?? undefined,
        items: query.get('item')?.split('|').filter(Boolean),
        cameras: query.get('cameras')?.split('|').filter(Boolean),
      } as Parameters<typeof moreCandidates>[1]);
  return { candidates: rows.map(candidateOf) };
});
