/// <reference lib="webworker" />
/** Renders a look over a frame. Keeps the frames' pixels and the looks' tables; a thin shell over core/look. */
import { applyTo, prepare, type Prepared } from '@/core/look/apply';
import { sampler } from '@/core/look/sample';
import type { Look } from '@/core/look/look';
import { recentlyUsed } from '@/core/recently-used';
import { ask, headerOf } from './ask';
import { pixelsOf, type Picture } from './pixels';

declare const self: DedicatedWorkerGlobalScope;

/** `points` asks for a smaller table, for small pictures. */
export interface PreviewRequest {
  id: number;
  frame: string;
  width: number;
  version: string | null;
  strength: number;
  points?: number;
}
/** Looks that may be asked for soon. */
export interface PreviewAhead {
  ahead: string[];
  points: number;
}
export type PreviewAnswer =
  { id: number; width: number; height: number; pixels: ArrayBuffer; ms: number } | { id: number; error: string };

const frames = recentlyUsed<Picture>(8);
const looks = recentlyUsed<Look>(160);
let prepared: { key: string; value: Prepared } | null = null;
let latest = 0;

async function loadFrame(id: string, width: number): Promise<Picture> {
  const { bytes } = await ask(`/api/frames/${id}?w=${width}`);
  return pixelsOf(bytes);
}

async function loadLook(version: string, points?: number): Promise<Look> {
  const { headers, bytes } = await ask(`/api/versions/${version}/table${points ? `?points=${points}` : ''}`);
  const about = headerOf<Pick<Look, 'kind' | 'size' | 'domain'>>(headers, 'x-look');
  return { ...about, format: 'cube', table: new Float32Array(bytes), title: '', comments: [], warnings: [] };
}

function render(look: Look, version: string, strength: number, picture: Picture): Uint8ClampedArray {
  const out = new Uint8ClampedArray(picture.data.length);
  if (look.kind === '3d') {
    const key = `${version} ${strength}`;
    if (prepared?.key !== key) prepared = { key, value: prepare(look, strength / 100) };
    applyTo(prepared.value, picture.data, out);
    return out;
  }
  // 1D: 256 answers by channel are all there is
  const evaluate = sampler(look, 'tetrahedral', strength / 100);
  const values = new Float64Array(3);
  const table = new Uint8ClampedArray(768);
  for (let i = 0; i < 256; i++) {
    evaluate(i / 255, i / 255, i / 255, values, 0);
    for (let c = 0; c < 3; c++) table[c * 256 + i] = Math.floor(values[c]! * 255 + 0.5);
  }
  for (let i = 0; i < out.length; i += 4) {
    out[i] = table[picture.data[i]!]!;
    out[i + 1] = table[256 + picture.data[i + 1]!]!;
    out[i + 2] = table[512 + picture.data[i + 2]!]!;
    out[i + 3] = picture.data[i + 3]!;
  }
  return out;
}

const lookOf = (version: string, points?: number): Promise<Look> =>
  looks(`${version} ${points ?? ''}`, () => loadLook(version, points));

let wanted: PreviewAhead = { ahead: [], points: 17 };
let fetching = false;
/** One after the other, and never before what is asked for now. */
async function goAhead(): Promise<void> {
  if (fetching) return;
  fetching = true;
  for (let v = wanted.ahead.shift(); v; v = wanted.ahead.shift()) await lookOf(v, wanted.points).catch(() => {});
  fetching = false;
}

async function answerTo(request: PreviewRequest): Promise<{ answer: PreviewAnswer; transfer: ArrayBuffer[] }> {
  const { id, frame, width, version, points, strength } = request;
  try {
    const [picture, look] = await Promise.all([
      frames(`${frame} ${width}`, () => loadFrame(frame, width)),
      version ? lookOf(version, points) : null,
    ]);
    if (id !== latest) return { answer: { id, error: 'superseded' }, transfer: [] };
    const began = performance.now();
    const rendered = look && strength > 0;
    const data = rendered ? render(look, `${version} ${points ?? ''}`, strength, picture) : picture.data.slice();
    const pixels = data.buffer as ArrayBuffer;
    const ms = performance.now() - began;
    return { answer: { id, width: picture.width, height: picture.height, pixels, ms }, transfer: [pixels] };
  } catch (error) {
    return { answer: { id, error: (error as Error).message }, transfer: [] };
  }
}

self.onmessage = (event: MessageEvent<PreviewRequest | PreviewAhead>) => {
  if ('ahead' in event.data) {
    wanted = event.data;
    void goAhead();
    return;
  }
  latest = event.data.id;
  void answerTo(event.data).then(({ answer, transfer }) => self.postMessage(answer, transfer));
};
