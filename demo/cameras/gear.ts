/** The studio's own cameras and lenses, and a lens database computed for the demo: what a made-up bureau measured of them. */
import { escapeXml } from '@/core/text';
import { LENS_NAMESPACE } from '@/core/lens/facts';
import { cameras } from './cameras';

const sensors: Record<string, { mount: string; sensor_width: number; sensor_height: number }> = {
  Perrin: { mount: 'Alder', sensor_width: 36, sensor_height: 24 },
  Ondine: { mount: 'Ondine', sensor_width: 43.8, sensor_height: 32.9 },
  Corvane: { mount: 'Ley', sensor_width: 23.5, sensor_height: 15.6 },
};
export const studioCameras = [
  ...cameras.map((camera) => ({
    maker: camera.maker,
    model: camera.model,
    conversion: camera.converted ? 'infrared' : '',
    serials: [camera.serial],
    ...sensors[camera.maker]!,
  })),
  // bought this autumn: nobody has a profile for it yet
  { maker: 'Corvane', model: 'Corvane Ley II', conversion: '', serials: ['M2611-04'], ...sensors.Corvane! },
];

interface Optics {
  maker: string;
  model: string;
  mount: string;
  focal: number[];
  /** f-numbers that vignetting is measured at */ apertures: number[];
  /** distortion at the corner, percent of its distance from the center, negative for barrel, at each focal length */ corner: number[];
  /** red and blue beside green at the corner, parts in 10,000 */ fringe: [number, number];
  /** EV lost in the corner, wide open */ fall: number;
  crop: number;
  alias?: string;
}
export const studioLenses: Optics[] = [
  {
    maker: 'Perrin',
    model: 'Perrin 50 mm f/2',
    mount: 'Alder',
    focal: [50],
    apertures: [2, 4, 8],
    corner: [-0.9],
    fringe: [3, -4],
    fall: 1.6,
    crop: 1,
    alias: 'PX 50/2',
  },
  {
    maker: 'Ondine',
    model: 'Ondine 80 mm f/2.8',
    mount: 'Ondine',
    focal: [80],
    apertures: [2.8, 5.6, 11],
    corner: [0.25],
    fringe: [1, -2],
    fall: 0.9,
    crop: 0.79,
  },
  {
    maker: 'Corvane',
    model: 'Corvane 35 mm f/1.8',
    mount: 'Ley',
    focal: [35],
    apertures: [1.8, 4, 8],
    corner: [-1.4],
    fringe: [5, -3],
    fall: 1.9,
    crop: 1.534,
  },
  {
    maker: 'Perrin',
    model: 'Perrin 24-70 mm f/4',
    mount: 'Alder',
    focal: [24, 35, 50, 70],
    apertures: [4, 8],
    corner: [-3.1, -1.2, 0.4, 1.1],
    fringe: [8, -9],
    fall: 2.1,
    crop: 1,
  },
  {
    maker: 'Perrin',
    model: 'Perrin Macro 90 mm f/2.8',
    mount: 'Alder',
    focal: [90],
    apertures: [2.8, 8],
    corner: [0.1],
    fringe: [1, -1],
    fall: 0.7,
    crop: 1,
  },
];
/** Not measured by the bureau yet. */
const unmeasured = new Set(['Perrin Macro 90 mm f/2.8']);
const number = (v: number): string => String(Number(v.toFixed(6)));

/** A release of the bureau: odd polynomials of degree 3 for distortion and color, an even one for light lost. Radii by half the diagonal. */
export function lensDatabase(): string {
  const lens = (optics: Optics): string => {
    const distortion = optics.focal.map(
      (f, i) => `      <sample focal="${f}" k1="${number(optics.corner[i]! / 100)}"/>`,
    );
    const fringe = (channel: 'red' | 'blue') =>
      optics.focal.map(
        (f) =>
          `      <sample focal="${f}" k0="${number(1 + optics.fringe[channel === 'red' ? 0 : 1] / 1e4)}" k1="${number((optics.fringe[channel === 'red' ? 0 : 1] / 1e4) * 0.3)}"/>`,
      );
    // light lost falls with the square of the aperture's closing, beside what the angle of the rays costs at any
    const light = optics.focal.flatMap((f) =>
      optics.apertures.map((a) => {
        const ev = optics.fall * (optics.apertures[0]! / a) ** 2 + 0.15;
        const loss = 1 - 2 ** -ev;
        return `      <sample focal="${f}" aperture="${a}" k1="${number(-loss * 0.7)}" k2="${number(-loss * 0.3)}"/>`;
      }),
    );
    return [
      `  <lens maker="${escapeXml(optics.maker)}" model="${escapeXml(optics.model)}" mount="${optics.mount}" crop="${optics.crop}">`,
      ...(optics.alias ? [`    <alias>${escapeXml(optics.alias)}</alias>`] : []),
      ...(
        [
          ['distortion', '', 'odd3', distortion],
          ['lateral chromatic aberration', ' channel="red"', 'odd3', fringe('red')],
          ['lateral chromatic aberration', ' channel="blue"', 'odd3', fringe('blue')],
          ['vignetting', '', 'even', light],
        ] as const
      ).flatMap(([quality, channel, model, samples]) => [
        `    <series quantity="${quality}"${channel} model="${model}" unit="half-diagonal" direction="ideal-to-distorted">`,
        ...samples,
        '    </series>',
      ]),
      '  </lens>',
    ].join('\n');
  };
  const mounts = [...new Set(studioLenses.map((l) => l.mount))];
  return `<?xml version="1.0" encoding="UTF-8"?>\n<lens-database xmlns="${LENS_NAMESPACE}" release="2026-10">\n${mounts.map((m) => `  <mount name="${m}"/>`).join('\n')}\n${studioCameras
    .filter((c) => !c.conversion && !c.model.endsWith('II'))
    .map(
      (camera) =>
        `  <camera maker="${camera.maker}" model="${camera.model}" mount="${camera.mount}" width="${camera.sensor_width}" height="${camera.sensor_height}"/>`,
    )
    .join('\n')}\n${studioLenses
    .filter((l) => !unmeasured.has(l.model))
    .map(lens)
    .join('\n')}\n</lens-database>\n`;
}
