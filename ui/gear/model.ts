/** The studio's gear beside what is held for it, as the page of Coverage has it. */
import type { wishes } from '@/core/records/coverage';
import type { Gear } from './GearForm';

export type Covered = 'covered' | 'partly' | 'none';
export interface GearRequest {
  wanted: string;
  state: string;
}
export interface CameraRow {
  gear: Gear;
  state: Covered;
  sources: { source: string; held: number; approved: number }[];
  /** a search that shows them */ find: string | null;
  reads: { key: string; title: string; answer: 'yes' | 'no' | 'unknown' }[];
  requests: GearRequest[];
}
export interface Calibration {
  item: string;
  title: string;
  release: string;
  as: string;
  quantities: string[];
  focal: [number, number] | null;
  but: string;
}
export interface LensRow {
  gear: Gear;
  state: Covered;
  missing: string[];
  found: Calibration[];
  requests: GearRequest[];
}
export interface ReadingEditor {
  key: string;
  title: string;
  stations: number;
}

export const nameOf = (gear: Gear): string => [gear.model, gear.conversion].filter(Boolean).join(', ');

/** The name of a state of coverage among the states of the product. */
export const stateOf = (state: Covered): string => (state === 'none' ? 'gap' : state);

/** Something is missing for it: an approved profile, or an editor that reads its files. */
export const hasGap = ({ state, reads }: CameraRow): boolean =>
  state !== 'covered' || reads.some((one) => one.answer === 'no');

/** What is most likely to be asked for. */
export function wantedFor({ state, reads }: CameraRow): (typeof wishes)[number] {
  if (state !== 'none' && reads.some((one) => one.answer === 'no')) return 'support in an editor';
  return 'camera profile';
}

/** ", 24–70 mm", or '' where a calibration names no focal lengths. */
export function focalWords(focal: [number, number] | null): string {
  if (!focal) return '';
  const [from, to] = focal;
  return `, ${from === to ? from : `${from}–${to}`}\u00a0mm`;
}
