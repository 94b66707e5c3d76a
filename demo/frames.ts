/** The demo's reference frames: each a scene's layers under a light, developed. */
import { join } from 'node:path';
import sharp from 'sharp';
import { composeLinear, develop, type Composition } from './scene/compose';
import { floatTiff } from './scene/float-tiff';

const layers = join(process.cwd(), 'demo/scene/layers');
const white: [number, number, number] = [1, 1, 1];
const off = { color: white, amount: 0 };

export const frames: { name: string; light: string; composition: Composition }[] = [
  {
    name: 'Glazed set, daylight',
    light: 'window, 5500 K',
    composition: {
      scene: 'vessels',
      lights: [{ color: [0.97, 1, 1.05], amount: 1 }, off, { color: [0.92, 0.99, 1.1], amount: 0.32 }],
      exposure: 0,
      noise: 0.006,
    },
  },
  {
    name: 'Glazed set, tungsten',
    light: 'lamp, 3000 K, balanced part of the way',
    composition: {
      scene: 'vessels',
      lights: [
        { color: [0.8, 0.95, 1.3], amount: 0.06 },
        { color: [1.2, 0.97, 0.66], amount: 1.15 },
        { color: [1.08, 0.98, 0.82], amount: 0.26 },
      ],
      exposure: 0.1,
      noise: 0.01,
    },
  },
  {
    name: 'Stage model, lamp',
    light: 'the model’s own lamps, 2900 K',
    composition: {
      scene: 'stage',
      lights: [
        { color: [0.75, 0.92, 1.3], amount: 0.1 },
        { color: [1.16, 0.98, 0.74], amount: 1.1 },
        { color: [1.05, 0.99, 0.9], amount: 0.3 },
      ],
      exposure: 0,
      noise: 0.01,
    },
  },
  {
    name: 'Stage model, window',
    light: 'north window, 6200 K',
    composition: {
      scene: 'stage',
      lights: [{ color: [0.95, 1, 1.07], amount: 1 }, off, { color: [0.93, 1, 1.09], amount: 0.45 }],
      exposure: 0.1,
      noise: 0.006,
    },
  },
];

/** What is brought in as a file: a room before a bright garden, in linear light, as a rendered HDR picture. */
export const hdrFrame = {
  name: 'Window, HDR',
  fileName: 'Window HDR.tif',
  light: 'window, 6500 K',
  subject: 'high contrast',
  file(): Uint8Array {
    const { width, height, data } = composeLinear(layers, {
      scene: 'window',
      lights: [
        { color: [0.95, 1, 1.08], amount: 0.5 },
        { color: white, amount: 6 },
        { color: [0.93, 1, 1.09], amount: 0.4 },
      ],
      exposure: 0,
      noise: 0,
    });
    return floatTiff(width, height, data);
  },
} as const;

export async function frame(composition: Composition): Promise<{ png: Buffer; width: number; height: number }> {
  const { width, height, data } = composeLinear(layers, composition);
  return {
    png: await sharp(develop(data, composition.noise), { raw: { width, height, channels: 3 } })
      .png({ compressionLevel: 6 })
      .toBuffer(),
    width,
    height,
  };
}
