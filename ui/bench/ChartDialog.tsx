'use client';
/** A frame that shows a chart: which measured values, where its patches lie, and what each of them comes to. */
import { useRef, useState } from 'react';
import type { CellSpec } from '@/core/bench/cell';
import { fromSquare, type Point } from '@/core/chart/homography';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { Said } from '../kit/Said';
import { ChartBar } from './ChartBar';
import { ChartBoard } from './ChartBoard';
import { ChartPatches } from './ChartPatches';
import { findCorners, useChartMeasured } from './hooks/chart-place';
import type { Pool } from './hooks/pool';
import type { ChartOnBench } from './model/frame';

interface Props {
  pool: Pool | null;
  frame: { id: string; name: string; chart_id: string | null; chart_corners: Point[] | null };
  charts: readonly ChartOnBench[];
  /** what can render it */ columns: { name: string; spec: CellSpec }[];
  may: boolean;
  onClose: () => void;
  onSaved: (words: string) => void;
}

const START: Point[] = [
  [0.2, 0.2],
  [0.8, 0.2],
  [0.8, 0.8],
  [0.2, 0.8],
];

export function ChartDialog({ pool, frame, charts, columns, may, onClose, onSaved }: Props) {
  const [known, setKnown] = useState(charts);
  const [chartId, setChartId] = useState(frame.chart_id ?? charts[0]?.id ?? '');
  const [corners, setCorners] = useState<Point[]>(frame.chart_corners ?? START);
  const [renderedBy, setRenderedBy] = useState(0);
  const action = useAction();
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = known.find((one) => one.id === chartId) ?? null;
  const column = columns[renderedBy] ?? columns[0];
  const spec = column?.spec;
  const { result, size } = useChartMeasured(canvas, {
    pool,
    frame: frame.name,
    spec,
    chart,
    corners,
    onError: action.report,
  });

  const find = () =>
    void action.run(async () => {
      if (!pool || !chart || !spec) return;
      action.say('');
      setCorners(await findCorners(pool, frame.name, spec, chart));
      action.say('Found by its four marks.');
    });
  const bring = (file: File) =>
    void action.run(async () => {
      const brought = await call('POST /api/charts', { body: { text: await file.text(), name: '' } });
      setKnown([...known, brought]);
      setChartId(brought.id);
      action.say(`${brought.name}: ${brought.patches.length} patches, ${brought.columns} × ${brought.rows}.`);
    });
  const layOut = (layout: { columns: number; outside: number }) =>
    void action.run(async () => {
      if (!chart || (layout.columns === chart.columns && layout.outside === chart.outside)) return;
      const changed = await call('PATCH /api/charts/:id', { id: chart.id, body: layout });
      setKnown((list) => list.map((one) => (one.id === changed.id ? changed : one)));
    });
  const save = (isTarget: boolean) =>
    void action.run(async () => {
      const body = isTarget ? { chart: chartId, corners } : { chart: null };
      await call('PUT /api/frames/:id/chart', { id: frame.id, body });
      onSaved(isTarget ? `${frame.name} is a target frame` : `${frame.name} is no target frame any more`);
    });
  return (
    <Modal title={`The chart in ${frame.name}`} width={1180} top="4vh" onClose={onClose}>
      <ChartBar
        charts={known}
        chart={chart}
        may={may}
        busy={action.busy}
        onChart={setChartId}
        onLayout={layOut}
        onBring={bring}
        onFind={find}
      />
      <Notice problem={action.problem} className="mb-3" />
      <Said words={action.said} />
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_330px] gap-4">
        <div className="min-h-0">
          <ChartBoard
            canvas={canvas}
            label={`${frame.name}, ${column?.name ?? ''}`}
            size={size}
            chart={chart}
            corners={corners}
            may={may}
            onCorners={setCorners}
          />
        </div>
        <ChartPatches
          names={columns.map(({ name }) => name)}
          renderedBy={renderedBy}
          onRenderedBy={setRenderedBy}
          result={result}
          hasChart={chart !== null}
        />
      </div>
      <ModalFoot cancel="Close">
        {may && frame.chart_id && (
          <button className="button danger" onClick={() => save(false)}>
            It shows no chart
          </button>
        )}
        {may && (
          <button className="button main" disabled={!chart || !fromSquare(corners)} onClick={() => save(true)}>
            Save the chart’s place
          </button>
        )}
      </ModalFoot>
    </Modal>
  );
}
