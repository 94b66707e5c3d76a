/** One function a kind of request; each says what is to be handed over with its answer instead of being copied. */
import { isDeveloped, type CellSpec } from '@/core/bench/cell';
import { differenceMap, figuresOf } from '@/core/bench/measure';
import { neutralAt } from '@/core/bench/neutral';
import { findChart } from '@/core/chart/marks';
import { measureChart, type ChartResult } from '@/core/chart/measure';
import { Problem } from '@/core/problem';
import { Fault } from '../ask';
import { develop, markBeyond, pictureOf } from './develop';
import { partOf } from './part';
import type { BenchAnswer, BenchRequest, CellRequest, FindRequest, PartRequest, PickRequest } from './protocol';
import { linearPicture, renderedPicture } from './sources';

type Handed = { answer: BenchAnswer; transfer: ArrayBuffer[] };

/** Patches are always measured in one size, so that a small cell and the large picture say the same. */
const CHART_WIDTH = 900;

async function pick({ id, pick: cell, x, y }: PickRequest): Promise<Handed> {
  const seen = cell.camera
    ? ({ kind: 'camera', ...(await linearPicture(cell.frame, cell.width)) } as const)
    : ({ kind: 'rendered', ...(await renderedPicture(cell)) } as const);
  return { answer: { id, neutral: neutralAt(seen, x, y) }, transfer: [] };
}

async function find({ id, find: cell, layout }: FindRequest): Promise<Handed> {
  const { data, width, height } = await develop(cell);
  const found = findChart(data, width, height, { title: '', ...layout }, layout.outside);
  return { answer: { id, corners: found?.corners ?? null }, transfer: [] };
}

async function part(request: PartRequest): Promise<Handed> {
  const pixels = (await partOf(request)).buffer as ArrayBuffer;
  return { answer: { id: request.id, at: request.at, pixels }, transfer: [pixels] };
}

type Shown = Awaited<ReturnType<typeof pictureOf>>;

async function chartOf(cell: CellSpec, own: Shown): Promise<ChartResult | null> {
  if (!cell.chart) return null;
  const large = cell.width < CHART_WIDTH ? await pictureOf({ ...cell, width: CHART_WIDTH }) : own;
  return measureChart(large.data, large.width, large.height, cell.chart, cell.chart);
}

async function differenceOf(own: Shown, against: CellSpec) {
  const other = await pictureOf(against);
  if (other.width !== own.width || other.height !== own.height)
    throw new Fault('The reference is of another size.', 'Compare developed camera data with developed camera data.');
  const pixels = new Uint8ClampedArray(own.data.length);
  return { pixels, difference: differenceMap(own.data, other.data, pixels) };
}

async function markedOf(cell: CellSpec, own: Shown): Promise<number | null> {
  if (!cell.mark) return null;
  const samples = isDeveloped(cell) ? (await linearPicture(cell.frame, cell.width)).data : null;
  return markBeyond(cell, cell.mark, { width: own.width, pixels: own.data, codes: own.before, samples });
}

async function cell({ id, cell: asked, against }: CellRequest): Promise<Handed> {
  const began = performance.now();
  const own = await pictureOf(asked);
  const figures = figuresOf(own.data, own.before);
  const chart = await chartOf(asked, own);
  const map = against && (await differenceOf(own, against));
  const outside = map ? null : await markedOf(asked, own);
  const pixels = (map ?? { pixels: own.data }).pixels.buffer as ArrayBuffer;
  const answer: BenchAnswer = {
    id,
    width: own.width,
    height: own.height,
    pixels,
    figures,
    difference: map?.difference ?? null,
    white: own.white,
    chart,
    outside,
    ms: performance.now() - began,
  };
  return { answer, transfer: [pixels] };
}

/** Answers a request; what goes wrong is an answer too, in words for a person. */
export async function answerTo(request: BenchRequest): Promise<Handed> {
  try {
    if ('pick' in request) return await pick(request);
    if ('find' in request) return await find(request);
    if ('part' in request) return await part(request);
    return await cell(request);
  } catch (error) {
    const remedy = error instanceof Fault || error instanceof Problem ? error.remedy : 'Reload the page.';
    return { answer: { id: request.id, error: { message: (error as Error).message, remedy } }, transfer: [] };
  }
}
