/**
 * Composes a frame from a scene's layers: materials × irradiance + specular, lit by colors of light,
 * exposed, and developed to sRGB by a plain filmic curve. Deterministic.
 */
import { colorist, litScene, type SceneName, type Shade } from './lit';
import { materials } from './materials';

export interface Light {
  /** linear sRGB color of the light, and its share */ color: [number, number, number];
  amount: number;
}
export interface Composition {
  scene: SceneName;
  /** of each light of the scene, and last of its dome */ lights: Light[];
  /** EV */ exposure: number;
  /** sensor noise at middle gray */ noise: number;
}

const by = (color: readonly number[], factor: readonly number[]): number[] => color.map((v, k) => v * factor[k]!);

/** What each material gives under lights of these colors, in linear sRGB. */
function shadesUnder(lights: readonly (readonly number[])[]): Shade[] {
  const shades: Shade[] = [];
  for (const [name, { a, b, shine }] of Object.entries(materials))
    shades[Number(name)] = { a: lights.map((one) => by(a, one)), b: lights.map((one) => by(b, one)), shine };
  return shades;
}

/** Linear sRGB pixels, interleaved RGB, unclamped: each the mean of 2 × 2 of the scene's. */
export function composeLinear(
  folder: string,
  { scene: name, lights, exposure }: Composition,
): { width: number; height: number; data: Float32Array } {
  const scene = litScene(folder, name);
  if (lights.length !== scene.kinds) throw new Error(`${name} has ${scene.kinds} lights with its dome`);
  const bare = lights.map(({ color, amount }) => color.map((v) => v * amount * 2 ** exposure));
  const color = colorist(shadesUnder(bare), bare);
  const colors = new Float32Array(scene.width * 3);
  const width = scene.width >> 1;
  const height = scene.height >> 1;
  const data = new Float32Array(width * height * 3);
  for (let y = 0; y < 2 * height; y++) {
    color(scene.row(y), colors);
    const line = (y >> 1) * width;
    for (let x = 0; x < 2 * width; x++)
      for (let k = 0; k < 3; k++) data[(line + (x >> 1)) * 3 + k]! += colors[x * 3 + k]! / 4;
  }
  return { width, height, data };
}

/** Filmic display curve (our own rational fit: toe, straight part, soft shoulder) followed by sRGB encoding; 8 bits. */
export function develop(linear: Float32Array, noise: number): Uint8Array {
  const out = new Uint8Array(linear.length);
  const steps = 16384;
  const encoded = new Uint8Array(steps + 1);
  for (let i = 0; i <= steps; i++) {
    const y = (i / steps) ** 2;
    encoded[i] = Math.round(255 * (y <= 0.0031308 ? 12.92 * y : 1.055 * y ** (1 / 2.4) - 0.055));
  }
  let seed = 12345;
  for (let i = 0; i < linear.length; i++) {
    seed = (Math.imul(seed, 1664525) + 1013904223) | 0;
    const grain = ((seed >>> 16) / 65536 + ((seed >>> 8) & 255) / 255 - 1) * noise;
    const x = Math.max(0, linear[i]! + grain * Math.sqrt(Math.max(0, linear[i]!) + 0.01));
    const y = Math.min(1, (x * (1.35 * x + 0.18)) / (x * (1.22 * x + 0.62) + 0.06));
    out[i] = encoded[Math.round(steps * Math.sqrt(y))]!;
  }
  return out;
}
