'use client';
/** What a look's values mean: an assumption until a person confirms it, and the approval that waits for that. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Encoding as EncodingValue, Values } from '@/core/look/look';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';
import { State } from '../kit/State';

interface Props {
  versionId: string;
  encoding: EncodingValue | null;
  confirmedBy: string | null;
  status: string;
  kind: string;
  approver: string | null;
  mayEdit: boolean;
  mayApprove: boolean;
}

export function EncodingAndStatus({
  versionId,
  encoding,
  confirmedBy,
  status,
  kind,
  approver,
  mayEdit,
  mayApprove,
}: Props) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [apart, setApart] = useState(!!encoding?.output);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const act = async (path: string, body?: unknown) => {
    setBusy(true);
    setProblem(null);
    try {
      await call(`/api/versions/${versionId}/${path}`, 'POST', body ?? {});
      setOpen(false);
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
    setBusy(false);
  };
  const choice = (name: string, label: string, values: string[], value: string) => (
    <label className="flex flex-col gap-0.5 text-[12px] text-soft">
      {label}
      <select name={name} className="field w-full text-[13.5px]" defaultValue={value}>
        {values.map((value) => (
          <option key={value}>{value}</option>
        ))}
      </select>
    </label>
  );
  const sides = (prefix: string, values: Values) => (
    <>
      {choice(
        `${prefix}primaries`,
        prefix ? 'Primaries given' : 'Primaries',
        ['sRGB', 'Display P3', 'Rec. 2020', 'ProPhoto'],
        values.primaries,
      )}
      {choice(
        `${prefix}transfer`,
        prefix ? 'Transfer given' : 'Transfer',
        ['sRGB', 'linear', 'gamma 2.2', 'gamma 2.4'],
        values.transfer,
      )}
      {choice(`${prefix}range`, prefix ? 'Range given' : 'Range', ['full', 'legal'], values.range)}
    </>
  );
  const scene = encoding && (
    <>
      {choice('referred', 'Referred to', ['display', 'scene'], encoding.referred)}
      {choice('white', 'White', ['D65', 'D50'], encoding.white)}
    </>
  );
  return (
    <div>
      <Notice problem={problem} className="mb-2" />
      <dl className="facts">
        {kind === 'look' && encoding && (
          <div>
            <dt>Encoding</dt>
            <dd>
              {encoding.assumed ? <State of="draft" word="assumed" /> : <State of="approved" word="confirmed" />}{' '}
              <span>
                {encoding.primaries} primaries, {encoding.transfer} transfer, {encoding.range} range,{' '}
                {encoding.referred}-referred, {encoding.white}
                {encoding.output &&
                  `; gives ${encoding.output.primaries} primaries, ${encoding.output.transfer} transfer, ${encoding.output.range} range`}
              </span>
              {!encoding.assumed && confirmedBy && (
                <span className="block text-[12px] text-soft">by {confirmedBy}</span>
              )}
              {encoding.assumed && (
                <span className="block text-[12px] text-soft">
                  The file does not say; a person has to before approval.
                </span>
              )}
              {mayEdit && !open && (
                <button className="button mt-1.5" onClick={() => setOpen(true)}>
                  {encoding.assumed ? 'Confirm the encoding' : 'Change'}
                </button>
              )}
            </dd>
          </div>
        )}
        <div>
          <dt>Status</dt>
          <dd>
            <State of={status} />
            {approver && <span className="text-soft"> by {approver}</span>}
            {status === 'draft' && mayApprove && (
              <button
                className="button main ml-3"
                disabled={busy || (kind === 'look' && encoding?.assumed !== false)}
                title={kind === 'look' && encoding?.assumed !== false ? 'Confirm its encoding first' : undefined}
                onClick={() => void act('approve')}
              >
                Approve
              </button>
            )}
          </dd>
        </div>
      </dl>
      {open && encoding && (
        <form
          className="mt-3 border-t border-line py-3"
          onSubmit={(event) => {
            event.preventDefault();
            const f = Object.fromEntries(new FormData(event.currentTarget));
            const { out_primaries, out_transfer, out_range, ...takes } = f;
            void act('encoding', {
              ...takes,
              output: apart ? { primaries: out_primaries, transfer: out_transfer, range: out_range } : null,
            });
          }}
        >
          <div className="grid grid-cols-2 gap-x-3 gap-y-2">
            <div className="flex flex-col gap-2">{sides('', encoding)}</div>
            <div className="flex flex-col gap-2">
              {apart ? sides('out_', encoding.output ?? { primaries: 'sRGB', transfer: 'sRGB', range: 'full' }) : scene}
            </div>
            {apart && scene}
          </div>
          <label className="my-2.5 flex items-center gap-2 text-[12.5px]">
            <input type="checkbox" checked={apart} onChange={(e) => setApart(e.target.checked)} />
            what it gives is something else
          </label>
          <button className="button main mr-2" disabled={busy}>
            Confirm
          </button>
          <button type="button" className="button quiet" onClick={() => setOpen(false)}>
            Leave it
          </button>
        </form>
      )}
    </div>
  );
}
