/** On which frame one asks for an item first: one that it is made for. */
import { cameraForm } from './names';

export interface FrameLike {
  id: string;
  kind: 'camera data' | 'rendered';
  /** with its conversion, "Alder, infrared" */ body: string;
  range: 'SDR' | 'HDR' | null;
  result: 'color' | 'monochrome' | null;
}

export interface ItemLike {
  kind: string;
  cameras: readonly string[];
  input: string | null;
  result: string | null;
}

const isCamera = (item: ItemLike, frame: FrameLike): boolean =>
  item.cameras.some((camera) => cameraForm(camera) === cameraForm(frame.body));

/** How well a frame fits, part by part; what matters most comes first. */
function fit(item: ItemLike, frame: FrameLike): number[] {
  const wantsCameraData =
    item.kind === 'camera-profile' || item.kind === 'lens-database' || item.input === 'camera data';
  const wantsRendered = item.input?.startsWith('rendered') ?? false;
  const isRendered = frame.kind === 'rendered';
  return [
    Number(!(wantsCameraData && isRendered) && !(wantsRendered && !isRendered)),
    Number(item.cameras.length === 0 || isCamera(item, frame)),
    Number(!wantsRendered || frame.range === null || item.input === `rendered ${frame.range}`),
    // a monochrome look is for photos in color as well
    Number(item.result !== 'color' || frame.result !== 'monochrome'),
  ];
}

/** The frame that fits best, of equals the first; null where there is none. */
export function fittingFrame(item: ItemLike, frames: readonly FrameLike[]): FrameLike | null {
  let best: { frame: FrameLike; fit: number[] } | null = null;
  for (const frame of frames) {
    const fits = fit(item, frame);
    const before = best;
    const differs = before ? fits.findIndex((value, i) => value !== before.fit[i]) : 0;
    if (!before || (differs >= 0 && (fits[differs] ?? 0) > (before.fit[differs] ?? 0))) best = { frame, fit: fits };
  }
  return best?.frame ?? null;
}
