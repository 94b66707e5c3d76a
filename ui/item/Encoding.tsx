'use client';
/** What a look's values mean: an assumption until a person confirms it, and the approval that waits for that. */
import { useState } from 'react';
import type { Encoding as EncodingValue } from '@/core/look/look';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { State } from '../kit/State';
import { fetchedWhenShown } from '../kit/fetched';
import type { ConfirmedEncoding } from './EncodingForm';

const EncodingForm = fetchedWhenShown(() => import('./EncodingForm').then((module) => module.EncodingForm));

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

export function EncodingAndStatus({ versionId, kind, ...props }: Props) {
  const [open, setOpen] = useState(false);
  const { busy, problem, runAndRefresh } = useAction();
  const done = async (work: () => Promise<unknown>) => {
    if (await runAndRefresh(work)) setOpen(false);
  };
  const approve = () => done(() => call('POST /api/versions/:id/approve', { id: versionId }));
  const confirm = (body: ConfirmedEncoding) =>
    done(() => call('POST /api/versions/:id/encoding', { id: versionId, body }));
  const encoding = kind === 'look' ? props.encoding : null;
  const waits = kind === 'look' && encoding?.assumed !== false;
  return (
    <div>
      <Notice problem={problem} className="mb-2" />
      <dl className="facts">
        {encoding && (
          <div>
            <dt>Encoding</dt>
            <dd>
              <Stated encoding={encoding} confirmedBy={props.confirmedBy} />
              {props.mayEdit && !open && (
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
            <State of={props.status} />
            {props.approver && <span className="text-soft"> by {props.approver}</span>}
            {props.status === 'draft' && props.mayApprove && (
              <button
                className="button main ml-3"
                disabled={busy || waits}
                title={waits ? 'Confirm its encoding first' : undefined}
                onClick={() => void approve()}
              >
                Approve
              </button>
            )}
          </dd>
        </div>
      </dl>
      {open && encoding && (
        <EncodingForm
          encoding={encoding}
          busy={busy}
          onConfirm={(confirmed) => void confirm(confirmed)}
          onClose={() => setOpen(false)}
        />
      )}
    </div>
  );
}

/** The encoding in words, and who stands for it. */
function Stated({ encoding, confirmedBy }: { encoding: EncodingValue; confirmedBy: string | null }) {
  const { assumed, primaries, transfer, range, referred, white, output } = encoding;
  const gives = output
    ? `; gives ${output.primaries} primaries, ${output.transfer} transfer, ${output.range} range`
    : '';
  return (
    <>
      {assumed ? <State of="draft" word="assumed" /> : <State of="approved" word="confirmed" />}{' '}
      <span>
        {primaries} primaries, {transfer} transfer, {range} range, {referred}-referred, {white}
        {gives}
      </span>
      {!assumed && confirmedBy && <span className="block text-[12px] text-soft">by {confirmedBy}</span>}
      {assumed && (
        <span className="block text-[12px] text-soft">The file does not say; a person has to before approval.</span>
      )}
    </>
  );
}
