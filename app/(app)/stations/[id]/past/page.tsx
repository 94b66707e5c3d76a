import Link from 'next/link';
import { notFound } from 'next/navigation';
import { orNull } from '@/core/problem';
import { signedInPerson } from '@/server/http';
import { pastFor } from '@/server/stations/past';
import { counted } from '@/ui/kit/words';
import { PageHead } from '@/ui/shell/Shell';
import { DayChoice } from '@/ui/stations/DayChoice';
import { PastChanges, PastFiles, PastLists } from '@/ui/stations/Past';

export const metadata = { title: 'What lay there' };

interface Props {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ on?: string | string[] }>;
}

export default async function Page({ params, searchParams }: Props) {
  const person = await signedInPerson();
  const { id } = await params;
  const { on } = await searchParams;
  const past = await orNull(pastFor(person, id, typeof on === 'string' ? on : undefined));
  if (!past) notFound();
  const { station, day, today, lay, changes, lists } = past;
  const address = `/stations/${station.id}/past`;
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <PageHead
        title="What lay there"
        note={
          <>
            <Link className="underline" href={`/stations/${station.id}`}>
              {station.name}
            </Link>
            , as Etagere had put it there
          </>
        }
      />
      <DayChoice key={day} address={address} day={day} today={today} />
      <h2 className="mb-1 text-[17px]">
        {day === today ? 'Today' : `At the end of ${day}`}: {lay.length ? counted(lay.length, 'file') : 'nothing'}
      </h2>
      {lay.length > 0 && <PastFiles files={lay} />}
      <h2 className="mb-1 mt-8 text-[17px]">What changed it</h2>
      <PastChanges changes={changes} address={address} />
      <h2 className="mb-1 mt-8 text-[17px]">What its editors listed</h2>
      <PastLists lists={lists} />
    </div>
  );
}
