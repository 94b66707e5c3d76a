'use client';
/** What a look takes, and what it gives where that is something else. */
import { useState } from 'react';
import type { BodyOf } from '@/core/api';
import { primaryNames, rangeNames, referredNames, transferNames, whiteNames } from '@/core/look/encoding-names';
import type { Encoding as EncodingValue, Values } from '@/core/look/look';

export type ConfirmedEncoding = BodyOf<'POST /api/versions/:id/encoding'>;

interface Props {
  encoding: EncodingValue;
  busy: boolean;
  onConfirm: (confirmed: ConfirmedEncoding) => void;
  onClose: () => void;
}

const USUAL_OUTPUT: Values = { primaries: 'sRGB', transfer: 'sRGB', range: 'full' };

export function EncodingForm({ encoding, busy, onConfirm, onClose }: Props) {
  const [apart, setApart] = useState(Boolean(encoding.output));
  const confirm = (form: HTMLFormElement) => {
    const { out_primaries, out_transfer, out_range, ...takes } = Object.fromEntries(new FormData(form));
    const output = apart ? { primaries: out_primaries, transfer: out_transfer, range: out_range } : null;
    // the selects hold what can be chosen; the server checks it anew
    onConfirm({ ...takes, output } as ConfirmedEncoding);
  };
  return (
    <form
      className="mt-3 border-t border-line py-3"
      onSubmit={(event) => {
        event.preventDefault();
        confirm(event.currentTarget);
      }}
    >
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">
        <div className="flex flex-col gap-2">
          <Side prefix="" given="" values={encoding} />
        </div>
        <div className="flex flex-col gap-2">
          {apart ? (
            <Side prefix="out_" given=" given" values={encoding.output ?? USUAL_OUTPUT} />
          ) : (
            <Scene encoding={encoding} />
          )}
        </div>
        {apart && <Scene encoding={encoding} />}
      </div>
      <label className="my-2.5 flex items-center gap-2 text-[12.5px]">
        <input type="checkbox" checked={apart} onChange={(event) => setApart(event.target.checked)} />
        what it gives is something else
      </label>
      <button className="button main mr-2" disabled={busy}>
        Confirm
      </button>
      <button type="button" className="button quiet" onClick={onClose}>
        Cancel
      </button>
    </form>
  );
}

function Side({ prefix, given, values }: { prefix: string; given: string; values: Values }) {
  return (
    <>
      <Choice name={`${prefix}primaries`} label={`Primaries${given}`} values={primaryNames} value={values.primaries} />
      <Choice name={`${prefix}transfer`} label={`Transfer${given}`} values={transferNames} value={values.transfer} />
      <Choice name={`${prefix}range`} label={`Range${given}`} values={rangeNames} value={values.range} />
    </>
  );
}

function Scene({ encoding }: { encoding: EncodingValue }) {
  return (
    <>
      <Choice name="referred" label="Referred to" values={referredNames} value={encoding.referred} />
      <Choice name="white" label="White" values={whiteNames} value={encoding.white} />
    </>
  );
}

interface ChoiceProps {
  name: string;
  label: string;
  values: readonly string[];
  value: string;
}

function Choice({ name, label, values, value }: ChoiceProps) {
  return (
    <label className="flex flex-col gap-0.5 text-[12px] text-soft">
      {label}
      <select name={name} className="field w-full text-[13.5px]" defaultValue={value}>
        {values.map((choice) => (
          <option key={choice}>{choice}</option>
        ))}
      </select>
    </label>
  );
}
