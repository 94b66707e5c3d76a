/** The demo's camera files: a scene's layers lit with spectra, seen by a camera, as a mosaic with noise, in a DNG with the camera's own JPEG. */
import { join } from 'node:path';
import sharp from 'sharp';
import { profileOf } from '@/core/camera/dcp';
import { renderer } from '@/core/camera/render';
import { linearPreview, readDng, writeDng } from '@/core/frame/dng';
import { colorist, litScene, type LitScene, type SceneName, type Shade } from '../scene/lit';
import { materials } from '../scene/materials';
import { believed, cameras, neutralUnder, recorded, type Camera } from './cameras';
import { cardScene } from './card';
import { drawnBy, lensInFront } from './drawn';
import { profileFor, type Variant } from './profiles';
import { daylight, lamp, reflectanceOf, type Spectrum } from './spectra';

const folder = join(process.cwd(), 'demo/scene/layers');
interface Lit {
  spectrum: Spectrum;
  amount: number;
}
export interface CameraFrame {
  file: string;
  name: string;
  light: string;
  scene: SceneName | 'card';
  camera: Camera;
  /** what the camera balanced for */ balanced: Spectrum;
  /** of each light of the scene, and last of its dome */ lights: Lit[];
  exposure: number;
  /** the variant that the camera was set to, if not the standard one */ variant?: Variant;
  /** if it was not the camera's usual one */ lens?: string;
  /** EV by which the camera was told to expose less than it shows, to spare the highlights */ spared?: number;
}

/** A zoom at its widest. */
function lensOn({ camera, lens = camera.lens }: CameraFrame): { lens: string; focal: number; aperture: number } {
  return { lens, focal: Number(/\d+/.exec(lens)![0]), aperture: 8 };
}

const day = daylight(5600);
const north = daylight(7200);
const bulb = lamp(3000);
const model = lamp(2850);
/** A lamp behind a colored filter. */
const gel = (rgb: readonly [number, number, number]): Spectrum => {
  const passes = reflectanceOf(rgb);
  return lamp(3200).map((v, i) => v * passes[i]!);
};
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
    lens: 'Perrin Macro 90 mm f/2.8',
    balanced: day,
    lights: [{ spectrum: day, amount: 1 }, off, off],
    exposure: 0,
  },
  {
    file: 'ALD_0431.dng',
    name: 'ALD 0431, costumes',
    light: 'daylight',
    scene: 'costume',
    camera: cameras[0]!,
    balanced: day,
    lights: [
      { spectrum: day, amount: 1 },
      { spectrum: day, amount: 0.5 },
      { spectrum: north, amount: 0.5 },
    ],
    exposure: -0.25,
    variant: 'Portrait',
  },
  {
    file: 'OND_2231.dng',
    name: 'OND 2231, night stage',
    light: 'stage lamps',
    scene: 'night',
    camera: cameras[2]!,
    balanced: model,
    lights: [
      { spectrum: gel([0.9, 0.04, 0.05]), amount: 1.4 },
      { spectrum: gel([0.04, 0.08, 0.9]), amount: 2.2 },
      { spectrum: gel([0.9, 0.5, 0.06]), amount: 1.2 },
      { spectrum: gel([0.3, 0.1, 0.6]), amount: 0.5 },
    ],
    exposure: 0,
  },
  {
    file: 'LEY_0044.dng',
    name: 'LEY 0044, window',
    light: 'daylight',
    scene: 'window',
    camera: cameras[3]!,
    balanced: day,
    lights: [
      { spectrum: north, amount: 0.6 },
      { spectrum: day, amount: 3.5 },
      { spectrum: north, amount: 0.4 },
    ],
    exposure: 0,
    spared: 0.5,
  },
  {
    file: 'ALD_0440.dng',
    name: 'ALD 0440, painted garden',
    light: 'daylight',
    scene: 'garden',
    camera: cameras[0]!,
    lens: 'Perrin 24-70 mm f/4',
    balanced: day,
    lights: [
      { spectrum: day, amount: 1 },
      { spectrum: day, amount: 0.6 },
      { spectrum: north, amount: 0.5 },
    ],
    exposure: 0,
  },
];

/** What the frames of a scene show. */
export const subjects: Readonly<Record<CameraFrame['scene'], string>> = {
  vessels: 'ceramics',
  stage: 'stage model',
  night: 'stage model',
  card: 'target',
  costume: 'textiles and skin',
  window: 'high contrast',
  garden: 'foliage and sky',
};

/** Of the camera's own JPEG. */
const JPEG_WIDTH = 1200;
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

interface Mosaic {
  width: number;
  height: number;
  mosaic: Uint16Array;
}

/** Which of red, green and blue a photosite sees: red first. */
const CFA = [0, 1, 1, 2] as const;
const channelAt = (x: number, y: number): number => CFA[(y & 1) * 2 + (x & 1)]!;

