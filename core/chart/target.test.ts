import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Problem } from '../problem';
import { encodeSrgb } from '../color/transfer';
import { invert, multiply, transform } from '../color/matrix';
import { adapt, D50, D65, srgbToXyz } from '../color/spaces';
import { readChart, type Chart } from './cgats';
import { fromSquare, isConvex, project, type Point } from './homography';
import { blots, findChart } from './marks';
import { measureChart, patchMeans } from './measure';

const text = (s: string): Uint8Array => new TextEncoder().encode(s);
const head = 'CGATS.17\nORIGINATOR "Kiln room"\nDESCRIPTOR "Glaze card, 2026"\n';

describe('measured values as CGATS text', () => {
  test('L*a*b* by name, put in their places; comments, quotes and broken lines of the format', () => {
    const chart = readChart(
      text(
        `${head}NUMBER_OF_FIELDS 5\nBEGIN_DATA_FORMAT\nSAMPLE_ID SAMPLE_NAME # what it is\nLAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nNUMBER_OF_SETS 4\nBEGIN_DATA\n1 B2 10 0 0\n2 A1 90 1 -2\n3 "B1" 30 0 0\n4 A2 70 5,5 0\nEND_DATA\n`,
      ),
    );
    expect(chart).toEqual({
      title: 'Kiln room',
      columns: 2,
      rows: 2,
      patches: [
        { id: 'A1', lab: [90, 1, -2] },
        { id: 'A2', lab: [70, 5.5, 0] },
        { id: 'B1', lab: [30, 0, 0] },
        { id: 'B2', lab: [10, 0, 0] },
      ],
    });
  });
  test('XYZ of 0…100 is brought to L*a*b*; white is 100, 0, 0', () => {
    const chart = readChart(
      text(
        'CGATS.17\r\nBEGIN_DATA_FORMAT\r\nSAMPLE_ID XYZ_X XYZ_Y XYZ_Z\r\nEND_DATA_FORMAT\r\nBEGIN_DATA\r\n1 96.42 100 82.521\r\n2 17.356 18 14.854\r\nEND_DATA\r\n',
      ),
    );
    chart.patches[0]!.lab.forEach((v, i) => expect(v).toBeCloseTo([100, 0, 0][i]!, 2));
    expect(chart.patches[1]!.lab[0]).toBeCloseTo(49.496, 2);
    expect(Math.hypot(chart.patches[1]!.lab[1], chart.patches[1]!.lab[2])).toBeLessThan(0.05);
    expect([chart.columns, chart.rows]).toEqual([2, 1]);
  });
  test('patches in order: in rows as long as the text says, else as near to a square as they can be', () => {
    const of = (n: number, more = '') =>
      readChart(
        text(
          `CGATS.17\n${more}BEGIN_DATA_FORMAT\nSAMPLE_ID LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n${Array.from({ length: n }, (_, i) => `${i + 1} ${i} 0 0`).join('\n')}\nEND_DATA\n`,
        ),
      );
    expect([of(24, 'LGOROWLENGTH 3\n'), of(24), of(7)].map((c) => [c.columns, c.rows])).toEqual([
      [3, 8],
      [6, 4],
      [7, 1],
    ]);
  });
  test.each([
    ['no format', 'CGATS.17\nBEGIN_DATA\n1 2\nEND_DATA'],
    ['no color', 'CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID RGB_R\nEND_DATA_FORMAT\nBEGIN_DATA\n1 2\nEND_DATA'],
    ['no patches', 'CGATS.17\nBEGIN_DATA_FORMAT\nLAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\nEND_DATA'],
    ['too few values', 'CGATS.17\nBEGIN_DATA_FORMAT\nLAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n1 2\nEND_DATA'],
    ['no number', 'CGATS.17\nBEGIN_DATA_FORMAT\nLAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n1 2 NaN\nEND_DATA'],
    ['far out', 'CGATS.17\nBEGIN_DATA_FORMAT\nLAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n1 2 9e9\nEND_DATA'],
    [
      'six thousand',
      `CGATS.17\nBEGIN_DATA_FORMAT\nLAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n${'1 2 3\n'.repeat(6000)}`,
    ],
  ])('%s: refused with place and remedy', (_n, given) => {
    const error = ((): unknown => {
      try {
        return readChart(text(given));
      } catch (value) {
        return value;
      }
    })();
    expect(error).toBeInstanceOf(Problem);
    expect((error as Problem).where).not.toBe('');
    expect((error as Problem).remedy).not.toBe('');
  });
});

