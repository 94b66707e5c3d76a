import { listFrames } from '@/server/frames/service';
import { listShelves } from '@/server/items/service';
import { searchCounts, searchItems, searchShelves, spineOf, type Search } from '@/server/items/search';
import { listLicences } from '@/server/licences/service';
import { may } from '@/server/people/roles';
import { person } from '@/server/web';
import { Refresh } from '@/ui/kit/Refresh';
import { Shelves } from '@/ui/shelves/Shelves';

export const metadata = { title: 'Shelves' };

export default async function Page({ searchParams }: { searchParams: Promise<Search> }) {
  const p = await person(), s = await searchParams, flat = s.view === 'table' || !!s.shelf || s.recent === '1' || s.archived === '1' || !!s.sort;
  const [shelves, spines, counts, frames, licences] = await Promise.all([listShelves(p), flat ? searchItems(p, s, 100).then((r) => r.rows) : searchShelves(p, s), searchCounts(p, s), listFrames(p), may(p, 'item.edit') ? listLicences(p) : []]);
  return (
    <>
      <Refresh subjects={['item', 'shelf', 'intake']} />
      <Shelves shelves={shelves.map(({ id, name, note, items, query, away }) => ({ id, name, note, items, query, away }))} frames={frames} total={shelves.reduce((n, x) => n + (x.query ? 0 : x.items), 0)} counts={counts} licences={licences.map(({ id, name }) => ({ id, name }))}
        may={{ rollOut: may(p, 'rollout.plan'), edit: may(p, 'item.edit'), shelf: may(p, 'shelf.edit'), archive: may(p, 'item.archive'), house: may(p, 'ribbon.house') }} spines={spines.map(spineOf)} />
    </>
  );
}
