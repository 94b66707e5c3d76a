'use client';
/** A frame that shows a chart: which measured values, where its patches lie, and what each of them comes to. */
import { Dialog } from 'radix-ui';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Patch } from '@/core/chart/cgats';
import { fromSquare, project, type Point } from '@/core/chart/homography';
import type { ChartResult } from '@/core/chart/measure';
import type { CellSpec } from '@/browser-workers/bench.worker';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';
import type { Pool } from './pool';

export interface ChartOnBench {
  id: string;
  name: string;
  columns: number;
  rows: number;
  patches: Patch[];
  outside: number;
}
interface Props {
  pool: Pool | null;
  frame: { id: string; name: string; chart_id: string | null; chart_corners: Point[] | null };
  charts: ChartOnBench[];
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
const cornerNames = ['top left', 'top right', 'bottom right', 'bottom left'];
const css = (lab: readonly number[]): string =>
  `lab(${lab[0]!.toFixed(1)}% ${lab[1]!.toFixed(1)} ${lab[2]!.toFixed(1)})`;

export function TargetDialog({ pool, frame, charts, columns, may, onClose, onSaved }: Props) {
  const [known, setKnown] = useState(charts);
  const [chartId, setChartId] = useState(frame.chart_id ?? charts[0]?.id ?? '');
  const [corners, setCorners] = useState<Point[]>(frame.chart_corners ?? START);
  const [by, setBy] = useState(0);
  const [result, setResult] = useState<ChartResult | null>(null);
  const [size, setSize] = useState({ w: 3, h: 2 });
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [said, setSaid] = useState('');
  const [looking, setLooking] = useState(false);
  const canvas = useRef<HTMLCanvasElement>(null);
  const board = useRef<HTMLDivElement>(null);
  const seq = useRef(0);
  const chart = known.find((c) => c.id === chartId) ?? null;
  const spec = columns[by]?.spec ?? columns[0]!.spec;
  const placed = chart && { corners, columns: chart.columns, rows: chart.rows, patches: chart.patches };
  const key = JSON.stringify([spec, placed && { ...placed, patches: chart.id }]);
  useEffect(() => {
    if (!pool) return;
    const n = ++seq.current;
    const timer = setTimeout(
      () =>
        void pool
          .ask('target', true, (id) => ({
            id,
            cell: { ...spec, width: 900, chart: placed, mark: null },
            against: null,
          }))
          .then((answer) => {
            if (n !== seq.current || !canvas.current) return;
            if ('error' in answer) {
              setProblem({
                code: 'target',
                message: answer.error.message,
                where: frame.name,
                remedy: answer.error.remedy,
              });
              return;
            }
            if (!('figures' in answer)) return;
            canvas.current.width = answer.width;
            canvas.current.height = answer.height;
            canvas.current
              .getContext('2d')!
              .putImageData(new ImageData(new Uint8ClampedArray(answer.pixels), answer.width, answer.height), 0, 0);
            setSize({ w: answer.width, h: answer.height });
            setResult(answer.chart);
          }),
      40,
    );
    return () => clearTimeout(timer);
  }, [pool, key]); // eslint-disable-line react-hooks/exhaustive-deps
  const move = (i: number, point: Point) =>
    setCorners((points) =>
      points.map((c, k) => (k === i ? [Math.min(1, Math.max(0, point[0])), Math.min(1, Math.max(0, point[1]))] : c)),
    );
  const drag = (i: number) => (event: PointerEvent) => {
    if (!may || !(event.buttons & 1)) return;
    const box = board.current!.getBoundingClientRect();
    move(i, [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height]);
  };
  const nudge = (i: number) => (event: KeyboardEvent) => {
    const d = event.shiftKey ? 0.01 : 0.001;
    const by2 = { ArrowLeft: [-d, 0], ArrowRight: [d, 0], ArrowUp: [0, -d], ArrowDown: [0, d] }[event.key];
    if (may && by2) {
      event.preventDefault();
      move(i, [corners[i]![0] + by2[0]!, corners[i]![1] + by2[1]!]);
    }
  };
  const find = async () => {
    if (!pool || !chart) return;
    setLooking(true);
    setProblem(null);
    setSaid('');
    const answer = await pool.ask('find', true, (id) => ({
      id,
      find: { ...spec, width: 900, mark: null },
      layout: { columns: chart.columns, rows: chart.rows, patches: chart.patches, outside: chart.outside },
    }));
    setLooking(false);
    if ('corners' in answer && answer.corners) {
      setCorners(answer.corners);
      setSaid('Found by its four marks.');
    } else
      setProblem({
        code: 'target',
        message: 'No four corner marks were found that fit this chart.',
        where: frame.name,
        remedy: 'Draw the four corners onto the field of patches by hand.',
      });
  };
  const bring = async (file: File) => {
    setProblem(null);
    try {
      const chart = await call<ChartOnBench>('/api/charts', 'POST', { text: await file.text(), name: '' });
      setKnown([...known, chart]);
      setChartId(chart.id);
      setSaid(`${chart.name}: ${chart.patches.length} patches, ${chart.columns} × ${chart.rows}.`);
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const layOut = (columns: number, outside: number) => {
    if (!chart || (columns === chart.columns && outside === chart.outside)) return;
    setProblem(null);
    void call<ChartOnBench>(`/api/charts/${chart.id}`, 'PATCH', { columns, outside })
      .then((c) => setKnown((l) => l.map((x) => (x.id === c.id ? c : x))))
      .catch((e: unknown) => setProblem(problemOf(e)));
  };
  const save = async (on: boolean) => {
    setProblem(null);
    try {
      await call(`/api/frames/${frame.id}/chart`, 'PUT', on ? { chart: chartId, corners } : { chart: null });
      onSaved(on ? `${frame.name} is a target frame` : `${frame.name} is no target frame any more`);
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const homography = fromSquare(corners);
  const lines =
    homography && chart
      ? [
          ...Array.from({ length: chart.columns + 1 }, (_, i): [Point, Point] => [
            project(homography, i / chart.columns, 0),
            project(homography, i / chart.columns, 1),
          ]),
          ...Array.from({ length: chart.rows + 1 }, (_, i): [Point, Point] => [
            project(homography, 0, i / chart.rows),
            project(homography, 1, i / chart.rows),
          ]),
        ]
      : [];
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[4vh] z-50 flex max-h-[92vh] w-[1180px] max-w-[96vw] -translate-x-1/2 flex-col border border-line bg-paper p-5"
          style={{ boxShadow: 'var(--shade)' }}
        >
          <Dialog.Title className="mb-2 text-[20px]">The chart in {frame.name}</Dialog.Title>
          <div className="mb-3 flex flex-wrap items-center gap-2">
            <label className="flex items-center gap-2 text-soft">
              Measured values
              <select
                className="field max-w-[220px] text-ink"
                value={chartId}
                onChange={(e) => setChartId(e.target.value)}
              >
                {!known.length && <option value="">none yet</option>}
                {known.map((chart) => (
                  <option key={chart.id} value={chart.id}>
                    {chart.name}, {chart.columns} × {chart.rows}
                  </option>
                ))}
              </select>
            </label>
            {may && chart && (
              <>
                <label className="flex items-center gap-2 text-soft">
                  Patches a row
                  <input
                    type="number"
                    className="field w-[60px] text-ink"
                    min={1}
                    max={100}
                    key={`${chart.id} ${chart.columns}`}
                    defaultValue={chart.columns}
                    onBlur={(e) => layOut(Number(e.target.value), chart.outside)}
                  />
                </label>
                <label
                  className="flex items-center gap-2 text-soft"
                  title="How far the corner marks stand outside the field, in widths of a patch"
                >
                  Marks outside
                  <input
                    type="number"
                    className="field w-[66px] text-ink"
                    min={0}
                    max={3}
                    step={0.05}
                    key={`${chart.id} ${chart.outside}`}
                    defaultValue={chart.outside}
                    onBlur={(e) => layOut(chart.columns, Number(e.target.value))}
                  />
                </label>
              </>
            )}
            {may && (
              <label className="button cursor-pointer focus-within:outline focus-within:outline-2">
                Bring in CGATS text
                <input
                  type="file"
                  className="sr-only"
                  accept=".txt,.cgats,.cie,.it8"
                  onChange={(event) => {
                    const file = event.target.files?.[0];
                    if (file) void bring(file);
                    event.target.value = '';
                  }}
                />
              </label>
            )}
            {may && (
              <button className="button" disabled={!chart || looking} onClick={() => void find()}>
                {looking ? 'Looking' : 'Find the marks'}
              </button>
            )}
          </div>
          <Notice problem={problem} className="mb-3" />
          <p role="status" className={said ? 'mb-2 text-soft' : 'sr-only'}>
            {said}
          </p>
          <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_330px] gap-4">
            <div className="min-h-0">
              <div ref={board} className="relative max-h-full" style={{ aspectRatio: size.w / size.h }}>
                <canvas
                  ref={canvas}
                  role="img"
                  aria-label={`${frame.name}, ${columns[by]?.name ?? ''}`}
                  className="block h-full w-full bg-press"
                />
                {chart && (
                  <svg
                    aria-hidden
                    className="pointer-events-none absolute inset-0 h-full w-full"
                    viewBox="0 0 1 1"
                    preserveAspectRatio="none"
                  >
                    {lines.map(([point, b], i) => (
                      <g key={i}>
                        <line
                          x1={point[0]}
                          y1={point[1]}
                          x2={b[0]}
                          y2={b[1]}
                          stroke="#000"
                          strokeOpacity={0.55}
                          strokeWidth={3}
                          vectorEffect="non-scaling-stroke"
                        />
                        <line
                          x1={point[0]}
                          y1={point[1]}
                          x2={b[0]}
                          y2={b[1]}
                          stroke="#fff"
                          strokeWidth={1}
                          vectorEffect="non-scaling-stroke"
                        />
                      </g>
                    ))}
                  </svg>
                )}
                {chart &&
                  corners.map(([x, y], i) => (
                    <button
                      key={i}
                      aria-label={`Corner ${cornerNames[i]}: ${(x * 100).toFixed(1)} by ${(y * 100).toFixed(1)} percent`}
                      className="absolute h-[18px] w-[18px] -translate-x-1/2 -translate-y-1/2 cursor-move rounded-full border-2 border-white bg-black/40 outline outline-1 outline-black focus-visible:outline-2 focus-visible:outline-verd"
                      style={{ left: `${x * 100}%`, top: `${y * 100}%`, touchAction: 'none' }}
                      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
                      onPointerMove={drag(i)}
                      onKeyDown={nudge(i)}
                    />
                  ))}
              </div>
            </div>
            <div className="min-h-0 overflow-auto" tabIndex={0} role="region" aria-label="Patches, worst first">
              <label className="mb-2 flex items-center gap-2 text-soft">
                Rendered by
                <select
                  className="field min-w-0 flex-1 text-ink"
                  value={by}
                  onChange={(e) => setBy(Number(e.target.value))}
                >
                  {columns.map((c, i) => (
                    <option key={i} value={i}>
                      {c.name}
                    </option>
                  ))}
                </select>
              </label>
              {result ? (
                <>
                  <p className="mb-2" data-target-figures>
                    ΔE00 of {result.patches.length} patches: mean <b>{result.mean.toFixed(2)}</b>, max{' '}
                    <b>{result.max.toFixed(2)}</b> at {result.worst}
                  </p>
                  <table className="list">
                    <thead>
                      <tr>
                        <th>Patch</th>
                        <th>Measured</th>
                        <th>Rendered</th>
                        <th className="!text-right">ΔE00</th>
                      </tr>
                    </thead>
                    <tbody>
                      {[...result.patches]
                        .sort((a, b) => b.deltaE - a.deltaE)
                        .map((patchResult) => (
                          <tr key={patchResult.id}>
                            <td>{patchResult.id}</td>
                            {[patchResult.measured, patchResult.rendered].map((l, k) => (
                              <td key={k}>
                                <span className="inline-flex items-center gap-1.5 text-[12px]">
                                  <i
                                    aria-hidden
                                    className="inline-block h-[18px] w-[18px] border border-line"
                                    style={{ background: css(l) }}
                                  />
                                  {l.map((v) => v.toFixed(0)).join(' ')}
                                </span>
                              </td>
                            ))}
                            <td className="text-right font-mono text-[12.5px]">{patchResult.deltaE.toFixed(1)}</td>
                          </tr>
                        ))}
                    </tbody>
                  </table>
                </>
              ) : (
                <p className="text-soft">
                  {chart
                    ? 'Put the four corners onto the outer corners of the field of patches, the first patch at the top left.'
                    : 'A target frame is judged by the measured values of its chart: bring them in as CGATS text, with L*a*b* or XYZ of each patch.'}
                </p>
              )}
            </div>
          </div>
          <div className="mt-4 flex justify-end gap-2">
            {may && frame.chart_id && (
              <button className="button danger mr-auto" onClick={() => void save(false)}>
                It shows no chart
              </button>
            )}
            <Dialog.Close className="button">Close</Dialog.Close>
            {may && (
              <button className="button main" disabled={!chart || !homography} onClick={() => void save(true)}>
                Keep the chart’s place
              </button>
            )}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
