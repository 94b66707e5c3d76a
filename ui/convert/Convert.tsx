'use client';
/** Preset into look: what goes in, what is left out and why, the residual at the size; then the draft. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { AnswerOf } from '@/core/api';
import { useAction } from '../kit/action';
import { call, problemOf } from '../kit/call';
import { Notice } from '../kit/Notice';
import { valueText } from '../item/value-words';

type View = AnswerOf<'GET /api/versions/:id/convert'>;

export function Convert({ versionId, title, first }: { versionId: string; title: string; first: View }) {
  const router = useRouter();
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const [size, setSize] = useState(33);
  const [name, setName] = useState(title);
  const { busy, problem, run } = useAction();
  const wanted = first.carried.map((c) => c.setting).filter((s) => !off.has(s));
  const settings = wanted.join(',');
  const { data: view = first, error } = useQuery({
    queryKey: ['conversion', versionId, size, settings],
    queryFn: ({ signal }) =>
      call('GET /api/versions/:id/convert', { id: versionId, query: { size: String(size), settings }, signal }),
    placeholderData: keepPreviousData,
  });
  const convert = async () => {
    const made = await call('POST /api/versions/:id/convert', {
      id: versionId,
      body: { size, settings: wanted, title: name },
    });
    router.push(`/items/${made.itemId}`);
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-8">
      <div>
        <h2 className="mb-1 text-[17px]">Goes into the table</h2>
        <Carried carried={first.carried} off={off} onChange={setOff} />
        <h2 className="mb-1 text-[17px]">Is left out</h2>
        <LeftOut left={first.left} unknown={Object.keys(view.unknown)} />
      </div>
      <div>
        <Notice problem={problem ?? (error && problemOf(error))} className="mb-3" />
        <label className="mb-3 flex flex-col gap-1">
          Title of the look
          <input className="field" value={name} maxLength={200} onChange={(e) => setName(e.target.value)} />
        </label>
        <label className="mb-4 flex flex-col gap-1">
          Points an axis
          <select className="field" value={size} onChange={(e) => setSize(Number(e.target.value))}>
            {[17, 25, 33, 48, 65].map((n) => (
              <option key={n}>{n}</option>
            ))}
          </select>
        </label>
        <h2 className="mb-1 text-[15px]">Table error</h2>
        <dl className="facts border-b border-line" aria-live="polite">
          <DeltaE label="Mean" value={view.residual.meanDeltaE} />
          <DeltaE label="95th percentile" value={view.residual.p95DeltaE} />
          <DeltaE label="Largest" value={view.residual.maxDeltaE} />
        </dl>
        <p className="mb-4 mt-1 text-[12px] text-soft">
          Our rendering of the preset against the table, over 20,000 colors.
        </p>
        <h2 className="mb-1 text-[15px]">Agreement with the editor</h2>
        <p className="mb-5 text-soft">Not measured.</p>
        <button
          className="button main"
          disabled={busy || !wanted.length || !name.trim()}
          onClick={() => void run(convert)}
        >
          {busy ? 'Making the look' : 'Make the look'}
        </button>
        <p className="mt-2 text-[12px] text-soft">
          It comes as a draft on the same shelf, and knows what it was made from. Its scope is open: any camera, any
          kind of file{wanted.includes('monochrome') ? ', in monochrome' : ''}; no sample photo limits it.
        </p>
      </div>
    </div>
  );
}

function DeltaE({ label, value }: { label: string; value: number }) {
  return (
    <div>
      <dt>{label}</dt>
      <dd className="font-semibold">
        {value.toFixed(value < 0.1 ? 4 : 2)} <span className="font-normal text-soft">ΔE00</span>
      </dd>
    </div>
  );
}

interface CarriedProps {
  carried: View['carried'];
  /** settings that are not taken */ off: ReadonlySet<string>;
  onChange: (off: ReadonlySet<string>) => void;
}

function Carried({ carried, off, onChange }: CarriedProps) {
  const take = (setting: string, on: boolean) => {
    const next = new Set(off);
    if (on) next.delete(setting);
    else next.add(setting);
    onChange(next);
  };
  return (
    <table className="list mb-7 table-fixed">
      <colgroup>
        <col className="w-[34px]" />
        <col className="w-[210px]" />
        <col />
      </colgroup>
      <thead>
        <tr>
          <th>
            <span className="sr-only">Take</span>
          </th>
          <th>Setting</th>
          <th>Value</th>
        </tr>
      </thead>
      <tbody>
        {carried.map(({ setting, title, value, unit }) => (
          <tr key={setting}>
            <td>
              <input
                type="checkbox"
                aria-label={`Take ${title}`}
                checked={!off.has(setting)}
                onChange={(event) => take(setting, event.target.checked)}
              />
            </td>
            <td>{title}</td>
            <td className="[overflow-wrap:anywhere]">
              {valueText(value)} <span className="text-soft">{unit}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function LeftOut({ left, unknown }: { left: View['left']; unknown: string[] }) {
  if (!left.length && !unknown.length)
    return <p className="border-t border-line py-2 text-soft">Nothing: all of this preset can go into a table.</p>;
  return (
    <table className="list table-fixed">
      <colgroup>
        <col className="w-[244px]" />
        <col className="w-[90px]" />
        <col />
      </colgroup>
      <thead>
        <tr>
          <th>Setting</th>
          <th>Class</th>
          <th>Why</th>
        </tr>
      </thead>
      <tbody>
        {left.map((entry) => (
          <tr key={entry.setting}>
            <td>{entry.title}</td>
            <td className="text-soft">{entry.class}</td>
            <td>{entry.reason}</td>
          </tr>
        ))}
        {unknown.map((key) => (
          <tr key={key}>
            <td className="font-mono text-[12px]">{key}</td>
            <td className="text-soft">unknown</td>
            <td>is not in the editor’s mapping; it stays in the preset</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
