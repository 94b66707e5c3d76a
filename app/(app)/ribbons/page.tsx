import Link from 'next/link';
import { listRibbons, type RibbonRow } from '@/server/ribbons/service';
import { may } from '@/server/people/roles';
import { signedInPerson } from '@/server/http';
import { PageHead } from '@/ui/shell/Shell';
import { Refresh } from '@/ui/kit/Refresh';
import { RibbonList } from '@/ui/ribbons/RibbonList';

export const metadata = { title: 'Ribbons' };
const HALF_A_YEAR = 183 * 24 * 3600e3;
const now = (): number => Date.now();

export default async function Page() {
  const person = await signedInPerson();
  const { mine, house } = await listRibbons(person);
  const since = now() - HALF_A_YEAR;
  const plain = (ribbon: RibbonRow) => ({
    id: ribbon.id,
    itemId: ribbon.item_id,
    title: ribbon.title,
    shelf: ribbon.shelf,
    kind: ribbon.kind,
    selvedge: ribbon.selvedge,
    by: ribbon.made_by,
    at: ribbon.made_at.toISOString(),
    used: ribbon.used_at?.toISOString() ?? null,
    stations: ribbon.stations,
    forgotten: ribbon.made_at.getTime() < since && (!ribbon.used_at || ribbon.used_at.getTime() < since),
  });
  return (
    <div className="max-w-[980px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['item']} />
      <PageHead title="Ribbons" note="the short everyday list, in its order">
        <Link className="button" href="/stations/favorites">
          Favorites at the stations
        </Link>
      </PageHead>
      <h2 className="mb-1 text-[17px]">Mine</h2>
      <RibbonList ribbons={mine.map(plain)} whose="mine" may={may(person, 'ribbon.own')} />
      <h2 className="mb-1 mt-8 text-[17px]">Of the house</h2>
      <RibbonList ribbons={house.map(plain)} whose="house" may={may(person, 'ribbon.house')} />
    </div>
  );
}
