/// <reference lib="webworker" />
/** Renders cells of the bench: develops camera data by a profile's table, lays looks over it, trims, compresses, measures. A thin shell over core. */
import {
  applyTrim,
  differenceMap,
  figuresOf,
  type CellFigures,
  type Difference,
  type Trim,
} from '@/core/bench/measure';
import { balancedBy, grayWorld, neutralAt, type Neutral } from '@/core/bench/neutral';
import { markOutside, uncut, type Gamut } from '@/core/bench/display-gamut';
import { applyRange, compressRange, rangeField, type RangeCompression, type RangeField } from '@/core/bench/range';
import { developTo } from '@/core/camera/table';
import { demosaic } from '@/core/frame/demosaic';
import { cropped, oriented, type Rect } from '@/core/frame/orient';
import { applyTo, prepare } from '@/core/look/apply';
import type { Look } from '@/core/look/look';
import { resized } from '@/core/look/resample';
import { sampler } from '@/core/look/sample';
import { Problem } from '@/core/problem';
import type { Patch } from '@/core/chart/cgats';
import { measureChart, type ChartResult, type Placed } from '@/core/chart/measure';
import { findChart } from '@/core/chart/marks';
import type { Point } from '@/core/chart/homography';

declare const self: DedicatedWorkerGlobalScope;

export interface CellSpec {
  frame: string;
  camera: boolean;
  width: number;
  /** a profile's version, "plain" for none, "jpeg" for the camera's own rendering */ profile: string;
  stages: string | null;
  anchor: number | null;
  /** as, auto, n:r,g,b or k:kelvin,tint */ wb: string;
  stack: {
    version: string;
    strength: number;
    /** words of an encoding, '' for the one that holds */ reading: string;
  }[];
  trim: Trim | null;
  range: RangeCompression | null;
  /** an editor's own rendering in the place of ours: its id, '' where this frame has none of that label */ export:
    string | null;
  /** the chart that the frame shows */ chart: (Placed & { patches: Patch[] }) | null;
  /** the display's gamut, where what lies outside is to be marked */ mark: Gamut | null;
}
export interface White {
  kelvin: number;
  tint: number;
  reachable: boolean;
}
/** A part of the frame at its full size (`whole`), `cell` as it is looked at as a whole. */
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
export type BenchRequest =
  | PartRequest
  | FindRequest
  | { id: number; cell: CellSpec; against: CellSpec | null }
  | { id: number; pick: CellSpec; x: number; y: number };
export type BenchAnswer =
  | {
      id: number;
      width: number;
      height: number;
      pixels: ArrayBuffer;
      figures: CellFigures;
      difference: Difference | null;
      white: White | null;
      chart: ChartResult | null;
      /** percent outside the display's gamut */ outside: number | null;
      ms: number;
    }
  | { id: number; corners: Point[] | null }
  | { id: number; at: Rect; pixels: ArrayBuffer }
  | { id: number; neutral: [number, number, number] }
  | { id: number; error: { message: string; remedy: string } };

class Fault extends Error {
  constructor(
    message: string,
    readonly remedy: string,
  ) {
    super(message);
  }
}
const CHART_WIDTH = 900;
interface Picture {
  width: number;
  height: number;
  data: Uint8ClampedArray;
}
interface Linear {
  width: number;
  height: number;
  data: Uint16Array;
}
interface Developed extends Picture {
  white: White | null;
}

/** The newest stay, so that memory stays bounded. */
class Memory<T> {
  private readonly map = new Map<string, Promise<T>>();
  constructor(private readonly most: number) {}
  get(key: string, make: () => Promise<T>): Promise<T> {
    let p = this.map.get(key);
    if (p) {
      this.map.delete(key);
      this.map.set(key, p);
      return p;
    }
    p = make();
    p.catch(() => this.map.delete(key));
    this.map.set(key, p);
    if (this.map.size > this.most) this.map.delete(this.map.keys().next().value!);
    return p;
  }
}
const pictures = new Memory<Picture>(24);
const linears = new Memory<Linear>(12);
const looks = new Memory<Look>(60);
const bases = new Memory<{ table: ReturnType<typeof prepare>; neutral: number[]; white: White }>(80);
const developed = new Memory<Developed>(48);
const fields = new Memory<RangeField>(6);

