import Link from 'next/link';
import { listConversions } from '@/server/conversions/service';
import { signedInPerson } from '@/server/http';
import { presetLanguages } from '@/server/versions/preset-forms';
import { recipeWords } from '@/ui/conversions/model/recipe-words';
import { ListTitle } from '@/ui/kit/ListTitle';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Conversions' };

export default async function Page() {
  const person = await signedInPerson();
  const [all, languages] = await Promise.all([listConversions(person), presetLanguages(person)]);
  const open = all.filter(({ status }) => status === 'planned' || status === 'paused').length;
  return (
    <div className="max-w-[1080px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['conversion']} />
      <PageHead title="Conversions" note={all.length ? `${open} planned or paused` : 'none yet'}>
        <Link className="button" href="/convert/match">
          Camera match
        </Link>
        <Link className="button" href="/convert/charts">
          Charts
        </Link>
        <Link className="button" href="/shelves?stale=yes">
          Show what is stale
        </Link>
        <Link className="button main" href="/shelves?kind=preset">
          Choose presets
        </Link>
      </PageHead>
      {all.length ? (
        <table className="list">
          <thead>
            <tr>
              <th>Conversion</th>
              <th>Becomes</th>
              <th>State</th>
              <th className="text-right">Made</th>
              <th className="pl-6">By</th>
              <th>When</th>
            </tr>
          </thead>
          <tbody>
            {all.map((one) => (
              <tr key={one.id} className="hover:bg-sheet">
                <td>
                  <ListTitle href={`/convert/${one.id}`}>{one.title}</ListTitle>
                </td>
                <td>{one.again ? 'made again, as before' : recipeWords(one.recipe, languages)}</td>
                <td>
                  <State of={one.status} />
                  {one.failed > 0 && (
                    <span className="block text-[12px] text-madder">{one.failed} could not be made</span>
                  )}
                </td>
                <td className="text-right">
                  {one.made} of {one.rows}
                </td>
                <td className="pl-6">{one.person}</td>
                <td className="whitespace-nowrap text-soft">
                  <Ago at={one.created_at.toISOString()} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="max-w-[640px] border-t border-line py-4 text-soft">
          Presets become looks, or presets of another editor; looks and camera profiles become other files. Choose items
          on the shelves, a whole shelf or a pack, and take Convert there: what becomes of each is shown first, and
          nothing is made before you start it.
        </p>
      )}
    </div>
  );
}
