/** What the page asks of a renderer of the bench, and what comes back. */
import type { CellSpec } from '@/core/bench/cell';
import type { CellFigures, Difference } from '@/core/bench/measure';
import type { Patch } from '@/core/chart/cgats';
import type { Point } from '@/core/chart/homography';
import type { ChartResult } from '@/core/chart/measure';
import type { Rect } from '@/core/frame/orient';

export interface White {
  kelvin: number;
  tint: number;
  reachable: boolean;
}

/** A cell as a whole; as a map of differences where it is to be held against another. */
export interface CellRequest {
  id: number;
  cell: CellSpec;
  against: CellSpec | null;
}
/** A part of the frame at its full size (`whole`), `part` as it is looked at as a whole. */
export interface PartRequest {
  id: number;
  part: CellSpec;
  at: Rect;
  whole: { width: number; height: number };
}
/** Where a chart lies in the frame, by its marks. */
export interface FindRequest {
  id: number;
  find: CellSpec;
  layout: { columns: number; rows: number; patches: Patch[]; outside: number };
}
/** The neutral at a place of the frame, 0…1. */
export interface PickRequest {
  id: number;
  pick: CellSpec;
  x: number;
  y: number;
}
export type BenchRequest = CellRequest | PartRequest | FindRequest | PickRequest;

export interface CellAnswer {
  id: number;
  width: number;
  height: number;
  /** RGBA, 8 bits */ pixels: ArrayBuffer;
  figures: CellFigures;
  difference: Difference | null;
  white: White | null;
  chart: ChartResult | null;
  /** percent outside the display's gamut */ outside: number | null;
  ms: number;
}
export type BenchAnswer =
  | CellAnswer
  | { id: number; corners: Point[] | null }
  | { id: number; at: Rect; pixels: ArrayBuffer }
  | { id: number; neutral: [number, number, number] }
  | { id: number; error: { message: string; remedy: string } };
