'use client';
/** The table that an editor takes: its file, its points, and the numbers on which it works. */
import { useState } from 'react';
import type { TableWriter } from '@/core/editor/accepts';
import { sizeFrom, sizeWords, transferName, transferNamed } from './model/draft';
import { Choice, TextLine } from './Parts';

interface Props {
  table: TableWriter;
  onChange: (table: TableWriter) => void;
}

export function TableForm({ table, onChange }: Props) {
  const { codec, size, encoding } = table;
  // kept as it is typed: "2 to" is on its way to "2 to 48"
  const [points, setPoints] = useState<string | null>(null);
  const { transfer } = encoding;
  return (
    <div className="grid grid-cols-2 gap-3 *:min-w-0 lg:grid-cols-4">
      <Choice
        label="File"
        value={codec}
        choices={[
          ['cube', '.cube'],
          ['clf', 'CLF'],
          ['hald', 'Hald image'],
        ]}
        onChange={(one) => onChange({ ...table, codec: one })}
      />
      <TextLine
        label="Points"
        placeholder="33, or 2 to 48, best 33"
        value={points ?? sizeWords(size)}
        onChange={(text) => {
          setPoints(text);
          onChange({ ...table, size: sizeFrom(text) });
        }}
      />
      <Choice
        label="Primaries"
        value={encoding.primaries}
        choices={[
          ['srgb', 'sRGB'],
          ['p3', 'Display P3'],
          ['rec2020', 'Rec. 2020'],
          ['prophoto', 'ROMM (ProPhoto)'],
        ]}
        onChange={(primaries) => onChange({ ...table, encoding: { ...encoding, primaries } })}
      />
      <Choice
        label="Curve"
        value={transferName(transfer)}
        choices={[
          ['srgb', 'sRGB'],
          ['linear', 'linear light'],
          ['log', 'log, in stops'],
        ]}
        onChange={(name) => onChange({ ...table, encoding: { ...encoding, transfer: transferNamed(name) } })}
      />
      {typeof transfer === 'object' && (
        <Stops
          log={transfer.log}
          onChange={(log) => onChange({ ...table, encoding: { ...encoding, transfer: { log } } })}
        />
      )}
    </div>
  );
}

interface Log {
  below: number;
  above: number;
}

function Stops({ log, onChange }: { log: Log; onChange: (log: Log) => void }) {
  const field = (name: keyof Log, label: string) => (
    <label className="flex flex-col gap-0.5 text-[12px] text-soft">
      {label}
      <input
        type="number"
        step={0.5}
        className="field text-[13.5px] text-ink"
        value={Number.isFinite(log[name]) ? log[name] : ''}
        onChange={(event) => onChange({ ...log, [name]: event.target.valueAsNumber })}
      />
    </label>
  );
  return (
    <>
      {field('below', 'From, about middle gray')}
      {field('above', 'To, in stops')}
    </>
  );
}
