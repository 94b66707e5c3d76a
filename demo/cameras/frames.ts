/** The demo's camera files: a scene's layers lit with spectra, seen by a camera, as a mosaic with noise, in a DNG with the camera's own JPEG. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { decode } from 'fast-png';
import sharp from 'sharp';
import { profileOf } from '@/core/camera/dcp';
import { renderer } from '@/core/camera/render';
import { linearPreview, readDng, writeDng } from '@/core/frame/dng';
import { materials } from '../scene/materials';
import { believed, cameras, neutralUnder, recorded, type Camera } from './cameras';
import { cardScene } from './card';
import { profileFor, type Variant } from './profiles';
import { daylight, lamp, reflectanceOf, type Spectrum } from './spectra';

const folder = join(process.cwd(), 'demo/scene/layers');
const layer = (file: string) => decode(readFileSync(join(folder, file)));
interface Lit {
  spectrum: Spectrum;
  amount: number;
}
export interface CameraFrame {
  file: string;
  name: string;
  light: string;
  scene: 'vessels' | 'stage' | 'card';
  camera: Camera;
  /** what the camera balanced for */ balanced: Spectrum;
  lights: [Lit, Lit, Lit];
  exposure: number;
  /** the variant that the camera was set to, if not the standard one */ variant?: Variant;
}

const day = daylight(5600);
const north = daylight(7200);
const bulb = lamp(3000);
const model = lamp(2850);
const off = { spectrum: day, amount: 0 };
export const cameraFrames: CameraFrame[] = [
  {
    file: 'ALD_0412.dng',
    name: 'ALD 0412, vessels',
    light: 'daylight',
    scene: 'vessels',
    camera: cameras[0]!,
    balanced: day,
    lights: [{ spectrum: day, amount: 1 }, off, { spectrum: north, amount: 0.32 }],
    exposure: 0,
  },
  {
    file: 'ALD_0415.dng',
    name: 'ALD 0415, vessels',
    light: 'tungsten',
    scene: 'vessels',
    camera: cameras[0]!,
    balanced: bulb,
    lights: [
      { spectrum: day, amount: 0.05 },
      { spectrum: bulb, amount: 1.15 },
      { spectrum: bulb, amount: 0.26 },
    ],
    exposure: 0.1,
    variant: 'Portrait',
  },
  {
    file: 'OND_2207.dng',
    name: 'OND 2207, stage model',
    light: 'tungsten',
    scene: 'stage',
    camera: cameras[2]!,
    balanced: model,
    lights: [
      { spectrum: day, amount: 0.04 },
      { spectrum: model, amount: 1.1 },
      { spectrum: model, amount: 0.3 },
    ],
    exposure: 0,
  },
  {
    file: 'LEY_0031.dng',
    name: 'LEY 0031, stage model',
    light: 'daylight',
    scene: 'stage',
    camera: cameras[3]!,
    balanced: daylight(6200),
    lights: [{ spectrum: daylight(6200), amount: 1 }, off, { spectrum: north, amount: 0.45 }],
    exposure: 0.1,
  },
  {
    file: 'ALD_IR_0007.dng',
    name: 'ALD 0007, vessels in infrared',
    light: 'daylight',
    scene: 'vessels',
    camera: cameras[1]!,
    balanced: day,
    lights: [{ spectrum: day, amount: 1 }, off, { spectrum: north, amount: 0.32 }],
    exposure: 0,
  },
  {
    file: 'ALD_0420.dng',
    name: 'ALD 0420, kiln card',
    light: 'daylight',
    scene: 'card',
    camera: cameras[0]!,
    balanced: day,
    lights: [{ spectrum: day, amount: 1 }, off, off],
    exposure: 0,
  },
];

const WHITE = 16383;
const BLACK = 512;
/** What a place of the sensor gives for a value 0…1: electrons, 30,000 at full scale at ISO 100, three of read noise; the sum of four uniform numbers is near enough to a normal one. */
function sensor(camera: Camera): (v: number) => number {
  let seed = camera.seed * 7919 + 1;
  const uniform = (): number => {
    seed = (Math.imul(seed, 1664525) + 1013904223) | 0;
    return (seed >>> 8) / 16777216;
  };
  const full = 30000 / (camera.iso / 100);
  return (v) => {
    const e = Math.max(0, v * full);
    const noise = (uniform() + uniform() + uniform() + uniform() - 2) * 1.732 * Math.sqrt(e + 9);
    return Math.max(0, Math.min(WHITE, Math.round(BLACK + ((e + noise) / full) * (WHITE - BLACK))));
  };
}

function cardMosaic(cameraFrame: CameraFrame): { width: number; height: number; mosaic: Uint16Array } {
  const width = 1440;
  const height = 960;
  const at = cardScene(cameraFrame.camera, cameraFrame.balanced, width, height);
  const expose = sensor(cameraFrame.camera);
  const cfa = [0, 1, 1, 2];
  return {
    width,
    height,
    mosaic: Uint16Array.from({ length: width * height }, (_, i) => {
      const x = i % width;
      const y = (i - x) / width;
      return expose(at(x, y, cfa[(y & 1) * 2 + (x & 1)]!));
    }),
  };
}

