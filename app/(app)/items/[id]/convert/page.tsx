import Link from 'next/link';
import { notFound } from 'next/navigation';
import { previewConversion } from '@/server/versions/convert';
import { itemFor } from '@/server/items/service';
import { signedInPerson } from '@/server/http';
import { Convert } from '@/ui/convert/Convert';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Convert' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const person = await signedInPerson();
  const found = await itemFor(person, (await params).id).catch(() => null);
  if (!found || found.item.kind !== 'preset') notFound();
  return (
    <div className="max-w-[1080px] px-6 pb-16 pt-[18px]">
      <PageHead
        title={
          <>
            Convert{' '}
            <Link className="hover:underline" href={`/items/${found.item.id}`}>
              {found.item.title}
            </Link>
          </>
        }
        note="preset into look"
      />
      <Convert
        versionId={found.newest.id}
        title={found.item.title}
        first={await previewConversion(person, found.newest.id, 33)}
      />
    </div>
  );
}
