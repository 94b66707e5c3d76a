/** What a cell of the bench shows: a frame, developed and balanced, under a stack of looks. */
import type { Stage } from '../camera/stages';
import type { Patch } from '../chart/cgats';
import type { Placed } from '../chart/measure';
import type { Gamut } from './display-gamut';
import type { Trim } from './measure';
import type { RangeCompression } from './range';
import type { WhiteBalance } from './white-balance';

/** Where a cell's picture comes from before any look is laid over it. */
export type CellSource =
  /** the rendered file as it is, or camera data by the matrices of the file */
  | { from: 'frame' }
  /** the camera's own rendering of a camera file */
  | { from: 'camera-jpeg' }
  /** an editor's own rendering; null where this frame has none of that label */
  | { from: 'export'; id: string | null }
  /** camera data by a profile, with these rungs of it, anchored to a temperature in kelvin where asked */
  | { from: 'profile'; version: string; stages: readonly Stage[]; anchor: number | null };

export interface CellLayer {
  version: string;
  /** percent */ strength: number;
  /** the encoding that its values are taken in, in words; '' for the one that is recorded */ encoding: string;
}

export interface CellSpec {
  frame: string;
  /** whether the frame is camera data */ camera: boolean;
  /** of the picture, in pixels */ width: number;
  source: CellSource;
  white: WhiteBalance;
  layers: readonly CellLayer[];
  trim: Trim | null;
  range: RangeCompression | null;
  /** the chart that the frame shows */ chart: (Placed & { patches: Patch[] }) | null;
  /** the display's gamut, where what lies outside is to be marked */ mark: Gamut | null;
}

/** Whether the picture is developed from the camera's values, rather than taken as it was rendered. */
export const isDeveloped = (cell: CellSpec): boolean =>
  cell.camera && (cell.source.from === 'frame' || cell.source.from === 'profile');