describe('the map of a square to four corners', () => {
  const corner = (x: number, y: number) =>
    fc.tuple(
      fc.double({ min: x - 0.2, max: x + 0.2, noNaN: true }),
      fc.double({ min: y - 0.2, max: y + 0.2, noNaN: true }),
    );
  test('takes corners to corners, straight lines to straight lines', () =>
    fc.assert(
      fc.property(
        corner(0, 0),
        corner(1, 0),
        corner(1, 1),
        corner(0, 1),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (a, b, c, d, t) => {
          const points: Point[] = [a, b, c, d];
          const homography = fromSquare(points)!;
          [
            [0, 0],
            [1, 0],
            [1, 1],
            [0, 1],
          ].forEach(([u, v], i) =>
            project(homography, u!, v!).forEach((x, k) => expect(x).toBeCloseTo(points[i]![k]!, 9)),
          );
          const [point, r, s] = [project(homography, 0, t), project(homography, 0.5, t), project(homography, 1, t)];
          expect(Math.abs((r[0] - point[0]) * (s[1] - point[1]) - (r[1] - point[1]) * (s[0] - point[0]))).toBeLessThan(
            1e-9,
          );
        },
      ),
    ));
  test('corners on a line, crossed or the same are none', () => {
    expect(
      isConvex([
        [0, 0],
        [1, 0],
        [2, 0],
        [0, 1],
      ]),
    ).toBe(false);
    expect(
      fromSquare([
        [0, 0],
        [1, 1],
        [1, 0],
        [0, 1],
      ]),
    ).toBeNull();
    expect(
      fromSquare([
        [0, 0],
        [0, 0],
        [1, 1],
        [0, 1],
      ]),
    ).toBeNull();
  });
});

/** A made-up card of 6 × 4 patches within sRGB, and a photograph of it in perspective, with four marks and other dark things about. */
const chart: Chart = {
  title: 'Card',
  columns: 6,
  rows: 4,
  patches: Array.from({ length: 24 }, (_, i) => ({
    id: `${'ABCD'[Math.floor(i / 6)]}${(i % 6) + 1}`,
    lab: i < 6 ? [92 - i * 14, 0, 0] : [45 + (i % 5) * 8, 26 * Math.cos(i * 1.3), 26 * Math.sin(i * 1.3)],
  })),
};
const toRgb = invert(multiply(adapt(D65, D50), srgbToXyz));
function rgbOf([l, a, b]: readonly number[]): number[] {
  const f = (t: number): number => (t > 6 / 29 ? t ** 3 : 3 * (6 / 29) ** 2 * (t - 4 / 29));
  const y = (l! + 16) / 116;
  return transform(toRgb, [0.9642 * f(y + a! / 500), f(y), 0.8249 * f(y - b! / 200)]).map((v) =>
    Math.round(255 * encodeSrgb(Math.min(1, Math.max(0, v)))),
  );
}
function photograph(w: number, h: number, outer: Point[]): Uint8ClampedArray {
  const pixels = new Uint8ClampedArray(w * h * 4);
  const homography = fromSquare(outer)!;
  const back = inverse(homography);
  for (let y = 0, i = 0; y < h; y++)
    for (let x = 0; x < w; x++, i += 4) {
      const [u, v] = project(back, x + 0.5, y + 0.5);
      const c = u * 7 - 0.5;
      const r = v * 5 - 0.5; // marks half a patch outside
      let rgb = [150 + 30 * Math.sin(x / 40), 140, 130 + 20 * Math.cos(y / 60)];
      if (u > -0.07 && u < 1.07 && v > -0.1 && v < 1.1) rgb = [236, 236, 232];
      if (c >= 0 && c < 6 && r >= 0 && r < 4) rgb = rgbOf(chart.patches[Math.floor(r) * 6 + Math.floor(c)]!.lab);
      for (const [mu, mv] of [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ] as const)
        if (Math.abs(u - mu) * 7 < 0.14 && Math.abs(v - mv) * 5 < 0.14) rgb = [18, 18, 18];
      if (Math.hypot(x - w * 0.08, y - h * 0.1) < 6 || Math.hypot(x - w * 0.9, y - h * 0.93) < 9) rgb = [20, 15, 12];
      pixels.set([...rgb, 255], i);
    }
  return pixels;
}
/** The other way round. */
function inverse(matrix: readonly number[]): number[] {
  return invert(matrix).map((v, _i, l) => v / l[8]!);
}

