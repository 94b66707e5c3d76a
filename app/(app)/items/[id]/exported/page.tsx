import Link from 'next/link';
import { notFound } from 'next/navigation';
import { orNull } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { frameChoices } from '@/server/frames/service';
import { signedInPerson } from '@/server/http';
import { itemFor } from '@/server/items/service';
import { presetShownFor } from '@/server/references/service';
import { presetLanguages } from '@/server/versions/preset-forms';
import { Exported } from '@/ui/exported/Exported';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Against the editor’s export' };

interface Props {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ form?: string }>;
}

export default async function Page({ params, searchParams }: Props) {
  const person = await signedInPerson();
  const { id } = await params;
  const found = isUuid(id) ? await orNull(itemFor(person, id)) : null;
  if (!found || found.item.kind !== 'preset') notFound();
  const { form: wanted } = await searchParams;
  const version = found.forms.find((form) => form.id === wanted) ?? found.newest;
  const [shown, frames, languages] = await Promise.all([
    presetShownFor(person, { ...version, kind: found.item.kind }),
    frameChoices(person),
    presetLanguages(person),
  ]);
  return (
    <div className="px-6 pb-16 pt-[18px]">
      <PageHead
        title={
          <Link className="hover:underline" href={`/items/${found.item.id}`}>
            {found.item.title}
          </Link>
        }
        note="against an editor’s own export"
      />
      <Exported
        version={version.id}
        title={found.item.title}
        editor={languages.find((one) => one.id === version.format)?.title ?? 'the editor'}
        frames={frames}
        notShown={shown?.notShown ?? []}
      />
    </div>
  );
}