/** An answer of the server, whole. Where two workers ask for the same large answer at once, the browser's cache can break one off: that one is asked for again, past the cache. */
async function ask(path: string, cache: RequestCache = 'default'): Promise<{ headers: Headers; bytes: ArrayBuffer }> {
  let response: Response;
  let bytes: ArrayBuffer;
  try {
    response = await fetch(path, { cache });
    bytes = await response.arrayBuffer();
  } catch {
    if (cache === 'default') return ask(path, 'no-store');
    throw new Fault('The server cannot be reached.', 'Check the network, then try again.');
  }
  if (response.ok) return { headers: response.headers, bytes };
  let e: { message: string; remedy: string } | undefined;
  try {
    e = (JSON.parse(new TextDecoder().decode(bytes)) as { error?: { message: string; remedy: string } }).error;
  } catch {
    /* no words of ours */
  }
  throw new Fault(e?.message ?? `The server answered ${response.status}.`, e?.remedy ?? 'Reload the page.');
}
const picture = (id: string, width: number): Promise<Picture> =>
  pictures.get(`${id} ${width}`, async () => {
    const bitmap = await createImageBitmap(new Blob([(await ask(`/api/frames/${id}?w=${width}`)).bytes]), {
      colorSpaceConversion: 'none',
      premultiplyAlpha: 'none',
    });
    const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d', { willReadFrequently: true })!;
    context.drawImage(bitmap, 0, 0);
    return {
      width: bitmap.width,
      height: bitmap.height,
      data: context.getImageData(0, 0, bitmap.width, bitmap.height).data,
    };
  });
const linear = (id: string, width: number): Promise<Linear> =>
  linears.get(`${id} ${width}`, async () => {
    const r = await ask(`/api/frames/${id}/linear?w=${width}`);
    const [w, h] = r.headers.get('x-size')!.split(',').map(Number) as [number, number];
    return { width: w, height: h, data: new Uint16Array(r.bytes) };
  });
const table = ({ version, reading }: { version: string; reading: string }): Promise<Look> =>
  looks.get(`${version} ${reading}`, async () => {
    const r = await ask(
      `/api/versions/${version}/table?points=33${reading ? `&as=${encodeURIComponent(reading)}` : ''}`,
    );
    const about = JSON.parse(r.headers.get('x-look')!) as Pick<Look, 'kind' | 'size' | 'domain'>;
    const look: Look = {
      ...about,
      format: 'cube',
      table: new Float32Array(r.bytes),
      title: '',
      comments: [],
      warnings: [],
    };
    return look.kind === '3d' ? look : resized(look, 65); // curves as a table, which the kernel takes
  });
const base = (cell: CellSpec, wb: string) => {
  const query = new URLSearchParams({ frame: cell.frame, version: cell.profile, wb });
  if (cell.stages !== null) query.set('stages', cell.stages);
  if (cell.anchor) query.set('anchor', String(cell.anchor));
  return bases.get(query.toString(), async () => {
    const r = await ask(`/api/bench/base?${query}`);
    const about = JSON.parse(r.headers.get('x-base')!) as { size: number; neutral: number[]; white: White };
    return {
      neutral: about.neutral,
      white: about.white,
      table: prepare({
        format: 'cube',
        kind: '3d',
        size: about.size,
        table: new Float32Array(r.bytes),
        title: '',
        domain: { min: [0, 0, 0], max: [1, 1, 1] },
        comments: [],
        warnings: [],
      }),
    };
  });
};

/** The frame developed and balanced, before any look. */
const develop = (cell: CellSpec): Promise<Developed> =>
  developed.get(
    JSON.stringify([cell.frame, cell.width, cell.profile, cell.stages, cell.anchor, cell.wb, cell.export]),
    async () => {
      if (cell.export !== null) return { ...(await exported(cell)), white: null };
      if (cell.camera && cell.profile !== 'jpeg') {
        const l = await linear(cell.frame, cell.width);
        const b = await baseOf(cell);
        const data = new Uint8ClampedArray(l.width * l.height * 4);
        developTo(b.table, b.neutral, l.data, data);
        return { width: l.width, height: l.height, data, white: b.white };
      }
      needsNoCamera(cell);
      const picture = await rendered(cell);
      const data = await balanced(cell, picture.data);
      return { ...picture, data, white: null };
    },
  );
