import Link from 'next/link';
import { counted } from '@/core/words';
import { signedInPerson } from '@/server/http';
import { listPacks } from '@/server/packs/service';
import { ListTitle } from '@/ui/kit/ListTitle';
import { Refresh } from '@/ui/kit/Refresh';
import { Ago } from '@/ui/kit/time';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Packs' };

export default async function Page() {
  const packs = await listPacks(await signedInPerson());
  return (
    <div className="max-w-[1080px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['arrival', 'pack']} />
      <PageHead title="Packs" note="what was delivered together" />
      {packs.length > 0 ? (
        <table className="list">
          <thead>
            <tr>
              <th>Pack</th>
              <th>Supplier</th>
              <th>Licence</th>
              <th className="text-right">Items</th>
              <th className="text-right">Drafts</th>
              <th className="text-right">On stations</th>
              <th className="pl-6">Came</th>
            </tr>
          </thead>
          <tbody>
            {packs.map((pack) => (
              <tr key={pack.id} className="hover:bg-sheet">
                <td>
                  <ListTitle href={`/packs/${pack.id}`}>{pack.name}</ListTitle>
                  <span className="block text-[12px] text-soft">
                    {[pack.release && `release ${pack.release}`, pack.next_id && 'a newer release is here']
                      .filter(Boolean)
                      .join(', ')}
                  </span>
                </td>
                <td>{pack.supplier || <span className="text-soft">own work</span>}</td>
                <td>{pack.licence ?? <span className="text-soft">{pack.supplier ? 'not known' : 'own work'}</span>}</td>
                {[pack.items, pack.drafts, pack.stations].map((count, i) => (
                  <td key={i} className="text-right">
                    {count || <span className="text-soft">–</span>}
                  </td>
                ))}
                <td className="whitespace-nowrap pl-6 text-soft">
                  <Ago at={pack.created_at.toISOString()} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-4 text-soft">
          No pack has come yet. Files that arrive together at{' '}
          <Link className="underline" href="/intake">
            Intake
          </Link>{' '}
          become one when they are taken in.
        </p>
      )}
      {packs.length > 0 && <p className="mt-3 text-soft">{counted(packs.length, 'pack')}</p>}
    </div>
  );
}
