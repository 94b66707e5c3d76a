'use client';
/** A preset in another editor's language, before it is written: what becomes of each setting, and how far the two are apart. */
import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import type { AnswerOf } from '@/core/api';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

type Plan = AnswerOf<'GET /api/versions/:id/preset'>;

interface Props {
  versionId: string;
  /** the editor, as "id@version" */ to: string;
  plan: Plan;
  /** with the editor of its source, as it was measured */ agreement: ReactNode;
}

export function PresetPlan({ versionId, to, plan, agreement }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const write = () =>
    run(async () => {
      const made = await call('POST /api/versions/:id/preset', { id: versionId, body: { to } });
      router.push(`/items/${made.itemId}?form=${made.versionId}`);
    });
  const isEmpty = !plan.carried.length && !plan.approximated.length;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-8 max-[900px]:grid-cols-[minmax(0,1fr)]">
      <div>
        <Carried plan={plan} />
        <Approximated plan={plan} />
        <LeftOut plan={plan} />
      </div>
      <div>
        <Notice problem={problem} className="mb-3" />
        <Rendering plan={plan} />
        {agreement}
        <button className="button main" disabled={busy || isEmpty} onClick={() => void write()}>
          {busy ? 'Writing the preset' : `Write it for ${plan.editor}`}
        </button>
        <p className="mt-2 text-[12px] text-soft">
          {isEmpty
            ? `${plan.editor} can say nothing of this preset.`
            : 'It comes as another form of this item, as a draft, and knows what it was written from.'}
          {plan.refersTo.length > 0 && ` It goes on calling ${plan.refersTo.join(', ')} by name.`}
        </p>
      </div>
    </div>
  );
}

function Carried({ plan: { carried } }: { plan: Plan }) {
  return (
    <>
      <h2 className="mb-1 text-[17px]">Carried as it is</h2>
      <p className="mb-7 border-t border-line py-2">
        {carried.length ? carried.map(({ title }) => title).join(', ') : 'No setting.'}
      </p>
    </>
  );
}

const deltaE = (value: number): string => value.toFixed(value < 0.1 ? 4 : 2);

function Approximated({ plan: { approximated } }: { plan: Plan }) {
  return (
    <>
      <h2 className="mb-1 text-[17px]">Approximated</h2>
      {approximated.length ? (
        <table className="list mb-7">
          <thead>
            <tr>
              <th>Setting</th>
              <th className="text-right">Largest ΔE00</th>
              <th className="text-right">Mean</th>
              <th>How</th>
            </tr>
          </thead>
          <tbody>
            {approximated.map(({ setting, title, figure, meanDeltaE, reason }) => (
              <tr key={setting}>
                <td>{title}</td>
                <td className="text-right">{figure === null ? 'not rendered' : deltaE(figure)}</td>
                <td className="text-right">{meanDeltaE === null ? '' : deltaE(meanDeltaE)}</td>
                <td>{reason}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="mb-7 border-t border-line py-2 text-soft">Nothing has to be.</p>
      )}
    </>
  );
}

function LeftOut({ plan: { left } }: { plan: Plan }) {
  return (
    <>
      <h2 className="mb-1 text-[17px]">Left out</h2>
      {left.length ? (
        <table className="list">
          <thead>
            <tr>
              <th>Setting</th>
              <th>Why</th>
            </tr>
          </thead>
          <tbody>
            {left.map(({ setting, title, reason }) => (
              <tr key={setting}>
                <td className="[overflow-wrap:anywhere]">{title}</td>
                <td>{reason}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-2 text-soft">Nothing.</p>
      )}
    </>
  );
}

function Rendering({ plan: { rendering } }: { plan: Plan }) {
  return (
    <>
      <h2 className="mb-1 text-[15px]">The two presets, as rendered here</h2>
      <dl className="facts border-b border-line">
        {(
          [
            ['Mean', rendering.meanDeltaE],
            ['Largest', rendering.maxDeltaE],
          ] as const
        ).map(([label, value]) => (
          <div key={label}>
            <dt>{label}</dt>
            <dd className="font-semibold">
              {deltaE(value)} <span className="font-normal text-soft">ΔE00</span>
            </dd>
          </div>
        ))}
      </dl>
      <p className="mb-4 mt-1 text-[12px] text-soft">
        Of the settings that are rendered, over 20,000 colors; what is left out counts too.
      </p>
    </>
  );
}