/** An editor's export, in the size in which the frame itself is seen here, so that the two can be compared. */
async function exported(cell: CellSpec): Promise<Picture> {
  if (!cell.export) throw new Fault('There is no such export of this frame.', 'Bring one in by the column’s menu.');
  const own = cell.camera ? await linear(cell.frame, cell.width) : await rendered(cell);
  const answer = await ask(`/api/exports/${cell.export}?w=${cell.width}`);
  const bitmap = await createImageBitmap(new Blob([answer.bytes]), {
    colorSpaceConversion: 'none',
    premultiplyAlpha: 'none',
    resizeWidth: own.width,
    resizeHeight: own.height,
    resizeQuality: 'high',
  });
  const context = new OffscreenCanvas(own.width, own.height).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  return { width: own.width, height: own.height, data: context.getImageData(0, 0, own.width, own.height).data };
}
const needsNoCamera = (cell: CellSpec): void => {
  if (!cell.camera && cell.profile !== 'plain' && cell.profile !== 'jpeg')
    throw new Fault(
      'A camera profile needs camera data; this frame is a rendered file.',
      'Take a camera file as the row, or the profile out of the column.',
    );
};
const rendered = (cell: CellSpec): Promise<Picture> =>
  picture(cell.frame, cell.width <= 320 ? 320 : cell.width <= 900 ? 900 : 1500);
/** The profile's table for the row's white, which the frame as a whole decides where it is found by itself. */
const baseOf = async (cell: CellSpec) =>
  base(
    cell,
    cell.wb === 'auto'
      ? `n:${grayWorld({ kind: 'camera', ...(await linear(cell.frame, cell.width)) })
          .map((v) => v.toFixed(5))
          .join(',')}`
      : cell.wb,
  );

/** Pixels of a rendered file, with the row's white; the same array where that is as it is. */
async function balanced(cell: CellSpec, pixels: Uint8ClampedArray): Promise<Uint8ClampedArray> {
  if (cell.wb === 'as' || cell.wb.startsWith('k:') || cell.profile === 'jpeg') return pixels;
  return balancedBy(
    pixels,
    cell.wb === 'auto'
      ? grayWorld({ kind: 'rendered', ...(await rendered(cell)) })
      : (cell.wb.slice(2).split(',').map(Number) as Neutral),
  );
}

/** Looks, then the trim, in place. */
async function lay(cell: CellSpec, pixels: Uint8ClampedArray): Promise<void> {
  const tables = await Promise.all(cell.stack.map((s) => table(s)));
  cell.stack.forEach((s, i) => {
    if (s.strength > 0) applyTo(prepared(tables[i]!, `${s.version} ${s.reading}`, s.strength), pixels, pixels);
  });
  if (cell.trim) applyTrim(pixels, cell.trim);
}
const fieldOf = (cell: CellSpec, range: RangeCompression): Promise<RangeField> =>
  fields.get(JSON.stringify(cell), async () => {
    const developed = await develop(cell);
    const data = developed.data.slice();
    await lay(cell, data);
    return rangeField(data, developed.width, developed.height, range);
  });

async function cell(c: CellSpec): Promise<Developed & { before: Uint8ClampedArray }> {
  const [developed] = await Promise.all([develop(c), ...c.stack.map((s) => table(s))]);
  const out = developed.data.slice();
  await lay(c, out);
  if (c.range) compressRange(out, developed.width, developed.height, c.range);
  return { ...developed, data: out, before: developed.data };
}

/** Marks what the display cannot show; `codes` is the developed picture, `samples` the camera's values where there are any. */
async function mark(
  cell: CellSpec,
  gamut: Gamut,
  width: number,
  out: Uint8ClampedArray,
  codes: Uint8ClampedArray,
  samples: Uint16Array | null,
): Promise<number> {
  const b = samples && (await baseOf(cell));
  const looks = (await Promise.all(cell.stack.map((s) => table(s))))
    .map((l, i) => ({ f: sampler(l), strength: cell.stack[i]!.strength / 100 }))
    .filter((l) => l.strength > 0);
  return markOutside(out, width, gamut, uncut(codes, b && { samples, table: b.table, neutral: b.neutral }, looks));
}

