import { after } from 'next/server';
import { Suspense } from 'react';
import { noteView } from '@/server/items/service';
import { Refresh } from '@/ui/kit/Refresh';
import { SectionHead, Skeleton } from '@/ui/kit/Section';
import { beginReading, findItem, itemOfRequest, personOfRequest, type PageProps } from './request';
import { Facts } from './sections/Facts';
import { FormsSection } from './sections/Forms';
import { Head } from './sections/Head';
import { History } from './sections/History';
import { InspectionSection } from './sections/Inspection';
import { Lineage } from './sections/Lineage';
import { Picture } from './sections/Picture';
import { Placement } from './sections/Placement';
import { Showing } from './sections/Showing';
import { VerdictsSection } from './sections/Verdicts';
import { Versions } from './sections/Versions';
import { Words } from './sections/Words';

export async function generateMetadata({ params }: PageProps) {
  const found = await findItem((await params).id);
  return { title: found?.item.title ?? 'Item' };
}

/** An item. What takes time to work out, its inspection and a comparison, comes into its place when it is there. */
export default async function Page({ params, searchParams }: PageProps) {
  const { id } = await params;
  beginReading(id, searchParams);
  const person = await personOfRequest();
  await itemOfRequest(id);
  after(() => noteView(person, id));
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['item', 'rollout', 'station']} />
      <Head id={id} searchParams={searchParams} />
      <FormsSection id={id} searchParams={searchParams} />
      <div className="grid grid-cols-[300px_minmax(0,1fr)] gap-8 max-[900px]:grid-cols-[minmax(0,1fr)]">
        <aside className="min-w-0">
          <Facts id={id} searchParams={searchParams} />
          <Lineage id={id} />
        </aside>
        <div className="min-w-0">
          <Picture id={id} searchParams={searchParams} />
          <Words id={id} />
          <SectionHead>Versions</SectionHead>
          <Suspense fallback={<Skeleton lines={2} />}>
            <Versions id={id} searchParams={searchParams} />
          </Suspense>
          <Suspense fallback={<Skeleton lines={4} />}>
            <InspectionSection id={id} searchParams={searchParams} />
          </Suspense>
          <SectionHead>Will it show?</SectionHead>
          <Showing id={id} searchParams={searchParams} />
          <SectionHead>Verdicts</SectionHead>
          <VerdictsSection id={id} />
          <SectionHead>Where it is placed</SectionHead>
          <Placement id={id} />
          <SectionHead>What happened</SectionHead>
          <History id={id} />
        </div>
      </div>
    </div>
  );
}