/** The mosaic, red first, with shot and read noise; full scale is a little above the lightest neutral. */
function mosaicOf(cameraFrame: CameraFrame): { width: number; height: number; mosaic: Uint16Array } {
  const mats = layer(`${cameraFrame.scene}.materials.png`);
  const second = layer(`${cameraFrame.scene}.pattern.png`).data;
  const { width, height } = mats;
  const kinds = ['light0', 'light1', 'dome'];
  const irr = kinds.map((k) => layer(`${cameraFrame.scene}.${k}.irradiance.png`).data);
  const spec = kinds.map((k) => layer(`${cameraFrame.scene}.${k}.specular.png`).data);
  const square = new Float64Array(4096).map((_, i) => 4 * (i / 4095) ** 2);
  const gain = (0.62 * 2 ** cameraFrame.exposure) / Math.max(...recorded(cameraFrame.camera, cameraFrame.balanced));
  const table: Record<number, { a: number[][]; b: number[][]; shine: number }> = {};
  const bare = cameraFrame.lights.map((l) => recorded(cameraFrame.camera, l.spectrum).map((v) => v * l.amount * gain));
  for (const [name, material] of Object.entries(materials)) {
    const of = (rgb: readonly number[]) => {
      const spectrum = reflectanceOf(rgb);
      return cameraFrame.lights.map((light) =>
        recorded(cameraFrame.camera, light.spectrum, spectrum).map((v) => v * light.amount * gain),
      );
    };
    table[Number(name)] = { a: of(material.a), b: of(material.b), shine: material.shine };
  }
  const mosaic = new Uint16Array(width * height);
  const cfa = [0, 1, 1, 2];
  const expose = sensor(cameraFrame.camera);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const c = cfa[(y & 1) * 2 + (x & 1)]!;
      const below = table[mats.data[i * 4]!]!;
      const above = table[mats.data[i * 4 + 1]!]!;
      const cover = mats.data[i * 4 + 2]! / 255;
      const pa = mats.data[i * 4 + 3]! / 255;
      const pb = second[i]! / 255;
      const shine = cover * below.shine + (1 - cover) * above.shine;
      let v = 0;
      for (let l = 0; l < 3; l++)
        v +=
          (cover * (below.a[l]![c]! + (below.b[l]![c]! - below.a[l]![c]!) * pa) +
            (1 - cover) * (above.a[l]![c]! + (above.b[l]![c]! - above.a[l]![c]!) * pb)) *
            square[irr[l]![i]!]! +
          bare[l]![c]! * shine * square[spec[l]![i]!]!;
      mosaic[i] = expose(v);
    }
  return { width, height, mosaic };
}

/** The DNG, and the camera's own JPEG: the maker's standard rendering with a harder curve and a little sharpening, as cameras do. */
export async function cameraFrame(
  frame: CameraFrame,
): Promise<{ dng: Uint8Array; jpeg: Buffer; width: number; height: number }> {
  const mosaic = frame.scene === 'card' ? cardMosaic(frame) : mosaicOf(frame);
  const own = believed(frame.camera);
  const embedded = profileFor(own, null, 'Embedded');
  const neutral = neutralUnder(own, frame.balanced);
  const plan = {
    ...mosaic,
    cfa: [0, 1, 1, 2] as [number, number, number, number],
    black: BLACK,
    white: WHITE,
    neutral,
    maker: frame.camera.maker,
    model: frame.camera.model,
    unique: frame.camera.unique,
    serial: frame.camera.serial,
    lens: frame.camera.lens,
    focal: Number(/\d+/.exec(frame.camera.lens)![0]),
    aperture: 8,
    iso: frame.camera.iso,
    date: '2026:10:14 11:20:00',
    profile: embedded,
    asShot: `${own.unique} ${frame.variant ?? 'Standard'}`,
    jpeg: null,
  };
  const linear = linearPreview(readDng(writeDng(plan)), 750);
  const run = renderer(profileOf(profileFor(own, frame.variant ?? 'Standard', 'Own')), neutral, undefined, 'srgb');
  const row = new Float64Array(linear.width * 3);
  const out = Buffer.alloc(linear.width * linear.height * 3);
  for (let y = 0; y < linear.height; y++) {
    for (let i = 0; i < row.length; i++) row[i] = linear.data[y * row.length + i]! / 65535;
    run(row);
    for (let i = 0; i < row.length; i++) {
      const v = Math.min(1, Math.max(0, row[i]!));
      const hard = v + 0.06 * Math.sin(2 * Math.PI * v) * -0.5;
      out[y * row.length + i] = Math.round(255 * hard);
    }
  }
  const jpeg = await sharp(out, { raw: { width: linear.width, height: linear.height, channels: 3 } })
    .sharpen({ sigma: 0.7, m1: 0.4, m2: 0.8 })
    .jpeg({ quality: 92, chromaSubsampling: '4:4:4' })
    .toBuffer();
  return {
    dng: writeDng({ ...plan, jpeg: { bytes: new Uint8Array(jpeg), width: linear.width, height: linear.height } }),
    jpeg,
    width: linear.width,
    height: linear.height,
  };
}
