import type { ComponentProps } from 'react';
import Link from 'next/link';
import { notFound } from 'next/navigation';
import { orNull } from '@/core/problem';
import { frameChoices } from '@/server/frames/service';
import { may } from '@/server/people/roles';
import { readingsOf } from '@/server/rollouts/readings';
import { beyond } from '@/server/rollouts/proofs';
import { doubleEffects, rolloutFor, type RolloutRow, type StepRow } from '@/server/rollouts/service';
import { asksForReview, needsAnother } from '@/server/studio/review';
import { proofLimits } from '@/server/studio/service';
import { sightingsAt } from '@/server/sightings/service';
import { stationViews, type StationView } from '@/server/stations/views';
import { signedInPerson } from '@/server/http';
import { PageHead } from '@/ui/shell/Shell';
import { PlanningProgress } from '@/ui/rollouts/PlanningProgress';
import { Refresh } from '@/ui/kit/Refresh';
import { size } from '@/ui/kit/size';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';
import { counted } from '@/ui/kit/words';
import { CameraUsed } from '@/ui/rollouts/CameraUsed';
import { DoubleEffects } from '@/ui/rollouts/DoubleEffects';
import { LeaveOutStation, LeaveOutStep } from '@/ui/rollouts/LeaveOut';
import { Pace } from '@/ui/rollouts/Pace';
import { Readings } from '@/ui/rollouts/Readings';
import { Reported } from '@/ui/rollouts/Reported';
import { RolloutActions } from '@/ui/rollouts/RolloutActions';
import { SeeWorking } from '@/ui/sightings/SeeWorking';
import { Sighting } from '@/ui/sightings/Sighting';
import { stateWith } from '@/ui/sightings/sightings';
import { Steps } from '@/ui/rollouts/Steps';

export const metadata = { title: 'Rollout' };
/** Titles of a station's editors, by editor and version. */
const titlesOf = (view: StationView | undefined): Map<string, string> =>
  new Map(view?.editors.map((editor) => [`${editor.editor} ${editor.version}`, editor.title]));

const editorTitle = ({ editor_id, editor_version }: StepRow, view: StationView | undefined): string =>
  titlesOf(view).get(`${editor_id} ${editor_version}`) ?? editor_id;

const placedBy = ({ path, sha }: StepRow) => ({ path, base: sha });

/** Files of which their editor can be asked for a picture. */
const toBeSeen = (steps: readonly StepRow[], view: StationView | undefined, isUnseen: (step: StepRow) => boolean) =>
  steps.flatMap((step) => {
    const row = view?.rows.find(({ path, base }) => path === step.path && base === step.sha);
    return row?.asksForPictures && isUnseen(step)
      ? [{ path: step.path, title: step.title ?? '', editor: row.editor }]
      : [];
  });

/** Takes files of items away, and writes none; the lists that name them may be written anew. */
const takesAway = (steps: readonly StepRow[]): boolean =>
  steps.some((step) => step.do_what === 'remove') && !steps.some((step) => step.do_what === 'put' && step.version_id);

const isWaiting = (step: StepRow): boolean => step.do_what !== 'none' && step.outcome === null;

function whyKeptBack(rollout: RolloutRow): string {
  if (rollout.paused_at) return 'the rollout is halted';
  return stillToBegin(rollout) ? 'the time at which it begins is still to come' : 'waits until the rest is let go';
}

/** When it begins, where that is still to come. */
const stillToBegin = ({ starts_at }: RolloutRow): string | null =>
  starts_at && starts_at.getTime() > Date.now() ? starts_at.toISOString() : null;

