/**
 * What is computed in threads of its own, so that nobody's request waits behind another's table. Each task is a function of
 * what it is given alone: no database, no files.
 */
import type { Descriptor } from '@/core/editor/descriptor';
import type { Trim } from '@/core/bench/measure';
import { averageOf } from '@/core/editor-chart/average';
import { cameraChart } from '@/core/editor-chart/camera';
import type { ReadingFigures } from '@/core/editor-chart/figures';
import type { ChartName } from '@/core/editor-chart/layout';
import type { Placed } from '@/core/chart/measure';
import { deriveProfile, type ProfileAsked } from '@/core/camera/derived';
import { readDcp, type Profile } from '@/core/camera/dcp';
import { type Stage } from '@/core/camera/render';
import { profileTable } from '@/core/camera/table';
import { inputTable } from '@/core/icc/input';
import { applyLook } from '@/core/look/apply';
import { chartPatches } from '@/core/look/chart-match';
import { matchCameras, sharedPatches, tableOfMatch, type MatchPatch } from '@/core/look/camera-match';
import { pixelDistance } from '@/core/look/compare';
import { readCube, writeCubeBytes } from '@/core/look/cube';
import { writeHaldPng, writeHaldTiff } from '@/core/look/hald-file';
import { identityOf } from '@/core/look/identity';
import { deriveLook, selvedgeOf, type DeriveAsked } from '@/core/look/derived';
import { rangeOf, type Look } from '@/core/look/look';
import { inspect, type Inspection } from '@/core/look/inspect';
import {
  differencePicture,
  pictureDifference,
  WHITE_DELTA_E,
  type PictureFigures,
} from '@/core/look/picture-difference';
import { residual } from '@/core/look/residual';
import { lensDifference } from '@/core/lens/records';
import { sampler, type Evaluate } from '@/core/look/sample';
import { stackOf, tableOfStack } from '@/core/look/stack';
import { selvedge } from '@/core/look/selvedge';
import { applyPreset, evaluateOf } from '@/core/preset/apply';
import { bake, bakeResidual } from '@/core/preset/bake';
import { convertPreset, type Source as PresetToWrite } from '@/core/preset/convert';
import type { SightingFigures } from '@/core/records/sighting';
import { developed, full, linear, opened, openedPiece } from './developing';
import { calledLook, look, PREVIEW_POINTS, ourPicture, presetOf, type PresetSource, type TableSource } from './sources';
import { fileEffect, presetEffect } from '../copies/effect-of';
import { chartPicture, readChartPicture } from '../editor-charts/picture';

export type { CalledSource, PresetSource, TableSource } from './sources';

/** 8-bit RGBA under a look or a preset, as made. */
async function picture({ source, pixels }: { source: TableSource; pixels: Uint8Array }): Promise<Uint8ClampedArray> {
  const out = new Uint8ClampedArray(pixels.length);
  if (source.kind === 'preset') applyPreset(await presetOf(source), 1, pixels, out);
  else applyLook(await look({ source, points: PREVIEW_POINTS }), 1, pixels, out);
  return out;
}

interface SeenAsked {
  source: TableSource;
  /** the picture that an editor was given, and what it made of it with the item on: RGBA of 8 bits, of one size */
  given: Uint8Array;
  back: Uint8Array;
}
/** How far an editor's picture is from ours with the same item on, and both from what it was given. */
async function seen(asked: SeenAsked): Promise<SightingFigures> {
  const { given, back } = asked;
  const ours = await ourPicture(asked);
  const figures = (one: Uint8Array, other: Uint8Array | Uint8ClampedArray): PictureFigures => {
    const { mean, p95, max } = pictureDifference(one, other);
    return { mean, p95, max };
  };
  return { off: figures(back, ours), there: figures(given, back), here: figures(given, ours) };
}

/** Our picture, and where an editor's differs from it. */
async function seenPictures(asked: SeenAsked) {
  const ours = await ourPicture(asked);
  return { ours, difference: differencePicture(pictureDifference(asked.back, ours).values, WHITE_DELTA_E) };
}

