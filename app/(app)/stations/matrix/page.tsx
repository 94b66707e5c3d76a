import Link from 'next/link';
import { signedInPerson } from '@/server/http';
import { listEditors } from '@/server/editors/service';
import { listShelves } from '@/server/items/service';
import { listPacks } from '@/server/packs/service';
import { may } from '@/server/people/roles';
import { COLUMNS_AT_ONCE, matrixFor, ROWS_AT_ONCE } from '@/server/stations/matrix';
import { Refresh } from '@/ui/kit/Refresh';
import { MatrixChoice } from '@/ui/matrix/MatrixChoice';
import { MatrixTable } from '@/ui/matrix/MatrixTable';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Who has what' };

interface Props {
  searchParams: Promise<{ shelf?: string; pack?: string; due?: string; from?: string; at?: string }>;
}

const whole = (text: string | undefined): number => {
  const number = Number.parseInt(text ?? '', 10);
  return Number.isFinite(number) && number > 0 ? number : 0;
};

export default async function Page({ searchParams }: Props) {
  const person = await signedInPerson();
  const { shelf = '', pack = '', due = '', ...places } = await searchParams;
  const asked = { shelf, pack, due: due === '1', from: whole(places.from), at: whole(places.at) };
  const [matrix, shelves, packs, editors] = await Promise.all([
    matrixFor(person, asked),
    listShelves(person),
    listPacks(person),
    listEditors(person),
  ]);
  const addressWith = (more: Record<string, number>): string => {
    const query = new URLSearchParams({
      ...(shelf ? { shelf } : {}),
      ...(pack ? { pack } : {}),
      ...(asked.due ? { due: '1' } : {}),
      from: String(asked.from),
      at: String(asked.at),
      ...Object.fromEntries(Object.entries(more).map(([key, value]) => [key, String(value)])),
    });
    return `/stations/matrix?${query.toString()}`;
  };
  return (
    <div className="px-6 pb-16 pt-[18px]">
      <Refresh subjects={['station', 'rollout', 'item', 'shelf']} />
      <PageHead
        title="Who has what"
        note={
          matrix.places
            ? `${matrix.inStep} of ${matrix.places} places are in step${matrix.stations.length < matrix.columns ? ` at the ${matrix.stations.length} stations shown` : ''}`
            : 'how the items of a shelf, a pack or the everyday list stand at each station'
        }
      />
      <MatrixChoice
        chosen={asked}
        shelves={shelves.map(({ id, name }) => ({ id, title: name }))}
        packs={packs.map(({ id, name, release }) => ({
          id,
          title: name.includes(release) ? name : `${name} ${release}`,
        }))}
      />
      {matrix.rows.length ? (
        <MatrixTable
          stations={matrix.stations}
          rows={matrix.rows}
          titles={Object.fromEntries(
            editors.map(({ id, version, descriptor }) => [`${id}@${version}`, descriptor.title]),
          )}
          mayPlan={may(person, 'rollout.plan')}
        />
      ) : (
        <p className="border-t border-line py-2 text-soft">
          {asked.due ? 'Nothing of it is missing or due anywhere.' : 'Nothing in it is approved yet.'}
        </p>
      )}
      <p className="mt-3 flex gap-4">
        {asked.from + matrix.rows.length < matrix.of && (
          <Link className="underline" href={addressWith({ from: asked.from + ROWS_AT_ONCE })}>
            {matrix.of - asked.from - matrix.rows.length} more items
          </Link>
        )}
        {asked.at + matrix.stations.length < matrix.columns && (
          <Link className="underline" href={addressWith({ at: asked.at + COLUMNS_AT_ONCE })}>
            {matrix.columns - asked.at - matrix.stations.length} more stations
          </Link>
        )}
        {(asked.from > 0 || asked.at > 0) && (
          <Link className="underline" href={addressWith({ from: 0, at: 0 })}>
            back to the first
          </Link>
        )}
      </p>
    </div>
  );
}
