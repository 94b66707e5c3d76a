/** A column of the bench: where its pictures come from, and what is laid over them. */
import type { Trim } from '@/core/bench/measure';
import { STAGES, type Stage } from '@/core/camera/stages';
import type { AssumedEncoding } from '@/core/look/assumed-encoding';
import type { Candidate } from './candidate';

export type Source =
  /** the frames as they are: camera data by the matrices of its file */
  | { from: 'frame' }
  | { from: 'camera-jpeg' }
  /** what an editor made of each frame, by the label that its exports bear */
  | { from: 'export'; label: string }
  /** by a camera profile, with these of its stages; anchored to a temperature in kelvin */
  | { from: 'profile'; version: string; stages: readonly Stage[]; anchor: number | null };

export type ProfileSource = Extract<Source, { from: 'profile' }>;

export interface Layer {
  version: string;
  /** percent */ strength: number;
  /** another encoding than the one that is recorded, to see what it would look like */ assumed: AssumedEncoding | null;
}

export interface Column {
  source: Source;
  /** what lies lowest first */ layers: readonly Layer[];
  trim: Trim | null;
  /** whether the range compression of the bench applies */ range: boolean;
}

export const STRENGTH_MOST = 400;

export const emptyColumn: Column = { source: { from: 'frame' }, layers: [], trim: null, range: false };

export const byProfile = (version: string, anchor: number | null = null): Source => ({
  from: 'profile',
  version,
  stages: STAGES,
  anchor,
});

export const layer = (version: string, strength: number): Layer => ({ version, strength, assumed: null });

/** The version of the profile that a column develops by, if it does. */
export const profileOf = (column: Column): string | null =>
  column.source.from === 'profile' ? column.source.version : null;

export const isAnchored = (column: Column): boolean =>
  column.source.from === 'profile' && column.source.anchor !== null;

/** What strength, trim and judgement are about: the look that lies on top. */
export const topLayer = (column: Column): Layer | undefined => column.layers[column.layers.length - 1];

/** All that a column names from the shelves. */
export function versionsOf(column: Column): string[] {
  const profile = profileOf(column);
  return [...(profile ? [profile] : []), ...column.layers.map((one) => one.version)];
}

export const isExport = (source: Source, label: string): boolean =>
  source.from === 'export' && source.label.toLowerCase() === label.toLowerCase();

/** A candidate added to a column that is there; with the trim that is kept with it, where the column has none. */
export function withCandidate(column: Column, candidate: Candidate): Column {
  const trim = column.trim ?? candidate.trim;
  return candidate.kind === 'camera-profile'
    ? { ...column, trim, source: byProfile(candidate.versionId) }
    : { ...column, trim, layers: [...column.layers, layer(candidate.versionId, candidate.usual)] };
}

/** A candidate as it is laid on the bench: a profile as the source, a look at its usual strength, each with its trim. */
export const columnFor = (candidate: Candidate): Column => withCandidate(emptyColumn, candidate);

const clampStrength = (value: number): number => Math.max(0, Math.min(STRENGTH_MOST, Math.round(value)));

function withTop(column: Column, change: (top: Layer) => Layer): Column {
  const top = topLayer(column);
  return top ? { ...column, layers: [...column.layers.slice(0, -1), change(top)] } : column;
}

/** The look on top at another strength, in percent; cut to what can be had. */
export const atStrength = (column: Column, strength: number): Column =>
  withTop(column, (top) => ({ ...top, strength: clampStrength(strength) }));

export const strengthened = (column: Column, by: number): Column =>
  withTop(column, (top) => ({ ...top, strength: clampStrength(top.strength + by) }));

export const assuming = (column: Column, assumed: AssumedEncoding | null): Column =>
  withTop(column, (top) => ({ ...top, assumed }));

/** The profile's stages changed; a column without a profile stays as it is. */
function withStages(column: Column, change: (stages: readonly Stage[]) => readonly Stage[]): Column {
  const { source } = column;
  return source.from === 'profile' ? { ...column, source: { ...source, stages: change(source.stages) } } : column;
}

/** A rung muted, or heard again. */
export const toggleStage = (column: Column, stage: Stage): Column =>
  withStages(column, (stages) => STAGES.filter((one) => stages.includes(one) !== (one === stage)));

/** Everything up to a rung, and nothing above it. */
export const stopAtStage = (column: Column, stage: Stage): Column =>
  withStages(column, () => STAGES.slice(0, STAGES.indexOf(stage) + 1));

/** One column a strength, for a look that is seen in a row of them; the strength that is there already is left out. */
export function rowOfStrengths(column: Column, most: number): Column[] {
  const now = topLayer(column)?.strength;
  const steps = [...new Set([0, 25, 50, 75, 100, 125, most])];
  return steps.filter((step) => step !== now).map((step) => atStrength(column, step));
}

/** What of a column no table of colors can hold, in words. */
export function leftOfColumn({ source, range }: Column): string[] {
  return [
    ...(source.from === 'profile' ? ['the camera profile and its rungs: it develops the file before any look'] : []),
    ...(source.from === 'export' ? ['the editor’s export, which is a picture'] : []),
    ...(range ? ['range compression: it depends on what stands around a color'] : []),
  ];
}

/** What a column may be called as a look: otherwise than what lies in it. */
export function titleOfKept(column: Column, name: string): string {
  const top = topLayer(column);
  const strength = top && top.strength !== 100 ? ` at ${top.strength} %` : '';
  const trim = column.trim ? ', trimmed' : '';
  return column.layers.length === 1 && !strength && !trim ? `${name}, kept` : `${name}${strength}${trim}`;
}
