import { listFrames } from '@/server/frames/service';
import { freshCount } from '@/server/items/fresh';
import { listShelves } from '@/server/items/service';
import { searchShelves, spineOf, type Search } from '@/server/items/search';
import { listLicences } from '@/server/licences/service';
import { may } from '@/server/people/roles';
import { person } from '@/server/web';
import { Refresh } from '@/ui/kit/Refresh';
import { searchOf } from '@/ui/shelves/address';
import { Shelves } from '@/ui/shelves/Shelves';

export const metadata = { title: 'Shelves' };

export default async function Page({ searchParams }: { searchParams: Promise<Search> }) {
  const p = await person();
  const s = await searchParams;
  const [shelves, { flat, rows: spines, counts }, frames, licences, fresh] = await Promise.all([
    listShelves(p),
    searchShelves(p, s),
    listFrames(p),
    may(p, 'item.edit') ? listLicences(p) : [],
    freshCount(p),
  ]);
  return (
    <>
      <Refresh subjects={['item', 'shelf', 'intake']} />
      <Shelves
        shelves={shelves.map(({ id, name, note, items, query, away }) => ({ id, name, note, items, query, away }))}
        frames={frames}
        given={{ flat, counts, spines: spines.map(spineOf), search: searchOf((k) => s[k]) }}
        fresh={fresh}
        total={shelves.reduce((n, x) => n + (x.query ? 0 : x.items), 0)}
        licences={licences.map(({ id, name }) => ({ id, name }))}
        may={{
          rollOut: may(p, 'rollout.plan'),
          edit: may(p, 'item.edit'),
          shelf: may(p, 'shelf.edit'),
          archive: may(p, 'item.archive'),
          house: may(p, 'ribbon.house'),
        }}
      />
    </>
  );
}
