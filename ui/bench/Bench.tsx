'use client';
/** The bench: rows are frames, columns are candidates, cells are rendered pictures. Everything is in the address. */
import { Notice } from '../kit/Notice';
import { Said } from '../kit/Said';
import { BenchValue, type BenchProps } from './bench-context';
import { BenchDialogs } from './BenchDialogs';
import { BenchNotes } from './BenchNotes';
import { EmptyBench } from './EmptyBench';
import { EnlargedCells } from './EnlargedCells';
import { useBenchParts } from './hooks/bench';
import { useBenchKeys } from './hooks/bench-keys';
import { KeysHelp } from './KeysHelp';
import { Matrix } from './Matrix';
import { surrounds } from './surrounds';
import { Toolbar } from './Toolbar';

export function Bench(props: BenchProps) {
  const { asking, ...bench } = useBenchParts(props);
  const onKeyDown = useBenchKeys(bench);
  const { state, rows, action } = bench;
  const background = rows.length && state.surround ? surrounds[state.surround].gray : undefined;
  return (
    <BenchValue.Provider value={bench}>
      <div className="min-h-[calc(100vh-52px)] px-6 pb-16 pt-[18px]" style={{ background }} onKeyDown={onKeyDown}>
        <Toolbar />
        <Said words={action.said} />
        <Notice problem={action.problem} className="mb-3" />
        <BenchNotes />
        {rows.length ? (
          <>
            <Matrix />
            <KeysHelp mayJudge={props.may.judge} />
          </>
        ) : (
          <EmptyBench />
        )}
        <EnlargedCells />
        {asking && <BenchDialogs asking={asking} />}
      </div>
    </BenchValue.Provider>
  );
}
