/// <reference lib="webworker" />
/** Renders cells of the bench: develops camera data by a profile's table, lays looks over it, trims, compresses, measures. A thin shell over core. */
import { applyTrim, differenceMap, figuresOf, type CellFigures, type Difference, type Trim } from '@/core/bench/measure';
import { compressRange, type RangeCompression } from '@/core/bench/range';
import { developTo } from '@/core/camera/table';
import { applyTo, prepare } from '@/core/look/apply';
import { decodeSrgb, encodeSrgb } from '@/core/color/transfer';
import type { Look } from '@/core/look/look';
import { resized } from '@/core/look/resample';

declare const self: DedicatedWorkerGlobalScope;

export interface CellSpec {
  frame: string; camera: boolean; width: number;
  /** a profile's version, "plain" for none, "jpeg" for the camera's own rendering */ profile: string; stages: string | null; anchor: number | null; /** as, auto, n:r,g,b or k:kelvin,tint */ wb: string;
  stack: { version: string; strength: number }[]; trim: Trim | null; range: RangeCompression | null;
}
export interface White { kelvin: number; tint: number; reachable: boolean }
export type BenchRequest = { id: number; cell: CellSpec; against: CellSpec | null } | { id: number; pick: CellSpec; x: number; y: number };
export type BenchAnswer =
  | { id: number; width: number; height: number; pixels: ArrayBuffer; figures: CellFigures; difference: Difference | null; white: White | null; ms: number }
  | { id: number; neutral: [number, number, number] }
  | { id: number; error: { message: string; remedy: string } };

class Fault extends Error { constructor(message: string, readonly remedy: string) { super(message); } }
interface Picture { width: number; height: number; data: Uint8ClampedArray }
interface Linear { width: number; height: number; data: Uint16Array }
interface Developed extends Picture { white: White | null }

/** The newest stay, so that memory stays bounded. */
class Memory<T> {
  private readonly map = new Map<string, Promise<T>>();
  constructor(private readonly most: number) {}
  get(key: string, make: () => Promise<T>): Promise<T> {
    let p = this.map.get(key);
    if (p) { this.map.delete(key); this.map.set(key, p); return p; }
    p = make();
    p.catch(() => this.map.delete(key));
    this.map.set(key, p);
    if (this.map.size > this.most) this.map.delete(this.map.keys().next().value!);
    return p;
  }
}
const pictures = new Memory<Picture>(24), linears = new Memory<Linear>(12), looks = new Memory<Look>(60), bases = new Memory<{ look: Look; neutral: number[]; white: White }>(80), developed = new Memory<Developed>(48);

async function ask(path: string): Promise<Response> {
  let r: Response;
  try { r = await fetch(path); } catch { throw new Fault('The server cannot be reached.', 'Check the network, then try again.'); }
  if (r.ok) return r;
  const e = ((await r.json().catch(() => null)) as { error?: { message: string; remedy: string } } | null)?.error;
  throw new Fault(e?.message ?? `The server answered ${r.status}.`, e?.remedy ?? 'Reload the page.');
}
const picture = (id: string, width: number): Promise<Picture> => pictures.get(`${id} ${width}`, async () => {
  const bitmap = await createImageBitmap(await (await ask(`/api/frames/${id}?w=${width}`)).blob(), { colorSpaceConversion: 'none', premultiplyAlpha: 'none' }), context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  return { width: bitmap.width, height: bitmap.height, data: context.getImageData(0, 0, bitmap.width, bitmap.height).data };
});
const linear = (id: string, width: number): Promise<Linear> => linears.get(`${id} ${width}`, async () => { const r = await ask(`/api/frames/${id}/linear?w=${width}`), [w, h] = r.headers.get('x-size')!.split(',').map(Number) as [number, number]; return { width: w, height: h, data: new Uint16Array(await r.arrayBuffer()) }; });
const table = (version: string): Promise<Look> => looks.get(version, async () => {
  const r = await ask(`/api/versions/${version}/table?points=33`), about = JSON.parse(r.headers.get('x-look')!) as Pick<Look, 'kind' | 'size' | 'domain'>, look: Look = { ...about, format: 'cube', table: new Float32Array(await r.arrayBuffer()), title: '', comments: [], warnings: [] };
  return look.kind === '3d' ? look : resized(look, 65); // curves as a table, which the kernel takes
});
const base = (c: CellSpec, wb: string) => { const q = new URLSearchParams({ frame: c.frame, version: c.profile, wb }); if (c.stages !== null) q.set('stages', c.stages); if (c.anchor) q.set('anchor', String(c.anchor)); return bases.get(q.toString(), async () => { const r = await ask(`/api/bench/base?${q}`), about = JSON.parse(r.headers.get('x-base')!) as { size: number; neutral: number[]; white: White }; return { neutral: about.neutral, white: about.white, look: { format: 'cube', kind: '3d', size: about.size, table: new Float32Array(await r.arrayBuffer()), title: '', domain: { min: [0, 0, 0], max: [1, 1, 1] }, comments: [], warnings: [] } as Look }; }); };

/** The mean of what is neither dark nor clipped: the gray world's neutral. */
function grayWorld(d: ArrayLike<number>, step: number, top: number, light: (v: number) => number): [number, number, number] {
  const s: [number, number, number] = [0, 0, 0];
  for (let i = 0; i + 2 < d.length; i += step) { const r = d[i]!, g = d[i + 1]!, b = d[i + 2]!, hi = Math.max(r, g, b); if (hi < top * 0.97 && hi > top * 0.02) { s[0] += light(r); s[1] += light(g); s[2] += light(b); } }
  const most = Math.max(...s) || 1;
  return [Math.max(1e-3, s[0] / most), Math.max(1e-3, s[1] / most), Math.max(1e-3, s[2] / most)];
}