const CARD_WIDTH = 3000;

/** The card: each photosite the mean of four places about it, as far apart as the low-pass spreads light. */
function cardMosaic(cameraFrame: CameraFrame): Mosaic {
  const width = CARD_WIDTH;
  const height = (CARD_WIDTH * 2) / 3;
  const at = cardScene(cameraFrame.camera, cameraFrame.balanced, width, height);
  const expose = sensor(cameraFrame.camera);
  const mosaic = new Uint16Array(width * height);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const channel = channelAt(x, y);
      const sum =
        at(x - 0.5, y - 0.5, channel) +
        at(x + 0.5, y - 0.5, channel) +
        at(x - 0.5, y + 0.5, channel) +
        at(x + 0.5, y + 0.5, channel);
      mosaic[i] = expose(sum / 4);
    }
  return { width, height, mosaic };
}

/** What the camera records of each material under each of its lights, 0…1: full scale is a little above the lightest neutral. */
function shadesFor({ camera, balanced, exposure, lights }: CameraFrame): { shades: Shade[]; bare: number[][] } {
  const gain = (0.62 * 2 ** exposure) / Math.max(...recorded(camera, balanced));
  const under = (reflectance?: Spectrum): number[][] =>
    lights.map(({ spectrum, amount }) => recorded(camera, spectrum, reflectance).map((v) => v * amount * gain));
  const shades: Shade[] = [];
  for (const [name, { a, b, shine }] of Object.entries(materials))
    shades[Number(name)] = { a: under(reflectanceOf(a)), b: under(reflectanceOf(b)), shine };
  return { shades, bare: under() };
}

/** What the camera sees of a scene, before its sensor: linear light, RGB, row by row. */
function seenBy(cameraFrame: CameraFrame, scene: LitScene): Float32Array {
  const { width, height } = scene;
  const { shades, bare } = shadesFor(cameraFrame);
  if (bare.length !== scene.kinds) throw new Error(`${cameraFrame.scene} has ${scene.kinds} lights with its dome`);
  const color = colorist(shades, bare);
  const ideal = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++) color(scene.row(y), ideal.subarray(y * width * 3, (y + 1) * width * 3));
  const lens = lensInFront({ camera: cameraFrame.camera, ...lensOn(cameraFrame) });
  return lens ? drawnBy(lens, ideal, width, height) : ideal;
}

/**
 * The mosaic of a scene. In front of the sensor lies a low-pass as cameras have them: it doubles the picture by one
 * photosite across and down, so that no edge is finer than what the mosaic can tell in color.
 */
function mosaicOf(cameraFrame: CameraFrame, scene: LitScene): Mosaic {
  const { width, height } = scene;
  const seen = seenBy(cameraFrame, scene);
  const expose = sensor(cameraFrame.camera);
  const mosaic = new Uint16Array(width * height);
  for (let y = 0, i = 0; y < height; y++) {
    const row = y * width;
    const below = Math.min(y + 1, height - 1) * width;
    for (let x = 0; x < width; x++, i++) {
      const channel = channelAt(x, y);
      const next = Math.min(x + 1, width - 1);
      const at = (pixel: number): number => seen[pixel * 3 + channel]!;
      mosaic[i] = expose((at(row + x) + at(row + next) + at(below + x) + at(below + next)) / 4);
    }
  }
  return { width, height, mosaic };
}

/** The DNG, and the camera's own JPEG: the maker's standard rendering with a harder curve and a little sharpening, as cameras do. */
export async function cameraFrame(
  frame: CameraFrame,
): Promise<{ dng: Uint8Array; jpeg: Buffer; width: number; height: number }> {
  const mosaic = frame.scene === 'card' ? cardMosaic(frame) : mosaicOf(frame, litScene(folder, frame.scene));
  const own = believed(frame.camera);
  const embedded = profileFor(own, null, 'Embedded');
  const neutral = neutralUnder(own, frame.balanced);
  const plan = {
    ...mosaic,
    cfa: [...CFA] as [number, number, number, number],
    black: BLACK,
    white: WHITE,
    neutral,
    maker: frame.camera.maker,
    model: frame.camera.model,
    unique: frame.camera.unique,
    serial: frame.camera.serial,
    ...lensOn(frame),
    iso: frame.camera.iso,
    date: '2026:10:14 11:20:00',
    profile: embedded,
    baseline: frame.spared ?? 0,
    asShot: `${own.unique} ${frame.variant ?? 'Standard'}`,
    jpeg: null,
  };
  const linear = linearPreview(readDng(writeDng(plan)), JPEG_WIDTH);
  const profile = profileOf(profileFor(own, frame.variant ?? 'Standard', 'Own'));
  const lighter = { ...profile, exposure: profile.exposure + (frame.spared ?? 0) };
  const run = renderer(lighter, neutral, undefined, 'srgb');
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
