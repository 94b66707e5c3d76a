import { listRibbons, type RibbonRow } from '@/server/ribbons/service';
import { may } from '@/server/people/roles';
import { person } from '@/server/web';
import { PageHead } from '@/ui/frame/Shell';
import { Refresh } from '@/ui/kit/Refresh';
import { RibbonList } from '@/ui/ribbons/RibbonList';

export const metadata = { title: 'Ribbons' };
const HALF_A_YEAR = 183 * 24 * 3600e3;
const now = (): number => Date.now();

export default async function Page() {
  const p = await person();
  const { mine, house } = await listRibbons(p);
  const since = now() - HALF_A_YEAR;
  const plain = (r: RibbonRow) => ({
    id: r.id,
    itemId: r.item_id,
    title: r.title,
    shelf: r.shelf,
    kind: r.kind,
    selvedge: r.selvedge,
    by: r.made_by,
    at: r.made_at.toISOString(),
    used: r.used_at?.toISOString() ?? null,
    stations: r.stations,
    forgotten: r.made_at.getTime() < since && (!r.used_at || r.used_at.getTime() < since),
  });
  return (
    <div className="max-w-[980px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['item']} />
      <PageHead title="Ribbons" note="the short everyday list, in its order" />
      <h2 className="mb-1 text-[17px]">Mine</h2>
      <RibbonList ribbons={mine.map(plain)} whose="mine" may={may(p, 'ribbon.own')} />
      <h2 className="mb-1 mt-8 text-[17px]">Of the house</h2>
      <RibbonList ribbons={house.map(plain)} whose="house" may={may(p, 'ribbon.house')} />
    </div>
  );
}
