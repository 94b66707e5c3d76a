/// <reference lib="webworker" />
/** Renders a look over a frame. Keeps the frames' pixels and the looks' tables; a thin shell over core/look. */
import { applyLook, applyTo, prepare, type Prepared } from '@/core/look/apply';
import { applyPreset } from '@/core/preset/apply';
import type { Settings } from '@/core/preset/kinds';
import { recentlyUsed } from '@/core/recently-used';
import { ask } from './ask';
import { pixelsOf, type Picture } from './pixels';
import { renderingOf, type Rendering } from './rendering';

declare const self: DedicatedWorkerGlobalScope;

/** `points` asks for a smaller table, for small pictures. */
export interface PreviewRequest {
  id: number;
  /** whose picture it is: of each, only the newest request counts */ channel: number;
  frame: string;
  width: number;
  version: string | null;
  /** point settings as JSON, in the place of a version */ settings?: string | undefined;
  strength: number;
  points?: number;
}
/** Looks that may be asked for soon. */
export interface PreviewAhead {
  ahead: string[];
  points: number;
}
/** What a page that is being opened will ask for. */
export interface PreviewFirst {
  first: Pick<PreviewRequest, 'frame' | 'width' | 'version'>;
}
/** A preview that is not there any more. */
export interface PreviewClosed {
  close: number;
}
export type PreviewAnswer = { id: number; channel: number } & (
  { width: number; height: number; pixels: ArrayBuffer; ms: number } | { error: string }
);

const frames = recentlyUsed<Picture>(8);
const looks = recentlyUsed<Rendering>(160);
let prepared: { key: string; value: Prepared } | null = null;
/** the newest request by channel */ const latest = new Map<number, number>();

async function loadFrame(id: string, width: number): Promise<Picture> {
  const { bytes } = await ask(`/api/frames/${id}?w=${width}`);
  return pixelsOf(bytes);
}

function render(rendering: Rendering, name: string, strength: number, picture: Picture): Uint8ClampedArray {
  const out = new Uint8ClampedArray(picture.data.length);
  if (rendering.kind === 'preset') {
    applyPreset(rendering.effect, strength / 100, picture.data, out);
    return out;
  }
  const { look } = rendering;
  if (look.kind === '3d') {
    const key = `${name} ${strength}`;
    if (prepared?.key !== key) prepared = { key, value: prepare(look, strength / 100) };
    applyTo(prepared.value, picture.data, out);
    return out;
  }
  applyLook(look, strength / 100, picture.data, out);
  return out;
}

const lookOf = (version: string, points?: number): Promise<Rendering> =>
  looks(`${version} ${points ?? ''}`, () => renderingOf(version, points ? { points } : {}));

const renderingOfSettings = (settings: string): Rendering => ({
  kind: 'preset',
  effect: { settings: JSON.parse(settings) as Settings, look: null },
});

/** What is shown over the frame; null for the frame alone. */
async function renderingFor({ settings, version, points }: PreviewRequest): Promise<Rendering | null> {
  if (settings) return renderingOfSettings(settings);
  return version ? lookOf(version, points) : null;
}

let wanted: PreviewAhead = { ahead: [], points: 17 };
let fetching = false;
/** One after the other, and never before what is asked for now. */
async function goAhead(): Promise<void> {
  if (fetching) return;
  fetching = true;
  for (let v = wanted.ahead.shift(); v; v = wanted.ahead.shift()) await lookOf(v, wanted.points).catch(() => {});
  fetching = false;
}

/** Fetches a frame and a look, so that they are at hand; what goes wrong is told when they are asked for. */
async function fetchFirst({ frame, width, version }: PreviewFirst['first']): Promise<void> {
  const look = version ? lookOf(version) : null;
  await Promise.allSettled([frames(`${frame} ${width}`, () => loadFrame(frame, width)), look]);
}

async function answerTo(request: PreviewRequest): Promise<{ answer: PreviewAnswer; transfer: ArrayBuffer[] }> {
  const { id, channel, frame, width, version, points, strength } = request;
  try {
    const [picture, look] = await Promise.all([
      frames(`${frame} ${width}`, () => loadFrame(frame, width)),
      renderingFor(request),
    ]);
    if (id !== latest.get(channel)) return { answer: { id, channel, error: 'superseded' }, transfer: [] };
    const began = performance.now();
    const rendered = look && strength > 0;
    const data = rendered ? render(look, `${version} ${points ?? ''}`, strength, picture) : picture.data.slice();
    const pixels = data.buffer as ArrayBuffer;
    const ms = performance.now() - began;
    return { answer: { id, channel, width: picture.width, height: picture.height, pixels, ms }, transfer: [pixels] };
  } catch (error) {
    return { answer: { id, channel, error: (error as Error).message }, transfer: [] };
  }
}

self.onmessage = (event: MessageEvent<PreviewRequest | PreviewAhead | PreviewFirst | PreviewClosed>) => {
  if ('close' in event.data) {
    latest.delete(event.data.close);
    return;
  }
  if ('first' in event.data) {
    void fetchFirst(event.data.first);
    return;
  }
  if ('ahead' in event.data) {
    wanted = event.data;
    void goAhead();
    return;
  }
  latest.set(event.data.channel, event.data.id);
  void answerTo(event.data).then(({ answer, transfer }) => self.postMessage(answer, transfer));
};
