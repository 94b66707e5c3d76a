import { candidatesFor, moreCandidates } from '@/server/bench/service';
import { candidateOf } from '@/ui/bench/model/candidate';
import { route } from '@/server/http';

export const GET = route(async (person, request) => {
  const query = new URL(request.url).searchParams;
  const versions = query.get('versions');
  const rows = versions
    ? await candidatesFor(person, versions.split(','))
    : await moreCandidates(person, {
        shelf: query.get('shelf') ?? undefined,
        like: query.get('like') ?? undefined,
        item: query.get('item') ?? undefined,
        cameras: query.get('cameras')?.split('|').filter(Boolean),
      } as Parameters<typeof moreCandidates>[1]);
  return { candidates: rows.map(candidateOf) };
});
