import { notFound } from 'next/navigation';
import { Problem } from '@/core/problem';
import { nounFor } from '@/core/words';
import { frameChoices } from '@/server/frames/service';
import { listShelves } from '@/server/items/service';
import { licenceChoices } from '@/server/licences/service';
import { arrivalView, releaseFor, type ArrivalView } from '@/server/arrivals/service';
import { may } from '@/server/people/roles';
import { notShownOf } from '@/server/references/service';
import { signedInPerson } from '@/server/http';
import { PageHead } from '@/ui/shell/Shell';
import { Arrival } from '@/ui/intake/Arrival';
import { ReadingProgress } from '@/ui/intake/ReadingProgress';
import { Release } from '@/ui/intake/Release';
import { Notice } from '@/ui/kit/Notice';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';

const MOST_WORDS = 200;

export const metadata = { title: 'Arrival' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ group?: string; words?: string; frame?: string }>;
}) {
  const person = await signedInPerson();
  const { id } = await params;
  const { group: only = null, words = '', frame } = await searchParams;
  const view = await arrivalView(person, id, only, words.slice(0, MOST_WORDS)).catch((error: unknown) => {
    if (error instanceof Problem || (error as { code?: string }).code === '22P02') return null;
    throw error;
  });
  if (!view) notFound();
  const { arrival, groups } = view;
  const [frames, shelves, licences, release] = await Promise.all([
    frameChoices(person),
    listShelves(person),
    licenceChoices(person),
    only || words ? null : releaseFor(person, arrival),
  ]);
  const settled = arrival.status !== 'reading' && arrival.status !== 'arriving';
  return (
    <div className="flex min-h-[calc(100vh-52px)] flex-col px-6 pt-[18px]">
      <Refresh subjects={['arrival']} />
      <PageHead
        title={arrival.name}
        note={
          <span className="inline-flex gap-2">
            <State of={arrival.status} />
            {settled &&
              `${view.files.toLocaleString('en')} ${nounFor(view.files, 'file')}, ${view.takeable.toLocaleString('en')} to be taken`}
          </span>
        }
      />
      <HowFar view={view} />
      {release && settled && (
        <Release pack={release.pack} when={<Ago at={release.pack.at} />} changes={release.changes} />
      )}
      {(settled || view.stuck) && (
        <Arrival
          id={arrival.id}
          name={arrival.name}
          status={arrival.status}
          only={only}
          words={words}
          papers={view.papers}
          frames={frames}
          frame={frames.find((one) => one.id === frame)?.id ?? frames[0]?.id ?? ''}
          stuck={view.stuck}
          may={may(person, 'arrival.accept')}
          takeable={view.takeable}
          files={view.files}
          supplier={release?.pack.supplier ?? ''}
          shelves={shelves.filter((s) => !s.query).map(({ id: s, name }) => ({ id: s, name }))}
          licences={licences}
          groups={groups.map((entries) => ({
            group: entries.group,
            count: entries.count,
            takeable: entries.takeable,
            rows: entries.rows.map((entry) => ({
              id: entry.id,
              path: entry.path,
              size: entry.size,
              outcome: entry.outcome,
              proposal: entry.proposal,
              corrected: entry.corrected,
              kind: entry.kind,
              format: entry.format,
              title: entry.title,
              headings: entry.headings,
              needs: entry.needs,
              selvedge: entry.selvedge,
              note: entry.note,
              caution: entry.caution,
              notShown: notShownOf(entry.kind, entry.facts),
              problem: entry.problem,
              targetItem: entry.target_item_id,
              targetTitle: entry.target_title,
              targetPath: entry.target_path,
              likeness: entry.likeness,
              confidence: entry.confidence,
              evidence: entry.evidence,
              mismatches: entry.mismatches,
              itemId: entry.item_id,
              frameId: entry.frame_id,
            })),
          }))}
        />
      )}
    </div>
  );
}

/** How far an arrival is that cannot be settled yet. */
function HowFar({ view: { arrival, stuck } }: { view: ArrivalView }) {
  if (stuck)
    return (
      <p role="status" className="my-4">
        Its reading was broken off, and nobody goes on with it. Nothing of it was taken in.
      </p>
    );
  if (arrival.status === 'arriving')
    return (
      <p className="py-6 text-soft">
        {arrival.arrived} of {arrival.files} files have come.{' '}
        {arrival.station
          ? `The agent of ${arrival.station} sends the rest when it next reports.`
          : 'Go back to Intake to send the rest.'}
      </p>
    );
  if (arrival.status === 'reading' && arrival.job_id) return <ReadingProgress jobId={arrival.job_id} />;
  if (arrival.status === 'failed') return <Notice problem={arrival.error} className="my-4" />;
  return null;
}
