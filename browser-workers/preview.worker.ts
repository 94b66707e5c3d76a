/// <reference lib="webworker" />
/** Renders a look over a frame. Keeps the frames' pixels and the looks' tables; a thin shell over core/look. */
import { applyTo, prepare, type Prepared } from '@/core/look/apply';
import { sampler } from '@/core/look/sample';
import type { Look } from '@/core/look/look';

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

interface Picture {
  width: number;
  height: number;
  data: Uint8ClampedArray;
}
const frames = new Map<string, Promise<Picture>>();
const looks = new Map<string, Promise<Look>>();
let prepared: { key: string; value: Prepared } | null = null;
let latest = 0;

/** The newest entries stay; older ones go, so that memory stays bounded. */
function remember<T>(map: Map<string, Promise<T>>, key: string, most: number, make: () => Promise<T>): Promise<T> {
  let p = map.get(key);
  if (p) {
    map.delete(key);
    map.set(key, p);
    return p;
  }
  p = make();
  p.catch(() => map.delete(key));
  map.set(key, p);
  if (map.size > most) map.delete(map.keys().next().value!);
  return p;
}

async function loadFrame(id: string, width: number): Promise<Picture> {
  const response = await fetch(`/api/frames/${id}?w=${width}`);
  if (!response.ok) throw new Error('the frame could not be fetched');
  const bitmap = await createImageBitmap(await response.blob(), {
    colorSpaceConversion: 'none',
    premultiplyAlpha: 'none',
  });
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  return {
    width: bitmap.width,
    height: bitmap.height,
    data: context.getImageData(0, 0, bitmap.width, bitmap.height).data,
  };
}

async function loadLook(version: string, points?: number): Promise<Look> {
  const response = await fetch(`/api/versions/${version}/table${points ? `?points=${points}` : ''}`);
  if (!response.ok) throw new Error('the look could not be fetched');
  const about = JSON.parse(response.headers.get('x-look')!) as Pick<Look, 'kind' | 'size' | 'domain'>;
  return {
    ...about,
    format: 'cube',
    table: new Float32Array(await response.arrayBuffer()),
    title: '',
    comments: [],
    warnings: [],
  };
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
  remember(looks, `${version} ${points ?? ''}`, 160, () => loadLook(version, points));

let wanted: PreviewAhead = { ahead: [], points: 17 };
let fetching = false;
/** One after the other, and never before what is asked for now. */
async function goAhead(): Promise<void> {
  if (fetching) return;
  fetching = true;
  for (let v = wanted.ahead.shift(); v; v = wanted.ahead.shift()) await lookOf(v, wanted.points).catch(() => {});
  fetching = false;
}

self.onmessage = (event: MessageEvent<PreviewRequest | PreviewAhead>) => {
  if ('ahead' in event.data) {
    wanted = event.data;
    void goAhead();
    return;
  }
  const previewRequest = event.data;
  latest = previewRequest.id;
  void (async () => {
    try {
      const [picture, look] = await Promise.all([
        remember(frames, `${previewRequest.frame} ${previewRequest.width}`, 8, () =>
          loadFrame(previewRequest.frame, previewRequest.width),
        ),
        previewRequest.version ? lookOf(previewRequest.version, previewRequest.points) : null,
      ]);
      if (previewRequest.id !== latest) {
        self.postMessage({ id: previewRequest.id, error: 'superseded' } satisfies PreviewAnswer);
        return;
      }
      const t = performance.now();
      const pixels =
        look && previewRequest.strength > 0
          ? render(look, `${previewRequest.version} ${previewRequest.points ?? ''}`, previewRequest.strength, picture)
          : picture.data.slice();
      self.postMessage(
        {
          id: previewRequest.id,
          width: picture.width,
          height: picture.height,
          pixels: pixels.buffer as ArrayBuffer,
          ms: performance.now() - t,
        } satisfies PreviewAnswer,
        [pixels.buffer as ArrayBuffer],
      );
    } catch (error) {
      self.postMessage({ id: previewRequest.id, error: (error as Error).message } satisfies PreviewAnswer);
    }
  })();
};
