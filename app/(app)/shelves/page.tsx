import { frameChoices } from '@/server/frames/service';
import { firstSteps } from '@/server/studio/first-steps';
import { freshCount } from '@/server/search/fresh';
import { listShelves } from '@/server/items/service';
import { searchShelves, spineOf, type Search } from '@/server/search/service';
import { licenceChoices } from '@/server/licences/service';
import { may } from '@/server/people/roles';
import { signedInPerson } from '@/server/http';
import { pack } from '@/ui/kit/packed';
import { Refresh } from '@/ui/kit/Refresh';
import { searchOf } from '@/ui/shelves/model/address';
import { ShelvesOfPage } from '@/ui/shelves/ShelvesOfPage';
import type { ShelvesProps } from '@/ui/shelves/shelves-context';

export const metadata = { title: 'Shelves' };

export default async function Page({ searchParams }: { searchParams: Promise<Search> }) {
  const person = await signedInPerson();
  const search = await searchParams;
  const [shelves, { flat, rows: spines, counts }, frames, licences, fresh, steps] = await Promise.all([
    listShelves(person),
    searchShelves(person, search),
    frameChoices(person),
    may(person, 'item.edit') ? licenceChoices(person) : [],
    freshCount(person),
    firstSteps(person),
  ]);
  const props: ShelvesProps = {
    shelves: shelves.map(({ id, name, note, items, query, away }) => ({ id, name, note, items, query, away })),
    frames,
    steps,
    given: { flat, counts, spines: spines.map(spineOf), search: searchOf((k) => search[k]) },
    fresh,
    total: shelves.reduce((n, x) => n + (x.query ? 0 : x.items), 0),
    licences,
    may: {
      rollOut: may(person, 'rollout.plan'),
      edit: may(person, 'item.edit'),
      convert: may(person, 'item.convert'),
      shelf: may(person, 'shelf.edit'),
      archive: may(person, 'item.archive'),
      approve: may(person, 'item.approve'),
      house: may(person, 'ribbon.house'),
    },
  };
  return (
    <>
      <Refresh subjects={['item', 'shelf', 'arrival']} />
      <ShelvesOfPage packed={pack(props)} />
    </>
  );
}
