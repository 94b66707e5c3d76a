import { candidatesFor, moreCandidates } from '@/server/bench/service';
import { candidateOf } from '@/ui/bench/candidate';
import { route } from '@/server/web';

export const GET = route(async (person, request) => {
  const p = new URL(request.url).searchParams;
  const versions = p.get('versions');
  const rows = versions
    ? await candidatesFor(person, versions.split(','))
    : await moreCandidates(person, {
        shelf: p.get('shelf') ?? undefined,
        like: p.get('like') ?? undefined,
        item: p.get('item') ?? undefined,
        cameras: p.get('cameras')?.split('|').filter(Boolean),
      } as Parameters<typeof moreCandidates>[1]);
  return { candidates: rows.map(candidateOf) };
});