async function inspection(source: TableSource): Promise<Inspection> {
  const table = await look({ source, points: 0 });
  return inspect(sampler(table), table.table);
}

interface BakeAsked {
  source: PresetSource;
  size: number;
  title: string;
  wanted: string[] | undefined;
  /** stops above middle gray; null for display white */ above: number | null;
}
/** A preset as a table: what it carries and leaves, its file, and how far it is off. */
async function baked({ source, size, title, wanted, above }: BakeAsked) {
  const called = await calledLook(source.called);
  const made = bake(source.settings, size, title, { overrides: source.classes, wanted, called, above });
  return {
    kept: made.kept,
    /** whether the look that the preset calls is in the table */ takesLook: !!made.effect.look,
    left: made.left,
    residual: bakeResidual(made),
    bytes: writeCubeBytes(made.look),
    threads: selvedge(sampler(made.look)),
    domain: made.look.domain,
    range: rangeOf(made.look),
  };
}

/** A preset in the language of an editor, with what became of each setting. */
const writtenPreset = ({ source, to }: { source: PresetToWrite; to: Descriptor }) => convertPreset(source, to);

interface StackAsked {
  layers: { source: TableSource; /** a factor */ strength: number }[];
  trim: Trim | null;
  size: number;
  title: string;
}
/** A column of the bench as a table: its file, and how far it is off. */
async function stacked({ layers, trim, size, title }: StackAsked) {
  const over: Evaluate[] = [];
  for (const { source, strength } of layers)
    over.push(
      source.kind === 'preset'
        ? evaluateOf(await presetOf(source), strength)
        : sampler(await look({ source, points: 0 }), 'tetrahedral', strength),
    );
  const made = tableOfStack(stackOf(over, trim), size, title);
  return {
    bytes: writeCubeBytes(made.look),
    threads: selvedge(sampler(made.look)),
    residual: made.residual,
    domain: made.look.domain,
    range: rangeOf(made.look),
  };
}

export type ChartToMake =
  | { name: ChartName; file: 'png' | 'tiff' }
  | { name: ChartName; file: 'dng'; /** a DCP */ profile: Uint8Array }
  | { plain: number; file: 'png' | 'tiff' };

/** A chart for an editor as a file; `plain`: a Hald image of so many points an axis. */
async function chartFile(asked: ChartToMake): Promise<Uint8Array> {
  if ('plain' in asked) {
    const look = identityOf(asked.plain);
    return asked.file === 'tiff' ? writeHaldTiff(look) : writeHaldPng(look);
  }
  if (asked.file === 'dng') return cameraChart(asked.name, readDcp(asked.profile)).dng;
  return (await chartPicture(asked.name, asked.file)).bytes;
}

interface ChartBack {
  bytes: Uint8Array;
  fileName: string;
  /** what was switched on in the editor, where we hold it */ preset: PresetSource | null;
}

/** How far our own rendering of a preset is from a table. */
const agreementWith = async (preset: PresetSource, table: Look) =>
  residual(evaluateOf(await presetOf(preset)), sampler(table));

/** A chart that came back: which it is, its table as a file, and every figure. */
async function chartRead({ bytes, fileName, preset }: ChartBack) {
  const read = await readChartPicture(Buffer.from(bytes), fileName);
  const { name, look: table, noise, spread, repaired, warnings, residual: error, validFor } = read;
  const agreement = preset && (await agreementWith(preset, table));
  const figures: ReadingFigures = { noise, spread, repaired, warnings, error, agreement, validFor };
  return { name, points: table.size, bytes: writeCubeBytes(table), figures };
}

interface ReadingsAsked {
  /** readings as .cube */ tables: Uint8Array[];
  title: string;
  preset: PresetSource | null;
}

