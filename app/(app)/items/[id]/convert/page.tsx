import Link from 'next/link';
import { notFound } from 'next/navigation';
import { Problem } from '@/core/problem';
import { previewConversion } from '@/server/versions/convert';
import { presetLanguages, previewPreset } from '@/server/versions/preset-forms';
import { itemFor } from '@/server/items/service';
import { signedInPerson } from '@/server/http';
import type { Person } from '@/server/people/roles';
import { Convert } from '@/ui/convert/Convert';
import { PresetPlan } from '@/ui/convert/PresetPlan';
import { Targets } from '@/ui/convert/Targets';
import { Notice } from '@/ui/kit/Notice';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Convert' };

interface Props {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ form?: string; to?: string }>;
}

export default async function Page({ params, searchParams }: Props) {
  const person = await signedInPerson();
  const found = await itemFor(person, (await params).id).catch(() => null);
  if (!found || found.item.kind !== 'preset') notFound();
  const { form: wanted, to = '' } = await searchParams;
  const version = found.forms.find((form) => form.id === wanted) ?? found.newest;
  const languages = (await presetLanguages(person)).filter(({ id }) => id !== version.format);
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
        note={to ? 'preset into preset' : 'preset into look'}
      />
      <Targets item={found.item.id} form={wanted} to={to} languages={languages} />
      {to ? (
        <ForEditor key={to} person={person} versionId={version.id} to={to} />
      ) : (
        <Convert
          versionId={version.id}
          title={found.item.title}
          first={await previewConversion(person, version.id, 33)}
        />
      )}
    </div>
  );
}

/** What the editor's language can say; or why it can say nothing. */
async function ForEditor({ person, versionId, to }: { person: Person; versionId: string; to: string }) {
  const plan = await previewPreset(person, versionId, to).catch((error: unknown) => {
    if (error instanceof Problem) return error;
    throw error;
  });
  if (plan instanceof Problem) return <Notice problem={plan.toJSON()} />;
  return <PresetPlan versionId={versionId} to={to} plan={plan} />;
}
