/** What a cell is to render, and what is to be said of it. */
import { cautionOf } from '@/core/bench/caution';
import type { CellSource, CellSpec } from '@/core/bench/cell';
import type { Gamut } from '@/core/bench/display-gamut';
import { bodyOf } from '@/core/frame/body';
import { encodingText } from '@/core/look/assumed-encoding';
import { isAnchored, isExport, profileOf, type Column } from './column';
import type { ChartOnBench, ExportOnBench, FrameOnBench } from './frame';
import type { Candidates } from './names';
import type { Row, State } from './state';

/** What there is in the studio to make cells of. */
export interface Studio {
  charts: readonly ChartOnBench[];
  exports: readonly ExportOnBench[];
}

export const CELL_WIDTH = 320;
export const LARGE_WIDTH = 1500;

function sourceFor(frame: FrameOnBench, { source }: Column, exports: readonly ExportOnBench[]): CellSource {
  if (source.from !== 'export') return source;
  const own = exports.find((one) => one.frame === frame.id && isExport(source, one.label));
  return { from: 'export', id: own?.id ?? null };
}

function chartIn(frame: FrameOnBench, charts: readonly ChartOnBench[]): CellSpec['chart'] {
  const chart = charts.find((one) => one.id === frame.chart_id);
  if (!chart || !frame.chart_corners) return null;
  return { corners: frame.chart_corners, columns: chart.columns, rows: chart.rows, patches: chart.patches };
}

export function cellFor(
  studio: Studio,
  state: State,
  gamut: Gamut,
  { frame, row, column, width = CELL_WIDTH }: { frame: FrameOnBench; row: Row; column: Column; width?: number },
): CellSpec {
  return {
    frame: frame.id,
    camera: frame.file_kind === 'camera data',
    width,
    source: sourceFor(frame, column, studio.exports),
    white: row.white,
    layers: column.layers.map(({ version, strength, assumed }) => ({
      version,
      strength,
      encoding: assumed ? encodingText(assumed) : '',
    })),
    trim: column.trim,
    range: column.range ? state.range : null,
    chart: chartIn(frame, studio.charts),
    mark: state.mark && !state.difference ? gamut : null,
  };
}

/** The cell as if nothing were laid over the frame. */
export const withoutLooks = (cell: CellSpec): CellSpec => ({
  ...cell,
  layers: [],
  trim: null,
  range: null,
  source: cell.camera && cell.source.from !== 'export' ? { from: 'frame' } : cell.source,
});

export function cautionFor(frame: FrameOnBench, column: Column, candidates: Candidates): string {
  const profile = profileOf(column);
  return cautionOf(
    { camera: bodyOf(frame), fileKind: frame.file_kind },
    {
      profileFor: (profile && candidates.get(profile)?.cameras) || null,
      anchored: isAnchored(column),
      looks: column.layers.map(({ version, strength }) => ({
        strength,
        roots: candidates.get(version)?.roots ?? [],
        doubled: candidates.get(version)?.doubled ?? false,
      })),
    },
  );
}

/** The first column that develops by a profile of the frame's own camera as it was made, -1 where there is none. */
export const ownProfileColumn = (frame: FrameOnBench, columns: readonly Column[], candidates: Candidates): number =>
  columns.findIndex((column) => {
    const profile = profileOf(column);
    return !!profile && !isAnchored(column) && candidates.get(profile)?.cameras.includes(frame.camera) === true;
  });

/** The column by which the white of a row is told: the frame's own profile, else the reference; -1 where that is anchored. */
export function whiteColumn(
  frame: FrameOnBench,
  columns: readonly Column[],
  reference: number,
  candidates: Candidates,
): number {
  const own = ownProfileColumn(frame, columns, candidates);
  if (own >= 0) return own;
  const against = columns[reference];
  return against && !isAnchored(against) ? reference : -1;
}