/** How it stands at the station that it goes to first, while the rest waits; null where it goes to all. */
function firstOf(rollout: RolloutRow, live: readonly StepRow[], stateOf: (step: StepRow) => string) {
  if (!rollout.first_station_id || rollout.released_at) return null;
  const own = live.filter((step) => step.station_id === rollout.first_station_id);
  const there = own.filter((step) => step.outcome === 'done' && step.version_id);
  return {
    name: rollout.first_station ?? '',
    waiting: own.filter(isWaiting).length,
    listed: there.filter((step) => stateOf(step) === 'listed').length,
    there: there.length,
    goesOn: rollout.goes_on,
  };
}

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const person = await signedInPerson();
  const { id } = await params;
  const found = await orNull(rolloutFor(person, id));
  if (!found) notFound();
  const { rollout, steps, undoneBy } = found;
  const stations = [...new Map(steps.map((s) => [s.station_id, s.station]))];
  const stationsIn = stations.map(([station]) => station);
  const [within, review, doubles, sightingOf, frames, views, readings] = await Promise.all([
    proofLimits(),
    asksForReview(),
    rollout.status === 'planned' ? doubleEffects(steps) : [],
    sightingsAt(person, stationsIn),
    frameChoices(person),
    stationViews(person, stationsIn),
    readingsOf(person, rollout, steps),
  ]);
  const far = new Set(beyond(steps, within));
  const live = steps.filter((s) => s.do_what !== 'none');
  const settled = live.filter((s) => s.outcome).length;
  const bad = live.filter((s) => s.outcome && s.outcome !== 'done').length;
  const mayLeave = rollout.status === 'confirmed' && may(person, 'rollout.confirm');
  const maySee = may(person, 'sighting.ask');
  const maySay = rollout.status === 'planned' && may(person, 'rollout.plan');
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
    if (step.outcome) return { state: step.outcome, reason: step.message };
    if (step.kept_back && rollout.status === 'confirmed')
      return {
        state: 'waiting',
        reason: whyKeptBack(rollout),
      };
    if (step.held)
      return {
        state: rollout.status === 'confirmed' ? 'quit-due' : 'planned',
        reason: 'the editor runs there and would write over it: once it is quit, this goes on by itself',
      };
    return { state: rollout.status === 'confirmed' ? 'waiting' : 'planned', reason: '' };
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
          removes={takesAway(live)}
          again={rollout.job_id !== null}
          places={stations
            .filter(([station]) => live.some((step) => step.station_id === station))
            .map(([station, name]) => ({ id: station, name }))}
          review={needsAnother(review, person, rollout.person_id)}
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
      <DoubleEffects effects={doubles} />
      {rollout.status === 'confirmed' && may(person, 'rollout.confirm') && (
        <Pace
          id={rollout.id}
          paused={rollout.paused_at !== null}
          begins={stillToBegin(rollout)}
          first={firstOf(rollout, live, (step) => stateOf(step).state)}
          waiting={live.filter(isWaiting).length}
        />
      )}
      {rollout.undoes && <Undoing before="Takes back an" words="earlier rollout" id={rollout.undoes} />}
      {undoneBy && <Undoing before="Taken back by" words="its undoing" id={undoneBy} />}
      {rollout.status !== 'planned' && live.length > 0 && <Reported settled={settled} bad={bad} of={live.length} />}
      {stations.map(([sid, name]) => {
        const own = steps.filter((s) => s.station_id === sid);
        const view = views.find((v) => v.station.id === sid);
        return (
          <section key={sid} className="mb-8" aria-label={name}>
            <StationHead
              rollout={rollout.id}
              station={{ id: sid, name }}
              steps={own}
              view={view}
              mayLeave={mayLeave}
              seeing={
                maySee
                  ? toBeSeen(own, view, (step) => stateOf(step).state === 'listed' && !sightingOf(sid, placedBy(step)))
                  : []
              }
              frames={frames}
            />
            <Readings readings={readings.filter(({ station }) => station === sid)} />
            <Steps
              steps={own}
              stateOf={(step) => stateWith(stateOf(step), sightingOf(sid, placedBy(step)))}
              titles={titlesOf(view)}
              isFar={(step) => far.has(step)}
              action={(step) => {
                if (mayLeave && isWaiting(step))
                  return <LeaveOutStep rollout={rollout.id} station={sid} step={step.id} path={step.path} />;
                const sighting = step.outcome === 'done' ? sightingOf(sid, placedBy(step)) : undefined;
                if (sighting)
                  return (
                    <Sighting
                      sighting={sighting}
                      title={step.title ?? ''}
                      editor={editorTitle(step, view)}
                      may={maySee}
                    />
                  );
                return maySay && step.decision === 'camera-unused' ? (
                  <CameraUsed rollout={rollout.id} station={{ id: sid, name }} />
                ) : null;
              }}
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

interface HeadProps {
  rollout: string;
  station: { id: string; name: string };
  steps: readonly StepRow[];
  view: StationView | undefined;
  mayLeave: boolean;
  /** files that are listed, and not seen working yet */ seeing: ReturnType<typeof toBeSeen>;
  frames: ComponentProps<typeof SeeWorking>['frames'];
}

/** What a rollout is at one station, and what can be done about it there. */
function StationHead({ rollout, station, steps, view, mayLeave, seeing, frames }: HeadProps) {
  const live = steps.filter((step) => step.do_what !== 'none');
  const bytes = live.reduce((sum, step) => sum + (step.do_what === 'put' ? step.size : 0), 0);
  const waiting = live.filter(isWaiting).length;
  const restarts = (view?.editors ?? []).filter(
    ({ state, editor, version }) =>
      state === 'restart-due' && live.some((step) => step.editor_id === editor && step.editor_version === version),
  );
  const small = 'font-sans text-[12.5px] tracking-normal';
  return (
    <h2 className="mb-1 flex flex-wrap items-baseline gap-3 text-[17px]">
      <Link className="hover:underline" href={`/stations/${station.id}`}>
        {station.name}
      </Link>
      <span className={`${small} font-normal text-soft`}>
        {counted(live.length, 'file')}, {size(bytes)}
      </span>
      {restarts.map(({ editor, version, title }) => (
        <Link key={editor + version} href={`/stations/${station.id}`} className={`${small} font-medium`}>
          <State of="restart-due" word={`restart due for ${title}`} />
        </Link>
      ))}
      {live.length > 0 && (
        <Link className={`${small} font-normal underline`} href={`/rollouts/${rollout}/sheet/${station.id}`}>
          sheet for doing it by hand
        </Link>
      )}
      <span className={`${small} font-normal`}>
        {/* frames go along only where there is something to ask for: there may be a thousand stations */}
        <SeeWorking station={station} files={seeing} frames={seeing.length ? frames : []} />
      </span>
      {mayLeave && waiting > 0 && <LeaveOutStation rollout={rollout} station={station} waiting={waiting} />}
    </h2>
  );
}
