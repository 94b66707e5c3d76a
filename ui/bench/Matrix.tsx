'use client';
/** Frames against candidates. */
import { Fragment, useState } from 'react';
import { choiceFor } from '@/core/bench/choice';
import { differingProfiles } from '@/core/bench/differing-profiles';
import { bodyOf } from '@/core/frame/body';
import { useBench, type LaidRow } from './bench-context';
import { Cell } from './Cell';
import { ColumnHead } from './ColumnHead';
import { usePickNeutral, useShowAnchored } from './hooks/neutral';
import { cellName } from './hooks/keys';
import { CELL_WIDTH, cautionFor, whiteColumn } from './model/cell';
import { byProfile, emptyColumn, layer, type Column } from './model/column';
import { renderedBy } from './model/rendered-by';
import { groupHeads } from './model/row-groups';
import { RowHead } from './RowHead';

const HEAD_WIDTH = 148;
const COLUMN_WIDTH = 168;
const GAP = 8;

export function Matrix() {
  const { state, rows, order } = useBench();
  const [current, setCurrent] = useState({ row: 0, place: 0 });
  const count = state.columns.length;
  const heads = groupHeads(rows.map((row) => row.at));
  return (
    <div className="contact-sheet overflow-x-auto pb-2">
      <div
        role="group"
        aria-label="The matrix"
        className="grid gap-x-2 gap-y-2.5"
        style={{
          // no wider than a cell is rendered: a picture that is blown up is judged for its blur
          gridTemplateColumns: `${HEAD_WIDTH}px repeat(${count}, minmax(${COLUMN_WIDTH}px, ${CELL_WIDTH}px))`,
          minWidth: HEAD_WIDTH + count * (COLUMN_WIDTH + GAP),
        }}
      >
        <Corner />
        {order.map((index) => (
          <ColumnHead key={index} index={index} />
        ))}
        {rows.map((row, index) => (
          <Fragment key={row.frame}>
            {heads[index] && (
              <h3 className="col-span-full mt-2 border-b border-line pb-0.5 text-[14px] text-soft">{heads[index]}</h3>
            )}
            <MatrixRow
              row={row}
              index={index}
              place={current.row === index ? current.place : null}
              onPlace={(place) => setCurrent({ row: index, place })}
            />
          </Fragment>
        ))}
      </div>
    </div>
  );
}

function Corner() {
  const { state, nameAt } = useBench();
  let what = 'reference';
  if (state.blind) what = 'blind order';
  else if (state.difference) what = 'difference against';
  return (
    <p className="pt-1 text-[12px] leading-tight text-soft">
      {what}
      <b className="block font-semibold text-ink">{nameAt(state.reference)}</b>
      <span className="mt-1 block">Etagere’s rendering</span>
    </p>
  );
}

interface RowProps {
  row: LaidRow;
  index: number;
  /** the place of the current cell, where it is in this row */ place: number | null;
  onPlace: (place: number) => void;
}

function MatrixRow({ row, index, place, onPlace }: RowProps) {
  const { state, order, candidates, tellWhite } = useBench();
  const tellsWhite = whiteColumn(row.at, state.columns, state.reference, candidates);
  return (
    <>
      <HeadOfRow row={row} index={index} />
      {order.map((column, at) => (
        <MatrixCell
          key={column}
          row={row}
          index={index}
          column={column}
          current={place === at}
          onFocus={() => onPlace(at)}
          onWhite={column === tellsWhite ? (white) => tellWhite(row.frame, white) : undefined}
        />
      ))}
    </>
  );
}

function HeadOfRow({ row, index }: { row: LaidRow; index: number }) {
  const { run, rows, choices, whites, picking, setPicking, may, ask, addColumns } = useBench();
  const showAnchored = useShowAnchored();
  const frame = row.at;
  const came = rows.map(({ at }) => ({ id: at.id, camera: bodyOf(at), light: at.light, profile: at.profile }));
  const most = differingProfiles(came).get(frame.id);
  return (
    <RowHead
      frame={frame}
      white={row.white}
      seen={whites[row.frame] ?? null}
      picking={picking === index}
      most={most ?? null}
      choice={choiceFor(choices, { camera: bodyOf(frame), light: frame.light, kind: frame.file_kind })}
      onWhite={(white) => run({ do: 'balance a row', row: index, white })}
      onPick={() => setPicking(picking === index ? null : index)}
      onRemove={() => run({ do: 'take off a row', row: index })}
      onUp={() => run({ do: 'move a row up', row: index })}
      onAnchor={() => showAnchored(frame)}
      onChoice={({ profileVersion, lookVersion, strength }) =>
        addColumns([
          {
            ...emptyColumn,
            source: profileVersion ? byProfile(profileVersion) : emptyColumn.source,
            layers: lookVersion ? [layer(lookVersion, strength)] : [],
          },
        ])
      }
      onChart={may.frames || frame.chart_id ? () => ask({ what: 'chart', row: index }) : null}
    />
  );
}

interface CellProps {
  row: LaidRow;
  index: number;
  column: number;
  current: boolean;
  onFocus: () => void;
  onWhite: ((white: Parameters<ReturnType<typeof useBench>['tellWhite']>[1]) => void) | undefined;
}

function MatrixCell({ row, index, column, current, onFocus, onWhite }: CellProps) {
  const { state, pool, candidates, picking, setPicking, enlarge, nameAt, cellFor } = useBench();
  const pickNeutral = usePickNeutral();
  const shown = state.columns[column];
  const reference: Column | undefined = state.columns[state.reference];
  if (!shown) return null;
  return (
    <Cell
      at={cellName(row.frame, column)}
      pool={pool}
      spec={cellFor(row, shown)}
      against={state.difference && reference && column !== state.reference ? cellFor(row, reference) : null}
      ratio={row.at.width / row.at.height}
      label={`${nameAt(column)} on ${row.at.name}`}
      caution={state.blind ? '' : cautionFor(row.at, shown, candidates)}
      said={state.blind ? '' : renderedBy(shown, candidates)}
      current={current}
      picking={picking === index}
      onFocus={onFocus}
      onOpen={() => enlarge(index, column)}
      onPick={(x, y) => void pickNeutral(row, index, x, y)}
      onCancelPick={() => setPicking(null)}
      onWhite={onWhite}
    />
  );
}
