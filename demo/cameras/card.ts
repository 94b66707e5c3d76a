/** The demo's target: a card of 8 × 5 fired glazes with four corner marks, its measured values as CGATS text, and a photograph of it as camera data. */
import { labOfXyz } from '@/core/color/lab';
import { fromSquare, project, type Point } from '@/core/chart/homography';
import { adapt, D50, xyzOf } from '@/core/color/spaces';
import { invert, transform } from '@/core/color/matrix';
import { neutralUnder, recorded, type Camera } from './cameras';
import { daylight, reflectanceOf, xyzUnder, type Spectrum } from './spectra';

export const COLUMNS = 8;
export const ROWS = 5;
const hue = (h: number, s: number, v: number): number[] =>
  [0, 2, 4].map((k) => {
    const t = Math.abs(((h / 60 + k + 6) % 6) - 3) - 1;
    return v * (1 - s * (1 - Math.min(1, Math.max(0, 1 - t))));
  });
/** Linear colors: a ramp of grays, then glazes from light to dark, each row another depth. */
const colors = [
  ...[0.88, 0.6, 0.39, 0.24, 0.14, 0.08, 0.042, 0.022].map((v) => [v, v, v]),
  ...[
    [0.35, 0.5],
    [0.6, 0.34],
    [0.72, 0.2],
    [0.55, 0.1],
  ].flatMap(([s, v], r) => Array.from({ length: COLUMNS }, (_, i) => hue(i * 45 + r * 11, s!, v!))),
];
const patches: Spectrum[] = colors.map(reflectanceOf);
const names = patches.map((_, i) => `${'ABCDE'[Math.floor(i / COLUMNS)]}${(i % COLUMNS) + 1}`);

/** What a spectrophotometer says of the card: L*a*b* under daylight of 5,003 K, adapted to D50 itself. */
export function cardText(): string {
  const light = daylight(5003);
  const w = xyzUnder(light);
  const s = w[0] + w[1] + w[2];
  const to = adapt([w[0] / s, w[1] / s], D50);
  const white = transform(to, w)[1];
  const rows = patches.map(
    (spectrum, i) =>
      `${names[i]}\t${labOfXyz(
        transform(to, xyzUnder(light, spectrum)).map((v) => v / white),
        xyzOf(D50),
      )
        .map((v) => v.toFixed(3))
        .join('\t')}`,
  );
  return `CGATS.17\nORIGINATOR "Kiln card"\nDESCRIPTOR "forty fired glazes, computed for the demo"\nNUMBER_OF_FIELDS 4\nBEGIN_DATA_FORMAT\nSAMPLE_ID LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nNUMBER_OF_SETS ${patches.length}\nBEGIN_DATA\n${rows.join('\n')}\nEND_DATA\n`;
}

/** Where the card's edges lie in the photograph, a little turned and seen from one side. */
const OUTER: Point[] = [
  [0.17, 0.13],
  [0.84, 0.16],
  [0.8, 0.86],
  [0.2, 0.82],
];

/** Where the field of patches lies in the photograph: marks stand half a patch outside it. */
export function cardCorners(): Point[] {
  const homography = fromSquare(OUTER)!;
  const u = 0.5 / (COLUMNS + 1);
  const v = 0.5 / (ROWS + 1);
  return (
    [
      [u, v],
      [1 - u, v],
      [1 - u, 1 - v],
      [u, 1 - v],
    ] as Point[]
  ).map(([x, y]) => project(homography, x, y));
}

/** Camera values 0…1 at each place, lit a little less evenly than one would like; the lightest glaze lies where it ought to. */
export function cardScene(
  camera: Camera,
  light: Spectrum,
  width: number,
  height: number,
): (x: number, y: number, channel: number) => number {
  const white = recorded(camera, light);
  const k = 1 / Math.max(...white);
  const of = (r: Spectrum): number[] => recorded(camera, light, r).map((v) => v * k);
  const seen = patches.map(of);
  const paper = of(reflectanceOf([0.9, 0.9, 0.89]));
  const ink = of(reflectanceOf([0.018, 0.018, 0.018]));
  const cloth = [0.16, 0.17, 0.19].map((v, i) => v * neutralUnder(camera, light)[i]!);
  const back = invert(fromSquare(OUTER.map(([x, y]): Point => [x * width, y * height]))!);
  return (x, y, c) => {
    const [u, v] = project(back, x + 0.5, y + 0.5);
    const across = u * (COLUMNS + 1) - 0.5;
    const down = v * (ROWS + 1) - 0.5;
    const shade = 1 - 0.012 * Math.hypot(x / width - 0.45, y / height - 0.45);
    let value = cloth[c]! * (0.92 + 0.08 * Math.sin(x * 0.9) * Math.sin(y * 0.9));
    if (u > -0.045 && u < 1.045 && v > -0.06 && v < 1.06) value = paper[c]!;
    if (across >= 0 && across < COLUMNS && down >= 0 && down < ROWS)
      value =
        Math.abs((across % 1) - 0.5) < 0.46 && Math.abs((down % 1) - 0.5) < 0.46
          ? seen[Math.floor(down) * COLUMNS + Math.floor(across)]![c]!
          : paper[c]!;
    for (const [mu, mv] of [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ] as const)
      if (Math.abs(u - mu) * (COLUMNS + 1) < 0.16 && Math.abs(v - mv) * (ROWS + 1) < 0.16) value = ink[c]!;
    return value * shade;
  };
}
