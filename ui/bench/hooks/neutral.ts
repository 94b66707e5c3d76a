'use client';
/** A row's neutral: picked in a cell, or reached by a profile anchored to it. */
import { CallError } from '../../kit/call';
import { useBench, type LaidRow } from '../bench-context';
import { ownProfileColumn } from '../model/cell';
import { byProfile, emptyColumn, profileOf } from '../model/column';
import type { FrameOnBench } from '../model/frame';

/** Where an anchored profile puts the neutral: daylight of the prints' standard, D50. */
const ANCHOR_KELVIN = 5000;

/** Balances a row by what stands at a place (0…1) of its frame. */
export function usePickNeutral(): (row: LaidRow, index: number, x: number, y: number) => Promise<void> {
  const { pool, cellFor, run, setPicking, action } = useBench();
  return async (row, index, x, y) => {
    setPicking(null);
    const answer = await pool?.pick(cellFor(row, emptyColumn), x, y);
    if (!answer) return;
    if ('neutral' in answer) run({ do: 'balance a row by a neutral', row: index, neutral: answer.neutral });
    else if ('error' in answer) action.report(new CallError({ code: 'pick', where: row.at.name, ...answer.error }));
  };
}

/** Lays a profile of the frame's camera beside the others, anchored so that it reaches the frame's neutral. */
export function useShowAnchored(): (frame: FrameOnBench) => void {
  const { state, candidates, addColumns, withCandidates, action } = useBench();
  return (frame) => {
    const own = ownProfileColumn(frame, state.columns, candidates);
    const column = state.columns[own];
    const held = column && profileOf(column);
    const lay = (version: string) =>
      addColumns([{ ...emptyColumn, source: byProfile(version, ANCHOR_KELVIN) }], Math.max(1, own + 1));
    if (held && !candidates.get(held)?.icc) {
      lay(held);
      return;
    }
    withCandidates({ cameras: frame.camera }, (list) => {
      const profiles = list.filter((candidate) => !candidate.icc);
      const best = profiles.find((candidate) => !candidate.rungs.includes('look')) ?? profiles[0];
      if (best) lay(best.versionId);
      else action.say('There is no DNG profile of this camera to anchor.');
    });
  };
}
