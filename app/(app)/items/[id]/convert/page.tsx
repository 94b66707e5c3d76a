import Link from 'next/link';
import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { Problem } from '@/core/problem';
import { measuredFor } from '@/server/editor-charts/service';
import { previewConversion } from '@/server/versions/convert';
import { presetLanguages, previewPreset } from '@/server/versions/preset-forms';
import { itemFor } from '@/server/items/service';
import { signedInPerson } from '@/server/http';
import type { Person } from '@/server/people/roles';
import { Convert } from '@/ui/convert/Convert';
import { EditorAgreement, type Measurement } from '@/ui/convert/EditorAgreement';
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
  const agreement = (
    <EditorAgreement item={found.item.id} form={version.id} measured={await measurements(person, version.id)} />
  );
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
        <ForEditor key={to} person={person} versionId={version.id} to={to} agreement={agreement} />
      ) : (
        <Convert
          versionId={version.id}
          title={found.item.title}
          first={await previewConversion(person, version.id, 33)}
          agreement={agreement}
        />
      )}
    </div>
  );
}

/** What charts have told of how well this form is rendered here. */
async function measurements(person: Person, versionId: string): Promise<Measurement[]> {
  const rows = await measuredFor(person, versionId);
  return rows.flatMap(({ chart_id, editor, valid_for, figures, read_at }) =>
    figures.agreement
      ? [{ chart: chart_id, editor, validFor: valid_for, figures: figures.agreement, at: read_at.toISOString() }]
      : [],
  );
}

interface ForEditorProps {
  person: Person;
  versionId: string;
  to: string;
  agreement: ReactNode;
}

/** What the editor's language can say; or why it can say nothing. */
async function ForEditor({ person, versionId, to, agreement }: ForEditorProps) {
  const plan = await previewPreset(person, versionId, to).catch((error: unknown) => {
    if (error instanceof Problem) return error;
    throw error;
  });
  if (plan instanceof Problem) return <Notice problem={plan.toJSON()} />;
  return <PresetPlan versionId={versionId} to={to} plan={plan} agreement={agreement} />;
}
