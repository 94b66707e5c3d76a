import { candidatesFor, listBenches, listSets } from '@/server/bench/service';
import { listFrames } from '@/server/frames/service';
import { listShelves } from '@/server/items/service';
import { may } from '@/server/people/roles';
import { person } from '@/server/web';
import { Bench } from '@/ui/bench/Bench';
import { candidateOf } from '@/ui/bench/candidate';

export const metadata = { title: 'Bench' };

export default async function Page({ searchParams }: { searchParams: Promise<{ cols?: string }> }) {
  const p = await person(), versions = ((await searchParams).cols ?? '').match(/[0-9a-f]{8}-[0-9a-f-]{27}/g) ?? [];
  const [frames, sets, shelves, saved, known] = await Promise.all([listFrames(p), listSets(p), listShelves(p), listBenches(p), candidatesFor(p, versions)]);
  return <Bench frames={frames} sets={sets} shelves={shelves.filter((s) => !s.query && s.items > 0).map(({ id, name }) => ({ id, name }))} saved={saved.map((b) => ({ id: b.id, name: b.name, state: b.state, person: b.person, mine: b.person_id === p.id }))} known={known.map(candidateOf)}
    may={{ judge: may(p, 'verdict.give'), choice: may(p, 'choice.make'), edit: may(p, 'item.edit'), frames: may(p, 'frame.edit'), profile: may(p, 'profile.edit') }} />;
}
