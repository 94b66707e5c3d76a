/** What the lens in front of a camera makes of a scene, by the figures that the bureau measured of it. */
import { calibrations } from '@/core/lens/calibrated';
import { correctionOf, type Correction } from '@/core/lens/correction';
import { radiusOf, tabulated, type Radial } from '@/core/lens/radial';
import { cropOf } from '@/core/lens/sensor';
import type { Camera } from './cameras';
import { lensDatabase, studioCameras } from './gear';

export interface LensSet {
  camera: Camera;
  lens: string;
  focal: number;
  aperture: number;
}

/** Null where the bureau has not measured the lens: it draws as an ideal one then. */
export function lensInFront({ camera, lens, focal, aperture }: LensSet): Correction | null {
  const measured = calibrations(new TextEncoder().encode(lensDatabase())).lenses.find(({ model }) => model === lens);
  const body = studioCameras.find(({ model }) => model === camera.model);
  if (!measured || !body) return null;
  const crop = cropOf(body.sensor_width, body.sensor_height);
  const found = correctionOf(measured, { crop, focal, aperture, distance: null });
  if (found.is === 'unknown') throw new Error(`${lens}: ${found.why}`);
  return found.correction;
}

const FARTHEST = 1.3;
const EDGES = 100;

/**
 * A scene as the lens draws it. The camera stands so near that the whole photo shows the scene, however the lens bends.
 * @param scene linear light, RGB, row by row
 */
export function drawnBy(lens: Correction, scene: Float32Array, width: number, height: number): Float32Array {
  const seen = [lens.red, lens.green, lens.blue].map((lies) =>
    tabulated((r) => radiusOf(lies, r, 2 * FARTHEST) ?? 2 * FARTHEST, FARTHEST),
  );
  const nearer = scaleOf(seen, width, height);
  const half = Math.hypot(width, height) / 2;
  const [middleX, middleY] = [(width - 1) / 2, (height - 1) / 2];
  const photo = new Float32Array(scene.length);
  for (let y = 0, at = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const r = Math.hypot(x - middleX, y - middleY) / half;
      const light = lens.light(r);
      for (let channel = 0; channel < 3; channel++, at++) {
        const factor = r > 0 ? (nearer * (seen[channel]?.(r) ?? r)) / r : nearer;
        const [u, v] = [middleX + (x - middleX) * factor, middleY + (y - middleY) * factor];
        photo[at] = light * between(scene, width, height, u, v, channel);
      }
    }
  return photo;
}

/** So much smaller that no edge of the photo sees past the scene. */
function scaleOf(seen: readonly Radial[], width: number, height: number): number {
  const nearest = Math.min(width, height) / Math.hypot(width, height);
  let scale = 1;
  for (let n = 0; n <= EDGES; n++) {
    const edge = nearest + ((1 - nearest) * n) / EDGES;
    for (const radial of seen) scale = Math.min(scale, edge / radial(edge));
  }
  return scale;
}

function between(scene: Float32Array, width: number, height: number, x: number, y: number, channel: number): number {
  const left = Math.max(0, Math.min(width - 2, Math.floor(x)));
  const above = Math.max(0, Math.min(height - 2, Math.floor(y)));
  const [right, down] = [Math.max(0, Math.min(1, x - left)), Math.max(0, Math.min(1, y - above))];
  const at = (above * width + left) * 3 + channel;
  const below = at + width * 3;
  const upper = scene[at]! + (scene[at + 3]! - scene[at]!) * right;
  const lower = scene[below]! + (scene[below + 3]! - scene[below]!) * right;
  return upper + (lower - upper) * down;
}
