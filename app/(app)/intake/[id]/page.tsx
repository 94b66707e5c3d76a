import { notFound } from 'next/navigation';
import { Problem } from '@/core/problem';
import { listShelves } from '@/server/items/service';
import { listLicences } from '@/server/licences/service';
import { arrivalView, releaseFor } from '@/server/packs/service';
import { may } from '@/server/people/roles';
import { person } from '@/server/web';
import { PageHead } from '@/ui/frame/Shell';
import { Arrival } from '@/ui/intake/Arrival';
import { Reading } from '@/ui/intake/Reading';
import { Release } from '@/ui/intake/Release';
import { Notice } from '@/ui/kit/Notice';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';

export const metadata = { title: 'Arrival' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ group?: string }>;
}) {
  const p = await person();
  const { id } = await params;
  const only = (await searchParams).group ?? null;
  const view = await arrivalView(p, id, only).catch((e: unknown) => {
    if (e instanceof Problem || (e as { code?: string }).code === '22P02') return null;
    throw e;
  });
  if (!view) notFound();
  const { intake, groups } = view;
  const [shelves, licences, release] = await Promise.all([
    listShelves(p),
    listLicences(p),
    only ? null : releaseFor(p, intake),
  ]);
  const settled = intake.status !== 'reading' && intake.status !== 'arriving';
  return (
    <div className="flex min-h-[calc(100vh-52px)] flex-col px-6 pt-[18px]">
      <Refresh subjects={['intake']} />
      <PageHead
        title={intake.name}
        note={
          <span className="inline-flex gap-2">
            <State of={intake.status} />
            {settled && `${view.files.toLocaleString('en')} files, ${view.takeable.toLocaleString('en')} to be taken`}
          </span>
        }
      />
      {intake.status === 'arriving' && (
        <p className="py-6 text-soft">
          {intake.arrived} of {intake.files} files have come.{' '}
          {intake.station
            ? `The agent of ${intake.station} sends the rest when it next reports.`
            : 'Go back to Intake to send the rest.'}
        </p>
      )}
      {intake.status === 'reading' && intake.job_id && <Reading jobId={intake.job_id} />}
      {intake.status === 'failed' && <Notice problem={intake.error} className="my-4" />}
      {release && settled && (
        <Release pack={release.pack} when={<Ago at={release.pack.at} />} changes={release.changes} />
      )}
      {settled && (
        <Arrival
          id={intake.id}
          name={intake.name}
          status={intake.status}
          only={only}
          may={may(p, 'intake.accept')}
          takeable={view.takeable}
          supplier={release?.pack.supplier ?? ''}
          shelves={shelves.filter((s) => !s.query).map(({ id: s, name }) => ({ id: s, name }))}
          licences={licences.map((l) => ({ id: l.id, name: l.name }))}
          groups={groups.map((g) => ({
            group: g.group,
            count: g.count,
            rows: g.rows.map((e) => ({
              id: e.id,
              path: e.path,
              size: e.size,
              outcome: e.outcome,
              proposal: e.proposal,
              corrected: e.corrected,
              kind: e.kind,
              format: e.format,
              title: e.title,
              headings: e.headings,
              needs: e.needs,
              selvedge: e.selvedge,
              note: e.note,
              caution: e.caution,
              problem: e.problem,
              targetItem: e.target_item_id,
              targetTitle: e.target_title,
              targetPath: e.target_path,
              likeness: e.likeness,
              confidence: e.confidence,
              evidence: e.evidence,
              mismatches: e.mismatches,
              itemId: e.item_id,
            })),
          }))}
        />
      )}
    </div>
  );
}