interface PartHead {
  kind: 'mosaic' | 'linear' | 'rendered';
  orientation: number;
  cfa: number[];
  black: number[];
  white: number[];
  neutral: number[];
  shown: Rect;
  stored: Rect;
}
/** A part at full size, developed and laid over as the whole is. */
async function part({ part: cell, at, whole }: PartRequest): Promise<Uint8ClampedArray> {
  if (cell.camera && cell.profile === 'jpeg')
    throw new Fault('The camera’s own JPEG is not kept at full size.', 'Look at it as a whole.');
  needsNoCamera(cell);
  if (cell.export !== null) throw new Fault('An export is not kept at full size.', 'Look at it as a whole.');
  const [r, b] = await Promise.all([
    ask(`/api/frames/${cell.frame}/part?x=${at.x}&y=${at.y}&w=${at.w}&h=${at.h}`),
    cell.camera ? baseOf(cell) : null,
  ]);
  const partHead = JSON.parse(r.headers.get('x-part')!) as PartHead;
  const { shown, stored } = partHead;
  const { bytes } = r;
  const block = new Uint8ClampedArray(shown.w * shown.h * 4);
  let camera: Uint16Array | null = null;
  if (b) {
    const samples = new Uint16Array(bytes);
    camera = oriented(
      partHead.kind === 'mosaic' ? demosaic({ ...partHead, width: stored.w, height: stored.h, samples }) : samples,
      stored.w,
      stored.h,
      3,
      partHead.orientation,
    );
    developTo(b.table, b.neutral, camera, block);
  } else {
    const samples = new Uint8Array(bytes);
    for (let i = 0, o = 0; o < block.length; i += 3, o += 4) {
      block[o] = samples[i]!;
      block[o + 1] = samples[i + 1]!;
      block[o + 2] = samples[i + 2]!;
      block[o + 3] = 255;
    }
  }
  const before = b ? cropped(block, shown, at, 4) : await balanced(cell, cropped(block, shown, at, 4));
  const laid = before.slice();
  await lay(cell, laid);
  if (cell.range)
    applyRange(laid, at.w, at.h, cell.range, await fieldOf(cell, cell.range), { x: at.x, y: at.y, ...whole });
  if (cell.mark) await mark(cell, cell.mark, at.w, laid, before, camera && cropped(camera, shown, at, 3));
  return laid;
}
const ready = new Map<string, ReturnType<typeof prepare>>();
function prepared(look: Look, version: string, strength: number): ReturnType<typeof prepare> {
  const key = `${version} ${strength}`;
  let p = ready.get(key);
  if (!p) {
    ready.set(key, (p = prepare(look, strength / 100)));
    if (ready.size > 12) ready.delete(ready.keys().next().value!);
  }
  return p;
}

self.onmessage = (event: MessageEvent<BenchRequest>) =>
  void (async () => {
    const request = event.data;
    try {
      if ('pick' in request) {
        self.postMessage({
          id: request.id,
          neutral: neutralAt(
            request.pick.camera
              ? { kind: 'camera', ...(await linear(request.pick.frame, request.pick.width)) }
              : { kind: 'rendered', ...(await rendered(request.pick)) },
            request.x,
            request.y,
          ),
        } satisfies BenchAnswer);
        return;
      }
      if ('find' in request) {
        const developed = await develop(request.find);
        const at = findChart(
          developed.data,
          developed.width,
          developed.height,
          { title: '', ...request.layout },
          request.layout.outside,
        );
        self.postMessage({ id: request.id, corners: at?.corners ?? null } satisfies BenchAnswer);
        return;
      }
      if ('part' in request) {
        const pixels = (await part(request)).buffer as ArrayBuffer;
        self.postMessage({ id: request.id, at: request.at, pixels } satisfies BenchAnswer, [pixels]);
        return;
      }
      const t = performance.now();
      const own = await cell(request.cell);
      const figures = figuresOf(own.data, own.before);
      // patches are always measured in one size, so that a small cell and the large picture say the same
      const large =
        request.cell.chart &&
        (request.cell.width < CHART_WIDTH ? await cell({ ...request.cell, width: CHART_WIDTH }) : own);
      const chart =
        request.cell.chart &&
        large &&
        measureChart(large.data, large.width, large.height, request.cell.chart, request.cell.chart);
      let difference: Difference | null = null;
      let pixels = own.data;
      let outside: number | null = null;
      if (request.against) {
        const other = await cell(request.against);
        if (other.width === own.width && other.height === own.height) {
          pixels = new Uint8ClampedArray(own.data.length);
          difference = differenceMap(own.data, other.data, pixels);
        } else
          throw new Fault(
            'The reference is of another size.',
            'Compare developed camera data with developed camera data.',
          );
      } else if (request.cell.mark)
        outside = await mark(
          request.cell,
          request.cell.mark,
          own.width,
          pixels,
          own.before,
          request.cell.camera && request.cell.profile !== 'jpeg' && request.cell.export === null
            ? (await linear(request.cell.frame, request.cell.width)).data
            : null,
        );
      self.postMessage(
        {
          id: request.id,
          width: own.width,
          height: own.height,
          pixels: pixels.buffer as ArrayBuffer,
          figures,
          difference,
          white: own.white,
          chart,
          outside,
          ms: performance.now() - t,
        } satisfies BenchAnswer,
        [pixels.buffer as ArrayBuffer],
      );
    } catch (error) {
      self.postMessage({
        id: request.id,
        error:
          error instanceof Fault || error instanceof Problem
            ? { message: error.message, remedy: error.remedy }
            : { message: (error as Error).message, remedy: 'Reload the page.' },
      } satisfies BenchAnswer);
    }
  })();
