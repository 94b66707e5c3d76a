/**
 * A chart of camera data: what a camera would have to record for its own matrices to give the chart's colors in daylight. An
 * editor treats camera data otherwise than rendered files, so that a reading of one is not valid for the other.
 */
import { profileOf, textOf, type Dcp } from '../camera/dcp';
import { cameraToXyz } from '../camera/render';
import { neutralOf } from '../camera/white';
import { invert, multiply, transform } from '../color/matrix';
import { adapt, D50, spaces, toXyz } from '../color/spaces';
import { decodeSrgb } from '../color/transfer';
import { writeDng } from '../frame/dng';
import { Problem } from '../problem';
import { layoutOf, PATCH, type ChartName } from './layout';

/** The light that the camera is set to. */
const DAYLIGHT = 5500;
const TOP = 65535;
const UNIQUE = 50708;

export interface CameraChart {
  dng: Uint8Array;
  camera: string;
  width: number;
  height: number;
  /** colors of the chart that the camera cannot record, as a share of all its patches */ outside: number;
}

function modelOf(profile: Dcp): string {
  const model = textOf(profile, UNIQUE).trim();
  if (model) return model;
  throw new Problem(
    'chart-camera',
    'The profile names no camera, so that no editor would know whose data this is.',
    'UniqueCameraModel',
    'Take a profile that is bound to a camera.',
  );
}

/** @throws a Problem where the profile names no camera or its matrices cannot be turned round */
export function cameraChart(name: ChartName, dcp: Dcp): CameraChart {
  const camera = modelOf(dcp);
  const profile = profileOf(dcp);
  const neutral = neutralOf(profile, DAYLIGHT);
  const toCamera = invert(cameraToXyz(profile, neutral).matrix);
  const srgb = spaces.srgb;
  const matrix = multiply(toCamera, multiply(adapt(srgb.white, D50), toXyz(srgb)));
  const { columns, rows, colors } = layoutOf(name);
  const patches = new Uint16Array(colors.length);
  let outside = 0;
  for (let i = 0; i < colors.length; i += 3) {
    const linear = [decodeSrgb(colors[i]!), decodeSrgb(colors[i + 1]!), decodeSrgb(colors[i + 2]!)] as const;
    const values = transform(matrix, linear);
    if (values.some((value) => value < -1e-4 || value > 1 + 1e-4)) outside += 1;
    values.forEach((value, c) => {
      patches[i + c] = Math.round(TOP * Math.min(1, Math.max(0, value)));
    });
  }
  const width = columns * PATCH;
  const height = rows * PATCH;
  const samples = new Uint16Array(width * height * 3);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 3) {
      const patch = (Math.floor(y / PATCH) * columns + Math.floor(x / PATCH)) * 3;
      for (let c = 0; c < 3; c++) samples[i + c] = patches[patch + c]!;
    }
  const dng = writeDng({
    width,
    height,
    cfa: null,
    mosaic: samples,
    black: 0,
    white: TOP,
    neutral,
    maker: camera.split(' ')[0]!,
    model: camera,
    unique: camera,
    serial: '',
    lens: '',
    focal: 50,
    aperture: 8,
    iso: 100,
    date: '2000:01:01 00:00:00',
    profile: dcp,
    jpeg: null,
  });
  return { dng, camera, width, height, outside: outside / (colors.length / 3) };
}
