'use client';
/** What stands above the matrix while it is used: the range, a column's trim, the legend, what is marked, what can be kept. */
import { useState } from 'react';
import { noTrim } from '@/core/bench/measure';
import { useBench } from './bench-context';
import { displayGamut, gamutWords } from './hooks/display';
import { isAnchored } from './model/column';
import { Legend } from './Legend';
import { RangePanel } from './RangePanel';
import { TrimPanel } from './TrimPanel';

export function BenchNotes() {
  const { state, nameAt } = useBench();
  return (
    <>
      <OpenRange />
      <OpenTrim />
      {state.mark && !state.difference && <MarkNote />}
      {state.difference && <Legend against={nameAt(state.reference)} />}
      <AnchorNote />
    </>
  );
}

function OpenRange() {
  const { state, run, ranging } = useBench();
  if (!ranging) return null;
  return (
    <RangePanel
      range={state.range}
      onRange={(range) => run({ do: 'set the range', range })}
      all={state.columns.every((column) => column.range)}
      onAll={(on) => run({ do: 'compress all columns', on })}
    />
  );
}

function OpenTrim() {
  const { state, run, nameAt, trimming, setTrimming } = useBench();
  const [linked, setLinked] = useState(true);
  const column = trimming === null ? undefined : state.columns[trimming];
  if (trimming === null || !column) return null;
  return (
    <TrimPanel
      name={nameAt(trimming)}
      trim={column.trim ?? noTrim}
      linked={linked}
      onLinked={setLinked}
      onTrim={(trim) => run({ do: 'change a column', column: trimming, to: { ...column, trim } })}
      onClose={() => setTrimming(null)}
    />
  );
}

function MarkNote() {
  const { gamut } = useBench();
  return (
    <p className="mb-2 text-[12.5px] text-soft">
      What a display of the gamut {gamutWords[gamut]} cannot show stands in a checker of grays; the browser says that
      this display {displayGamut() ? 'is one' : 'is of a gamut that it does not know, sRGB is assumed'}.
    </p>
  );
}

function AnchorNote() {
  const { may, state, rows, whites, ask } = useBench();
  const row = rows.findIndex(({ frame, at }) => whites[frame] && at.file_kind === 'camera data');
  if (!may.profile || state.blind || row < 0 || !state.columns.some(isAnchored)) return null;
  return (
    <p className="mb-2 flex items-center gap-2 text-[12.5px]">
      A column is anchored for a neutral that no temperature reaches.{' '}
      <button className="button quiet" onClick={() => ask({ what: 'keep the anchored profile', row })}>
        Keep it as a profile
      </button>
    </p>
  );
}
