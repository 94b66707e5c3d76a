/**
 * Composes a frame from a scene's layers: materials × irradiance + specular, lit by colors of light,
 * exposed, and developed to sRGB by a plain filmic curve. Deterministic.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { decode } from 'fast-png';
import { materials } from './materials';

export interface Light {
  /** linear sRGB color of the light, and its share */ color: [number, number, number];
  amount: number;
}
export interface Composition {
  scene: 'vessels' | 'stage';
  lights: [Light, Light, Light];
  /** EV */ exposure: number;
  /** sensor noise at middle gray */ noise: number;
}

const read = (folder: string, file: string) => decode(readFileSync(join(folder, file)));

/** Linear sRGB pixels, interleaved RGB, unclamped. */
export function composeLinear(
  folder: string,
  composition: Composition,
): { width: number; height: number; data: Float32Array } {
  const mats = read(folder, `${composition.scene}.materials.png`);
  const second = read(folder, `${composition.scene}.pattern.png`).data;
  const { width, height } = mats;
  const size = width * height;
  const out = new Float32Array(size * 3);
  const kinds = ['light0', 'light1', 'dome'];
  const irr = kinds.map((k) => read(folder, `${composition.scene}.${k}.irradiance.png`).data);
  const spec = kinds.map((k) => read(folder, `${composition.scene}.${k}.specular.png`).data);
  const square = new Float32Array(4096).map((_, i) => 4 * (i / 4095) ** 2);
  const gain = 2 ** composition.exposure;
  for (let i = 0; i < size; i++) {
    const material = materials[mats.data[i * 4]!]!;
    const above = materials[mats.data[i * 4 + 1]!]!;
    const cover = mats.data[i * 4 + 2]! / 255;
    const pa = mats.data[i * 4 + 3]! / 255;
    const pb = second[i]! / 255;
    const shine = cover * material.shine + (1 - cover) * above.shine;
    for (let k = 0; k < 3; k++) {
      const albedo =
        cover * (material.a[k]! + (material.b[k]! - material.a[k]!) * pa) +
        (1 - cover) * (above.a[k]! + (above.b[k]! - above.a[k]!) * pb);
      let sum = 0;
      for (let l = 0; l < 3; l++) {
        const light = composition.lights[l]!;
        sum += light.amount * light.color[k]! * (albedo * square[irr[l]![i]!]! + shine * square[spec[l]![i]!]!);
      }
      out[i * 3 + k] = sum * gain;
    }
  }
  return { width, height, data: out };
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
