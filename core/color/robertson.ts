/**
 * Correlated color temperature after A. R. Robertson, Journal of the Optical Society of America 58 (1968), with the
 * isotemperature lines of Wyszecki and Stiles, Color Science (1982), table 1(3.11); the line at 325 reciprocal megakelvin
 * bears u = 0.24792, where the book prints 0.24702 by mistake.
 */
import { xyOfUv } from './temperature';

/** Reciprocal megakelvin, u, v, slope of the line. */
const lines: readonly (readonly [number, number, number, number])[] = [
  [0, 0.18006, 0.26352, -0.24341],
  [10, 0.18066, 0.26589, -0.25479],
  [20, 0.18133, 0.26846, -0.26876],
  [30, 0.18208, 0.27119, -0.28539],
  [40, 0.18293, 0.27407, -0.3047],
  [50, 0.18388, 0.27709, -0.32675],
  [60, 0.18494, 0.28021, -0.35156],
  [70, 0.18611, 0.28342, -0.37915],
  [80, 0.1874, 0.28668, -0.40955],
  [90, 0.1888, 0.28997, -0.44278],
  [100, 0.19032, 0.29326, -0.47888],
  [125, 0.19462, 0.30141, -0.58204],
  [150, 0.19962, 0.30921, -0.70471],
  [175, 0.20525, 0.31647, -0.84901],
  [200, 0.21142, 0.32312, -1.0182],
  [225, 0.21807, 0.32909, -1.2168],
  [250, 0.22511, 0.33439, -1.4512],
  [275, 0.23247, 0.33904, -1.7298],
  [300, 0.2401, 0.34308, -2.0637],
  [325, 0.24792, 0.34655, -2.4681],
  [350, 0.25591, 0.34951, -2.9641],
  [375, 0.264, 0.352, -3.5814],
  [400, 0.27218, 0.35407, -4.3633],
  [425, 0.28039, 0.35577, -5.3762],
  [450, 0.28863, 0.35714, -6.7262],
  [475, 0.29685, 0.35823, -8.5955],
  [500, 0.30505, 0.35907, -11.324],
  [525, 0.3132, 0.35968, -15.628],
  [550, 0.32129, 0.36011, -23.325],
  [575, 0.32931, 0.36038, -40.77],
  [600, 0.33724, 0.36051, -116.45],
];
/** Direction of each line in u, v, a unit vector towards magenta. */
const ways = lines.map(([, , , t]): [number, number] => {
  const l = Math.hypot(1, t);
  return [1 / l, t / l];
});

export const uvOfXy = ([x, y]: readonly [number, number]): [number, number] => {
  const d = 1.5 - x + 6 * y;
  return [(2 * x) / d, (3 * y) / d];
};

/** Kelvin, and 3000 times the distance from the black-body locus in CIE 1960 u, v, positive towards magenta. Beyond the table's ends the nearest line holds. */
export function temperatureOf(xy: readonly [number, number]): { kelvin: number; tint: number } {
  const [u, v] = uvOfXy(xy);
  let before = 0;
  for (let i = 1; ; i++) {
    const [, lu, lv] = lines[i]!;
    const [du, dv] = ways[i]!;
    // the distance from the line, positive on its warm side
    let d = -(u - lu) * dv + (v - lv) * du;
    if (d > 0 && i < lines.length - 1) {
      before = d;
      continue;
    }
    d = -Math.min(d, 0);
    const f = i > 1 && before + d > 0 ? d / (before + d) : 0;
    const previous = lines[i - 1]!;
    const next = lines[i]!;
    const wa = ways[i - 1]!;
    const wb = ways[i]!;
    const u0 = previous[1] * f + next[1] * (1 - f);
    const v0 = previous[2] * f + next[2] * (1 - f);
    let wu = wa[0] * f + wb[0] * (1 - f);
    let wv = wa[1] * f + wb[1] * (1 - f);
    const l = Math.hypot(wu, wv);
    wu /= l;
    wv /= l;
    return { kelvin: 1e6 / (previous[0] * f + next[0] * (1 - f)), tint: 3000 * ((u - u0) * wu + (v - v0) * wv) };
  }
}

/** The chromaticity of a temperature (kelvin) and tint, the inverse of `temperatureOf` between 1,667 and 100,000 K. */
export function xyOfTemperature(kelvin: number, tint = 0): [number, number] {
  const r = 1e6 / kelvin;
  let i = 0;
  while (i < lines.length - 2 && r >= lines[i + 1]![0]) i++;
  const before = lines[i]!;
  const after = lines[i + 1]!;
  const f = (after[0] - r) / (after[0] - before[0]);
  const wa = ways[i]!;
  const wb = ways[i + 1]!;
  const wu = wa[0] * f + wb[0] * (1 - f);
  const wv = wa[1] * f + wb[1] * (1 - f);
  const l = Math.hypot(wu, wv);
  return xyOfUv([
    before[1] * f + after[1] * (1 - f) + ((tint / 3000) * wu) / l,
    before[2] * f + after[2] * (1 - f) + ((tint / 3000) * wv) / l,
  ]);
}