describe('a chart in a picture', () => {
  const width = 600;
  const height = 420;
  const straight: Point[] = [
    [130, 90],
    [470, 110],
    [490, 330],
    [110, 310],
  ];
  const at = (outer: Point[]) => ({
    columns: 6,
    rows: 4,
    corners: (
      [
        [0.5 / 7, 0.1],
        [6.5 / 7, 0.1],
        [6.5 / 7, 0.9],
        [0.5 / 7, 0.9],
      ] as Point[]
    ).map(([u, v]): Point => {
      const [x, y] = project(fromSquare(outer)!, u, v);
      return [x / width, y / height];
    }),
  });
  test('its patches are what was measured, to the rounding of eight bits', () => {
    const chartResult = measureChart(photograph(width, height, straight), width, height, at(straight), chart)!;
    expect(chartResult.patches).toHaveLength(24);
    expect(chartResult.max).toBeLessThan(1);
    expect(chartResult.mean).toBeLessThan(0.4);
    expect(chartResult.patches.map((q) => q.id)).toEqual(chart.patches.map((q) => q.id));
  });
  test('a patch that is off is named, with its ΔE00', () => {
    const off = {
      ...chart,
      patches: chart.patches.map((patch) =>
        patch.id === 'C2'
          ? { ...patch, lab: [patch.lab[0] + 12, patch.lab[1], patch.lab[2]] as [number, number, number] }
          : patch,
      ),
    };
    const chartResult = measureChart(photograph(width, height, straight), width, height, at(straight), off)!;
    expect(chartResult.worst).toBe('C2');
    expect(chartResult.max).toBeGreaterThan(6);
    expect(chartResult.mean).toBeGreaterThan(chartResult.max / 24);
    expect(chartResult.mean).toBeLessThan(1.2);
  });
  test('a field that reaches out of the picture, or is none, is not measured', () => {
    const pixels = photograph(width, height, straight);
    expect(
      patchMeans(pixels, width, height, {
        columns: 2,
        rows: 2,
        corners: [
          [-0.5, 0],
          [1, 0],
          [1, 1],
          [0, 1],
        ],
      }),
    ).toBeNull();
    expect(
      patchMeans(pixels, width, height, {
        columns: 2,
        rows: 2,
        corners: [
          [0, 0],
          [1, 1],
          [1, 0],
          [0, 1],
        ],
      }),
    ).toBeNull();
    expect(measureChart(pixels, width, height, { ...at(straight), rows: 3 }, chart)).toBeNull();
  });
  test.each([
    ['as it is held', straight],
    [
      'on its side',
      [
        [420, 60],
        [430, 370],
        [190, 360],
        [180, 70],
      ] as Point[],
    ],
    ['upside down', [straight[2]!, straight[3]!, straight[0]!, straight[1]!]],
  ])('is found by its marks, %s', (_n, outer) => {
    const pixels = photograph(width, height, outer);
    const found = findChart(pixels, width, height, chart)!;
    const want = at(outer);
    expect(blots(pixels, width, height).length).toBeGreaterThanOrEqual(4);
    found.corners.forEach(([x, y], i) => {
      expect(Math.abs(x - want.corners[i]![0]) * width).toBeLessThan(2);
      expect(Math.abs(y - want.corners[i]![1]) * height).toBeLessThan(2);
    });
    expect(measureChart(pixels, width, height, found, chart)!.mean).toBeLessThan(0.6);
  });
  test('where there is none, none is found', () => {
    const pixels = new Uint8ClampedArray(width * height * 4).fill(255);
    for (let i = 0; i < pixels.length; i += 4) {
      const v = 90 + ((Math.imul(i + 1, 2654435761) >>> 24) & 127);
      pixels[i] = v;
      pixels[i + 1] = v;
      pixels[i + 2] = v;
    }
    expect(findChart(pixels, width, height, chart)).toBeNull();
    expect(findChart(new Uint8ClampedArray(4 * 30 * 20), 30, 20, chart)).toBeNull();
  });
});
