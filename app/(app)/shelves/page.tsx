import { listFrames } from '@/server/frames/service';
import { listShelves, listSpines } from '@/server/items/service';
import { may } from '@/server/people/roles';
import { person } from '@/server/web';
import { Refresh } from '@/ui/kit/Refresh';
import { Shelves } from '@/ui/shelves/Shelves';

export const metadata = { title: 'Shelves' };

type Search = Promise<Record<'q' | 'kind' | 'status' | 'ribbon' | 'shelf', string | undefined>>;

export default async function Page({ searchParams }: { searchParams: Search }) {
  const p = await person(), s = await searchParams;
  const [shelves, spines, frames] = await Promise.all([listShelves(p), listSpines(p, { words: s.q, kind: s.kind, status: s.status, ribbon: s.ribbon === '1', shelf: s.shelf }), listFrames(p)]);
  return (
    <>
      <Refresh subjects={['item', 'shelf']} />
      <Shelves shelves={shelves.map(({ id, name, note, items }) => ({ id, name, note, items }))} frames={frames} total={shelves.reduce((n, x) => n + x.items, 0)} mayRollOut={may(p, 'rollout.plan')}
        spines={spines.map((v) => ({ id: v.id, versionId: v.version_id, kind: v.kind, title: v.title, headings: v.headings, shelfId: v.shelf_id, number: v.number, status: v.status, selvedge: v.selvedge, mine: v.mine, house: v.house, assumed: v.assumed, points: v.points, stations: v.stations, stale: v.stale, matching: v.matching, language: v.format.replace('@', ' ') }))} />
    </>
  );
}