/** The frame developed and balanced, before any look. */
const develop = (c: CellSpec): Promise<Developed> => developed.get(JSON.stringify([c.frame, c.width, c.profile, c.stages, c.anchor, c.wb]), async () => {
  if (c.camera && c.profile !== 'jpeg') {
    const l = await linear(c.frame, c.width), wb = c.wb === 'auto' ? `n:${grayWorld(l.data, 3, 65535, (v) => v).map((v) => v.toFixed(5)).join(',')}` : c.wb, b = await base(c, wb), data = new Uint8ClampedArray(l.width * l.height * 4);
    developTo(b.look, b.neutral, l.data, data);
    return { width: l.width, height: l.height, data, white: b.white };
  }
  if (!c.camera && c.profile !== 'plain' && c.profile !== 'jpeg') throw new Fault('A camera profile needs camera data; this frame is a rendered file.', 'Take a camera file as the row, or the profile out of the column.');
  const p = await picture(c.frame, c.width <= 320 ? 320 : c.width <= 900 ? 900 : 1500);
  if (c.wb === 'as' || c.wb.startsWith('k:') || c.profile === 'jpeg') return { ...p, white: null };
  const n = c.wb === 'auto' ? grayWorld(p.data, 4, 255, (v) => decodeSrgb(v / 255)) : (c.wb.slice(2).split(',').map(Number) as [number, number, number]), data = p.data.slice();
  const codes = n.map((v) => Uint8ClampedArray.from({ length: 256 }, (_, i) => Math.round(255 * encodeSrgb(Math.min(1, (decodeSrgb(i / 255) * n[1]) / v)))));
  for (let i = 0; i < data.length; i += 4) { data[i] = codes[0]![data[i]!]!; data[i + 1] = codes[1]![data[i + 1]!]!; data[i + 2] = codes[2]![data[i + 2]!]!; }
  return { ...p, data, white: null };
});

async function cell(c: CellSpec): Promise<Developed & { before: Uint8ClampedArray }> {
  const [d, ...tables] = await Promise.all([develop(c), ...c.stack.map((s) => table(s.version))]), out = d.data.slice();
  c.stack.forEach((s, i) => { if (s.strength > 0) applyTo(prepared(tables[i]!, s.version, s.strength), out, out); });
  if (c.trim) applyTrim(out, c.trim);
  if (c.range) compressRange(out, d.width, d.height, c.range);
  return { ...d, data: out, before: d.data };
}
const ready = new Map<string, ReturnType<typeof prepare>>();
function prepared(look: Look, version: string, strength: number): ReturnType<typeof prepare> {
  const key = `${version} ${strength}`;
  let p = ready.get(key);
  if (!p) { ready.set(key, p = prepare(look, strength / 100)); if (ready.size > 12) ready.delete(ready.keys().next().value!); }
  return p;
}

self.onmessage = (e: MessageEvent<BenchRequest>) => void (async () => {
  const q = e.data;
  try {
    if ('pick' in q) { self.postMessage({ id: q.id, neutral: await pick(q.pick, q.x, q.y) } satisfies BenchAnswer); return; }
    const t = performance.now(), own = await cell(q.cell), figures = figuresOf(own.data, own.before);
    let difference: Difference | null = null, pixels = own.data;
    if (q.against) {
      const other = await cell(q.against);
      if (other.width === own.width && other.height === own.height) { pixels = new Uint8ClampedArray(own.data.length); difference = differenceMap(own.data, other.data, pixels); } else throw new Fault('The reference is of another size.', 'Compare developed camera data with developed camera data.');
    }
    self.postMessage({ id: q.id, width: own.width, height: own.height, pixels: pixels.buffer as ArrayBuffer, figures, difference, white: own.white, ms: performance.now() - t } satisfies BenchAnswer, [pixels.buffer as ArrayBuffer]);
  } catch (error) { self.postMessage({ id: q.id, error: error instanceof Fault ? { message: error.message, remedy: error.remedy } : { message: (error as Error).message, remedy: 'Reload the page.' } } satisfies BenchAnswer); }
})();

/** What ought to be neutral at a place (0…1): the mean of a small square, as the file has it. */
async function pick(c: CellSpec, x: number, y: number): Promise<[number, number, number]> {
  const s: [number, number, number] = [0, 0, 0], d: { width: number; height: number; data: ArrayLike<number> } = c.camera ? await linear(c.frame, c.width) : await picture(c.frame, c.width <= 320 ? 320 : c.width <= 900 ? 900 : 1500), step = c.camera ? 3 : 4;
  let clipped = false;
  for (let dy = -2; dy <= 2; dy++) for (let dx = -2; dx <= 2; dx++) {
    const px = Math.max(0, Math.min(d.width - 1, Math.round(x * d.width) + dx)), py = Math.max(0, Math.min(d.height - 1, Math.round(y * d.height) + dy)), at = (py * d.width + px) * step;
    for (let k = 0; k < 3; k++) { const v = d.data[at + k]!; if (v >= (c.camera ? 64000 : 254)) clipped = true; s[k]! += c.camera ? v : decodeSrgb(v / 255); }
  }
  const most = Math.max(...s);
  if (clipped || most <= 0 || Math.min(...s) <= 0) throw new Fault('That place is clipped or black.', 'Pick a gray that is neither.');
  return [s[0] / most, s[1] / most, s[2] / most];
}
