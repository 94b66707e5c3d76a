/** A frame, a chart and the exports as the bench has them. */
import { bodyOf } from '@/core/frame/body';
import type { ChartOnBench } from '@/core/api/bench';

export type { ChartOnBench };

export interface FrameOnBench {
  id: string;
  name: string;
  light: string;
  subject: string;
  width: number;
  height: number;
  camera: string;
  serial: string;
  conversion: string;
  lens: string;
  profile: string;
  chart_id: string | null;
  chart_corners: [number, number][] | null;
  file_kind: 'rendered' | 'camera data';
  /** put away: it stands where it was laid, and is not offered */ archived: boolean;
}

export interface ExportOnBench {
  id: string;
  frame: string;
  label: string;
}

/** The cameras of some frames, each with its conversion, in the order in which they come. */
export const camerasOf = (frames: readonly FrameOnBench[]): string[] => [
  ...new Set(frames.map(bodyOf).filter((body) => body !== '')),
];

/** The labels of the exports, each once, whatever its case. */
export const labelsOf = (exports: readonly ExportOnBench[]): string[] => [
  ...new Map(exports.map((one) => [one.label.toLowerCase(), one.label])).values(),
];
