import Link from 'next/link';
import { notFound } from 'next/navigation';
import { orNull } from '@/core/problem';
import { may } from '@/server/people/roles';
import { beyond } from '@/server/rollouts/proofs';
import { doubleEffects, rolloutFor, type StepRow } from '@/server/rollouts/service';
import { proofLimits } from '@/server/studio/service';
import { stationViews, type StationView } from '@/server/stations/views';
import { signedInPerson } from '@/server/http';
import { PageHead } from '@/ui/shell/Shell';
import { PlanningProgress } from '@/ui/rollouts/PlanningProgress';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';
import { counted } from '@/ui/kit/words';
import { LeaveOutStation, LeaveOutStep } from '@/ui/rollouts/LeaveOut';
import { Reported } from '@/ui/rollouts/Reported';
import { RolloutActions } from '@/ui/rollouts/RolloutActions';
import { Steps } from '@/ui/rollouts/Steps';

export const metadata = { title: 'Rollout' };
/** Titles of a station's editors, by editor and version. */
const titlesOf = (view: StationView | undefined): Map<string, string> =>
  new Map(view?.editors.map((editor) => [`${editor.editor} ${editor.version}`, editor.title]));

const isWaiting = (step: StepRow): boolean => step.do_what !== 'none' && step.outcome === null;

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const person = await signedInPerson();
  const { id } = await params;
  const found = await orNull(rolloutFor(person, id));
  if (!found) notFound();
  const { rollout, steps, undoneBy } = found;
  const [within, doubles] = await Promise.all([
    proofLimits(),
    rollout.status === 'planned' ? doubleEffects(steps) : [],
  ]);
  const far = new Set(beyond(steps, within));
  const live = steps.filter((s) => s.do_what !== 'none');
  const settled = live.filter((s) => s.outcome).length;
  const bad = live.filter((s) => s.outcome && s.outcome !== 'done').length;
  const stations = [...new Map(steps.map((s) => [s.station_id, s.station]))];
  const views = await stationViews(
    person,
    stations.map(([station]) => station),
  );
  const mayLeave = rollout.status === 'confirmed' && may(person, 'rollout.confirm');
  const stateOf = (step: StepRow): { state: string; reason: string } => {
    if (step.outcome === 'done') {
      const row =
        rollout.undoes || rollout.status === 'undone'
          ? undefined
          : views
              .find((v) => v.station.id === step.station_id)
              ?.rows.find((r) => r.path === step.path && r.base === step.sha);
      return row
        ? { state: row.state, reason: row.reason }
        : { state: rollout.status === 'undone' ? 'undone' : 'done', reason: step.message };
    }
    return step.outcome
      ? { state: step.outcome, reason: step.message }
      : { state: rollout.status === 'confirmed' ? 'waiting' : 'planned', reason: '' };
  };
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['rollout', 'station']} />
      <PageHead
        title={rollout.title}
        note={
          <span className="inline-flex gap-2">
            <State of={rollout.status} />
            by {rollout.person}, <Ago at={rollout.created_at.toISOString()} />
          </span>
        }
      >
        <RolloutActions
          id={rollout.id}
          status={rollout.status}
          files={rollout.status === 'planned' ? live.length : live.filter((s) => s.outcome === 'done').length}
          stations={new Set(live.map((s) => s.station_id)).size}
          isUndo={!!rollout.undoes}
          may={may(person, 'rollout.confirm')}
        />
      </PageHead>
      {rollout.status === 'planning' && rollout.job_id && (
        <PlanningProgress rollout={rollout.id} jobId={rollout.job_id} may={may(person, 'rollout.plan')} />
      )}
      {rollout.status === 'planned' && far.size > 0 && (
        <p role="status" className="mb-3 max-w-[760px] border-l-[3px] border-madder pl-3">
          {counted(far.size, 'file')} would be further off than the studio takes (at most {within.mean} ΔE00 on average,{' '}
          {within.max} at the farthest color).{' '}
          {may(person, 'proof.set')
            ? 'Confirming lets them go, on your word.'
            : 'The lead has to confirm this rollout.'}
        </p>
      )}
      {doubles.map(({ preset, look }) => (
        <p key={preset} role="status" className="mb-3 max-w-[760px] border-l-[3px] border-ochre pl-3">
          {preset} calls{' '}
          <Link className="underline" href={`/items/${look.id}`}>
            {look.title}
          </Link>
          , which was made from it: whoever applies it has the effect twice. A companion preset, made on that look’s
          page, calls the look and touches nothing else.
        </p>
      ))}
      {rollout.undoes && <Undoing before="Takes back an" words="earlier rollout" id={rollout.undoes} />}
      {undoneBy && <Undoing before="Taken back by" words="its undoing" id={undoneBy} />}
      {rollout.status !== 'planned' && live.length > 0 && <Reported settled={settled} bad={bad} of={live.length} />}
      {stations.map(([sid, name]) => {
        const own = steps.filter((s) => s.station_id === sid);
        const view = views.find((v) => v.station.id === sid);
        return (
          <section key={sid} className="mb-8" aria-label={name}>
            <h2 className="mb-1 flex flex-wrap items-baseline gap-3 text-[17px]">
              <Link className="hover:underline" href={`/stations/${sid}`}>
                {name}
              </Link>
              <span className="font-sans text-[12.5px] font-normal tracking-normal text-soft">
                {counted(own.filter((s) => s.do_what !== 'none').length, 'file')},{' '}
                {(own.filter((s) => s.do_what === 'put').reduce((n, s) => n + s.size, 0) / 1e6).toFixed(1)} MB
              </span>
              {view?.editors
                .filter(
                  (editorState) =>
                    editorState.state === 'restart-due' &&
                    own.some((s) => s.editor_id === editorState.editor && s.editor_version === editorState.version),
                )
                .map((editorState) => (
                  <Link
                    key={editorState.editor + editorState.version}
                    href={`/stations/${sid}`}
                    className="font-sans text-[12.5px] font-medium tracking-normal"
                  >
                    <State of="restart-due" word={`restart due for ${editorState.title}`} />
                  </Link>
                ))}
              {view?.host && own.some((s) => s.sha) && !rollout.undoes && (
                <a
                  className="font-sans text-[12.5px] font-normal tracking-normal underline"
                  href={`/api/stations/${sid}/card?rollout=${rollout.id}`}
                >
                  as a zip for the card
                </a>
              )}
              {mayLeave && own.some(isWaiting) && (
                <LeaveOutStation
                  rollout={rollout.id}
                  station={{ id: sid, name }}
                  waiting={own.filter(isWaiting).length}
                />
              )}
            </h2>
            <Steps
              steps={own}
              stateOf={stateOf}
              titles={titlesOf(view)}
              isFar={(step) => far.has(step)}
              action={(step) =>
                mayLeave && isWaiting(step) ? (
                  <LeaveOutStep rollout={rollout.id} station={sid} step={step.id} path={step.path} />
                ) : null
              }
            />
          </section>
        );
      })}
    </div>
  );
}

function Undoing({ before, words, id }: { before: string; words: string; id: string }) {
  return (
    <p className="mb-3 text-soft">
      {before}{' '}
      <Link className="underline" href={`/rollouts/${id}`}>
        {words}
      </Link>
      .
    </p>
  );
}