/** Readings of one chart as a look: their average, its file, and how well it agrees with our rendering. */
async function chartLook({ tables, title, preset }: ReadingsAsked) {
  const { look: table, spread } = averageOf(tables.map(readCube), title);
  return {
    bytes: writeCubeBytes(table),
    size: table.size,
    spread,
    agreement: preset && (await agreementWith(preset, table)),
    threads: selvedge(sampler(table)),
    domain: table.domain,
    range: rangeOf(table),
  };
}

export interface MatchAsked {
  from: MatchSource;
  to: MatchSource;
  /** ids of the patches of the chart that both show; null where they show no common one */ chart: string[] | null;
  /** the table that is wanted of it; null for the figures alone */ table: { points: number; title: string } | null;
}
/** sRGB, RGBA of 8 bits. */
export interface MatchSource {
  pixels: Uint8Array;
  width: number;
  height: number;
  at: Placed | null;
}

function patchesOf({ from, to, chart }: MatchAsked): MatchPatch[] {
  if (chart && from.at && to.at) return chartPatches({ ...from, at: from.at }, { ...to, at: to.at }, chart);
  const picture = ({ pixels, ...shape }: MatchSource) => ({ ...shape, channels: 4 as const, data: pixels });
  return sharedPatches(picture(from), picture(to));
}

/** A camera match: what each patch is off before and after, and the table. */
function cameraMatch(asked: MatchAsked) {
  const match = matchCameras(patchesOf(asked));
  const { before, after, patches } = match;
  if (!asked.table) return { before, after, patches, table: null };
  const made = tableOfMatch(match, asked.table.points, asked.table.title);
  const table = {
    bytes: writeCubeBytes(made),
    threads: selvedge(sampler(made)),
    residual: residual(match.evaluate, sampler(made)),
    domain: made.domain,
    range: rangeOf(made),
  };
  return { before, after, patches, table };
}

/** How far two looks are apart: by figures, and on pictures of 8-bit RGBA. */
function apart({ before, after, pictures }: { before: Look; after: Look; pictures: Uint8Array[] }) {
  const { meanDeltaE, p95DeltaE, maxDeltaE } = residual(sampler(before), sampler(after));
  return {
    color: { mean: meanDeltaE, p95: p95DeltaE, max: maxDeltaE },
    pictures: pictures.map((picture) => pixelDistance(picture, before, after)),
  };
}

const effect = async (
  asked: { kind: string; bytes: Uint8Array } | { kind: 'preset'; facts: Record<string, unknown> },
) => ('facts' in asked ? presetEffect(asked.facts) : fileEffect(asked.kind, asked.bytes));

export const tasks = {
  look,
  picture,
  seen,
  seenPictures,
  inspection,
  baked,
  writtenPreset,
  stacked,
  chartFile,
  chartName: async ({ bytes, fileName }: { bytes: Uint8Array; fileName: string }) =>
    (await readChartPicture(Buffer.from(bytes), fileName)).name,
  chartRead,
  chartLook,
  cameraMatch,
  apart,
  linear,
  developed,
  opened,
  openedPiece,
  full,
  effect,
  deriveLook: ({ bytes, asked }: { bytes: Uint8Array; asked: DeriveAsked }) => deriveLook(bytes, asked),
  deriveProfile: ({ bytes, asked }: { bytes: Uint8Array; asked: ProfileAsked }) => deriveProfile(bytes, asked),
  selvedge: ({ bytes }: { bytes: Uint8Array }) => selvedgeOf(bytes),
  profileTable: ({ profile, neutral, stages }: { profile: Profile; neutral: number[]; stages: readonly Stage[] }) =>
    profileTable(profile, neutral, stages),
  lensDifference: ({ older, newer }: { older: Uint8Array; newer: Uint8Array }) => lensDifference(older, newer),
  inputTable: ({ icc, neutral }: { icc: Uint8Array; neutral: number[] }) => inputTable(icc, neutral),
} as const;

export type Tasks = typeof tasks;
export type TaskName = keyof Tasks;
export type TaskInput<Name extends TaskName> = Parameters<Tasks[Name]>[0];
export type TaskResult<Name extends TaskName> = Awaited<ReturnType<Tasks[Name]>>;
