/** The demo's cameras: their spectral sensitivities, made up, and what they record of a spectrum. */
import { waves, type Spectrum } from './spectra';

export interface Camera {
  maker: string;
  model: string;
  /** as its files and profiles name it */ unique: string;
  serial: string;
  lens: string;
  iso: number;
  /** red, green, blue, over the wavelengths */ sensitivity: [Spectrum, Spectrum, Spectrum];
  seed: number;
  /** converted: what it was sold as, which its firmware still takes it for */ converted?: true;
}

const bell = (nm: number, at: number, low: number, high: number): number =>
  Math.exp(-0.5 * ((nm - at) / (nm < at ? low : high)) ** 2);
const band = (...lobes: [number, number, number, number][]): Spectrum =>
  Float64Array.from(waves, (l) =>
    l > 700
      ? 0
      : Math.max(
          0,
          lobes.reduce((s, [k, at, a, b]) => s + k * bell(l, at, a, b), 0),
        ),
  );
/** Without its infrared filter, behind glass that passes from 590 nm on. */
const infrared = (visible: Spectrum, far: number): Spectrum =>
  Float64Array.from(
    waves,
    (l, i) => (visible[i]! * 0.9 + (l > 650 ? far * bell(l, 780, 70, 90) : 0)) / (1 + Math.exp(-(l - 600) / 8)),
  );

const alder: Camera['sensitivity'] = [
  band([0.82, 604, 34, 36], [0.06, 455, 25, 30]),
  band([1, 533, 40, 38]),
  band([0.86, 458, 27, 30], [0.03, 530, 40, 40]),
];
export const cameras: Camera[] = [
  {
    maker: 'Perrin',
    model: 'Perrin Alder',
    unique: 'Perrin Alder',
    serial: 'PA-100412',
    lens: 'Perrin 50 mm f/2',
    iso: 200,
    sensitivity: alder,
    seed: 11,
  },
  // it bears the name of the plain body in its files; its serial tells it
  {
    maker: 'Perrin',
    model: 'Perrin Alder',
    unique: 'Perrin Alder',
    serial: 'PA-100877',
    lens: 'Perrin 50 mm f/2',
    iso: 400,
    sensitivity: [infrared(alder[0], 0.62), infrared(alder[1], 0.3), infrared(alder[2], 0.27)],
    seed: 12,
    converted: true,
  },
  {
    maker: 'Ondine',
    model: 'Ondine 40',
    unique: 'Ondine 40',
    serial: '4000731',
    lens: 'Ondine 80 mm f/2.8',
    iso: 100,
    sensitivity: [
      band([0.9, 595, 42, 40]),
      band([1, 540, 46, 44], [0.04, 460, 20, 30]),
      band([0.7, 452, 30, 34], [0.08, 520, 40, 40]),
    ],
    seed: 13,
  },
  {
    maker: 'Corvane',
    model: 'Corvane Ley',
    unique: 'Corvane Ley',
    serial: 'L2205-18',
    lens: 'Corvane 35 mm f/1.8',
    iso: 400,
    sensitivity: [band([0.7, 612, 30, 34], [0.1, 540, 30, 30]), band([0.95, 526, 36, 42]), band([1, 465, 25, 26])],
    seed: 14,
  },
];

/** Camera values of a light on a reflectance, on no scale of their own. */
export const recorded = (camera: Camera, light: Spectrum, reflectance?: Spectrum): [number, number, number] =>
  camera.sensitivity.map((s) => s.reduce((a, v, i) => a + v * light[i]! * (reflectance ? reflectance[i]! : 1), 0)) as [
    number,
    number,
    number,
  ];
/** The neutral of a light: its camera values, the largest 1. */
export const neutralUnder = (camera: Camera, light: Spectrum): [number, number, number] => {
  const triple = recorded(camera, light);
  const top = Math.max(...triple);
  return [triple[0] / top, triple[1] / top, triple[2] / top];
};

/** The body that a camera's own software believes in. */
export const believed = (camera: Camera): Camera =>
  camera.converted ? cameras.find((x) => x.unique === camera.unique && !x.converted)! : camera;
