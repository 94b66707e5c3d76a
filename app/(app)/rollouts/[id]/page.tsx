import Link from 'next/link';
import { notFound } from 'next/navigation';
import { Problem } from '@/core/problem';
import { may } from '@/server/people/roles';
import { rolloutFor, type StepRow } from '@/server/rollouts/service';
import { stationViews } from '@/server/stations/views';
import { signedInPerson } from '@/server/http';
import { PageHead } from '@/ui/shell/Shell';
import { fidelity } from '@/ui/kit/fidelity';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';
import { RolloutActions } from '@/ui/rollouts/RolloutActions';

export const metadata = { title: 'Rollout' };
const deed = (s: StepRow) => {
  if (s.do_what === 'remove') return 'take away';
  if (s.expect) return 'replace';
  return 'write';
};

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const person = await signedInPerson();
  const { id } = await params;
  const found = await rolloutFor(person, id).catch((error: unknown) => {
    if (error instanceof Problem) return null;
    throw error;
  });
  if (!found) notFound();
  const { rollout, steps, undoneBy } = found;
  const live = steps.filter((s) => s.do_what !== 'none');
  const settled = live.filter((s) => s.outcome).length;
  const bad = live.filter((s) => s.outcome && s.outcome !== 'done').length;
  const views = await stationViews(person);
  const stations = [...new Map(steps.map((s) => [s.station_id, s.station]))];
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
      {rollout.undoes && (
        <p className="mb-3 text-soft">
          Takes back an{' '}
          <Link className="underline" href={`/rollouts/${rollout.undoes}`}>
            earlier rollout
          </Link>
          .
        </p>
      )}
      {undoneBy && (
        <p className="mb-3 text-soft">
          Taken back by{' '}
          <Link className="underline" href={`/rollouts/${undoneBy}`}>
            its undoing
          </Link>
          .
        </p>
      )}
      {rollout.status !== 'planned' && live.length > 0 && (
        <div className="mb-6 max-w-[560px]">
          <p className="mb-1">
            {settled} of {live.length} files reported
            {bad > 0 && <span className="text-madder">, {bad} left alone or failed</span>}
          </p>
          <div
            role="progressbar"
            aria-label="Files reported"
            aria-valuenow={settled}
            aria-valuemin={0}
            aria-valuemax={live.length}
            className="h-[4px] bg-line"
          >
            <div className="h-full bg-verd" style={{ width: `${(100 * settled) / live.length}%` }} />
          </div>
        </div>
      )}
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
                {own.filter((s) => s.do_what !== 'none').length} files,{' '}
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
            </h2>
            <table className="list table-fixed">
              <colgroup>
                <col className="w-[190px]" />
                <col className="w-[120px]" />
                <col className="w-[76px]" />
                <col />
                <col className="w-[230px]" />
              </colgroup>
              <thead>
                <tr>
                  <th>Item</th>
                  <th>For</th>
                  <th>Does</th>
                  <th>File</th>
                  <th>State</th>
                </tr>
              </thead>
              <tbody>
                {own.map((step) => {
                  const st = stateOf(step);
                  return (
                    <tr
                      key={step.id}
                      data-path={step.path}
                      data-state={step.do_what === 'none' ? step.decision : st.state}
                    >
                      <td className="font-serif text-[15px] [overflow-wrap:anywhere]">
                        {step.title ??
                          (step.lines || step.decision === 'put' || step.do_what === 'remove'
                            ? 'the list of files'
                            : '–')}
                        {step.number && <span className="font-sans text-[12px] text-soft"> v{step.number}</span>}
                      </td>
                      <td>
                        {view?.editors.find((e) => e.editor === step.editor_id && e.version === step.editor_version)
                          ?.title ?? `${step.editor_id} ${step.editor_version}`}
                      </td>
                      <td>{step.do_what === 'none' ? <span className="text-soft">nothing</span> : deed(step)}</td>
                      <td className="text-[12px] [overflow-wrap:anywhere]">
                        {step.path || <span className="text-soft">–</span>}
                        {step.do_what === 'put' && (
                          <span className="block text-soft">
                            {(step.size / 1000).toFixed(0)} kB{step.points ? `, ${step.points} points` : ''}
                            {fidelity(step.residual)}
                          </span>
                        )}
                      </td>
                      <td>
                        {step.do_what === 'none' ? (
                          <>
                            <State of={step.decision} />
                            <span className="block text-[12px] text-soft">{step.note}</span>
                          </>
                        ) : (
                          <>
                            <State of={st.state} />
                            <span className="block text-[12px] text-soft">{st.reason || step.note}</span>
                          </>
                        )}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </section>
        );
      })}
    </div>
  );
}
