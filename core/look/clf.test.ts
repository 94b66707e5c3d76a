import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { strToU8 } from 'fflate';
import { Problem } from '../problem';
import { readClf } from './clf';
import { halfValue } from './clf-nodes';
import { identity, readProgram, sampler, writeClf } from '.';

const file = (nodes: string) =>
  strToU8(
    `<?xml version="1.0"?><ProcessList xmlns="http://www.smpte-ra.org/ns/2136-1/2024" id="a" name="A" compCLFversion="3">${nodes}</ProcessList>`,
  );
const both = 'inBitDepth="32f" outBitDepth="32f"';
const run = (nodes: string, triple: [number, number, number], strength = 1): number[] => {
  const out = new Float64Array(3);
  readProgram(file(nodes)).evaluate(undefined, strength)(...triple, out, 0);
  return [...out];
};
const near = (a: number[], b: number[], digits = 6) => b.forEach((v, i) => expect(a[i]).toBeCloseTo(v, digits));
const exponent = (style: string, e: number, o?: number) =>
  `<Exponent ${both} style="${style}"><ExponentParams exponent="${e}"${o === undefined ? '' : ` offset="${o}"`}/></Exponent>`;
const cdl = (style: string) =>
  `<ASC_CDL ${both} style="${style}"><SOPNode><Slope>1.2 1 0.8</Slope><Offset>0.1 -0.1 0</Offset><Power>1 2 0.5</Power></SOPNode><SatNode><Saturation>0.5</Saturation></SatNode></ASC_CDL>`;
const range = (style: string, a = 0.1, b = 0.9, x = 0, y = 1) =>
  `<Range ${both}${style ? ` style="${style}"` : ''}><minInValue>${a}</minInValue><maxInValue>${b}</maxInValue><minOutValue>${x}</minOutValue><maxOutValue>${y}</maxOutValue></Range>`;

describe('process nodes', () => {
  test('a matrix of 3 × 4, its depths taken out', () =>
    near(
      run(
        '<Matrix inBitDepth="8i" outBitDepth="10i"><Array dim="3 4">2 0 0 102.3  0 4 0 0  0 0 0 1023</Array></Matrix>',
        [0.5, 0.25, 0.9],
      ),
      [0.5 * 2 * (255 / 1023) + 0.1, 4 * 0.25 * (255 / 1023), 1],
    ));
  test('the order of a matrix is by rows, of a chain from first to last', () =>
    near(
      run(
        `<Matrix ${both}><Array dim="3 3">0 1 0 0 0 1 1 0 0</Array></Matrix>${exponent('basicFwd', 2)}`,
        [0.1, 0.2, 0.3],
      ),
      [0.04, 0.09, 0.01],
    ));
  test('a range clamps, and does not where it says so', () => {
    near(run(range(''), [0, 0.5, 1]), [0, 0.5, 1]);
    near(run(range('noClamp'), [0, 0.5, 1]), [-0.125, 0.5, 1.125]);
  });
  test('a range with one pair shifts and clamps on that side alone', () =>
    near(
      run(`<Range ${both}><minInValue>0.2</minInValue><minOutValue>0.2</minOutValue></Range>`, [0.1, 0.5, 1.7]),
      [0.2, 0.5, 1.7],
    ));
  test.each([
    ['basicFwd', 2.2, 0, [-0.5, 0.25], [0, 0.25 ** 2.2]],
    ['basicRev', 2.2, 0, [-0.5, 0.25], [0, 0.25 ** (1 / 2.2)]],
    ['basicMirrorFwd', 2.2, 0, [-0.5, 0.25], [-(0.5 ** 2.2), 0.25 ** 2.2]],
    ['basicMirrorRev', 2.2, 0, [-0.5, 0.25], [-(0.5 ** (1 / 2.2)), 0.25 ** (1 / 2.2)]],
    ['basicPassThruFwd', 2.2, 0, [-0.5, 0.25], [-0.5, 0.25 ** 2.2]],
    ['basicPassThruRev', 2.2, 0, [-0.5, 0.25], [-0.5, 0.25 ** (1 / 2.2)]],
  ] as [string, number, number, number[], number[]][])('%s', (style, e, o, [a, b], [x, y]) => {
    const r = run(exponent(style, e, o || undefined), [a!, b!, 0]);
    near(r, [x!, y!]);
  });
  test('monCurve with 2.4 and 0.055 is the sRGB curve, both ways and mirrored', () => {
    const dec = (x: number): number => (x <= 0.04045 ? x / 12.92 : ((x + 0.055) / 1.055) ** 2.4);
    for (const x of [0.02, 0.1, 0.5, 1, 1.2]) {
      expect(run(exponent('monCurveFwd', 2.4, 0.055), [x, 0, 0])[0]).toBeCloseTo(dec(x), 5);
      near(run(exponent('monCurveFwd', 2.4, 0.055) + exponent('monCurveRev', 2.4, 0.055), [x, x, x]), [x, x, x], 10);
    }
    expect(run(exponent('monCurveMirrorFwd', 2.4, 0.055), [-0.5, 0, 0])[0]).toBeCloseTo(-dec(0.5), 5);
  });
  test('ASC CDL clamps between its steps, and does not in the styles that say so', () => {
    const sop = [Math.min(1, 0.9 * 1.2 + 0.1), 0.4 ** 2, 0.64 ** 0.5];
    const y = 0.2126 * sop[0]! + 0.7152 * sop[1]! + 0.0722 * sop[2]!;
    near(
      run(cdl('Fwd'), [0.9, 0.5, 0.8]),
      sop.map((v) => y + 0.5 * (v - y)),
    );
    const open = [1.18, -0.1, 0.64 ** 0.5];
    const z = 0.2126 * open[0]! + 0.7152 * open[1]! + 0.0722 * open[2]!;
    near(
      run(cdl('FwdNoClamp'), [0.9, 0, 0.8]),
      open.map((v) => z + 0.5 * (v - z)),
    );
  });
  test('each style and its reverse undo one another', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 0.7, noNaN: true }), (x) => {
        near(run(cdl('FwdNoClamp') + cdl('RevNoClamp'), [x, x, x]), [x, x, x], 8);
        near(run(`<Log ${both} style="log2"/><Log ${both} style="antiLog2"/>`, [x, x, x]), [x, x, x], 10);
      }),
    );
  });
  test('a camera logarithm is straight below its break, and back', () => {
    const log = (style: string) =>
      `<Log ${both} style="${style}"><LogParams base="10" logSideSlope="0.25" logSideOffset="0.4" linSideSlope="5" linSideOffset="0.05" linSideBreak="0.01"/></Log>`;
    expect(run(log('cameraLinToLog'), [0.5, 0, 0])[0]).toBeCloseTo(0.25 * Math.log10(2.55) + 0.4, 8);
    for (const x of [-0.1, 0, 0.009, 0.02, 0.9])
      expect(run(log('cameraLinToLog') + log('cameraLogToLin'), [x, 0, 0])[0]).toBeCloseTo(x, 8);
  });
  test('a LUT3D has blue fastest, and its own interpolation wins', () => {
    const rows: string[] = [];
    for (let r = 0; r < 2; r++)
      for (let g = 0; g < 2; g++) for (let b = 0; b < 2; b++) rows.push(`${r} ${r * g} ${b * b * r}`);
    const lut = (how: string) => `<LUT3D ${both}${how}><Array dim="2 2 2 3">${rows.join('\n')}</Array></LUT3D>`;
    near(run(lut(' interpolation="trilinear"'), [0.5, 0.25, 1]), [0.5, 0.125, 0.5]);
    near(run(lut(''), [0.5, 0.25, 1]), [0.5, 0.25, 0.5]);
  });
  test('halves of 16 bits: a table over half-floats, bits as values', () => {
    const table = Array.from({ length: 65536 }, (_, i) => {
      const v = halfValue(i);
      return Number.isFinite(v) ? v * 2 : 0;
    }).join(' ');
    near(
      run(`<LUT1D ${both} halfDomain="true"><Array dim="65536 1">${table}</Array></LUT1D>`, [0.123, -3.7, 20]),
      [0.246, -7.4, 40],
      4,
    );
    near(run(`<LUT1D ${both} rawHalfs="true"><Array dim="2 1">0 15360</Array></LUT1D>`, [0, 0.5, 1]), [0, 0.5, 1]);
    expect(halfValue(0x3555)).toBeCloseTo(0.33325, 5);
    expect(halfValue(0x0001)).toBe(2 ** -24);
    expect(halfValue(0xfc00)).toBe(-Infinity);
  });
  test('strength acts once, end to end', () => {
    const nodes = exponent('basicFwd', 2) + range('noClamp');
    const full = run(nodes, [0.3, 0.6, 0.9]);
    near(
      run(nodes, [0.3, 0.6, 0.9], 2.5),
      [0.3, 0.6, 0.9].map((x, i) => x + 2.5 * (full[i]! - x)),
    );
  });
  test('our own files come back to the bit', () => {
    const look = identity(5, 'Plain & kind');
    look.table = look.table.map((v) => Math.fround(v ** 1.3));
    const program = readProgram(strToU8(writeClf(look, 'x')));
    expect(program.title).toBe('Plain & kind');
    expect(program.look!.table).toEqual(look.table);
    const first = new Float64Array(3);
    const second = new Float64Array(3);
    program.evaluate()(0.3, 0.6, 0.2, first, 0);
    sampler(look)(0.3, 0.6, 0.2, second, 0);
    expect(first).toEqual(second);
  });
  test.each([
    ['a node that is none', '<Blur inBitDepth="32f" outBitDepth="32f"/>', 'clf-node'],
    ['an exponent beyond all measure', exponent('basicFwd', 1e6), 'clf-params'],
    ['a style that is none', exponent('upward', 2), 'clf-params'],
    ['half a range', `<Range ${both}><minInValue>0</minInValue></Range>`, 'clf-params'],
    ['a range upside down', range('', 0.9, 0.1), 'clf-params'],
    ['a matrix of two rows', `<Matrix ${both}><Array dim="2 3">1 0 0 0 1 0</Array></Matrix>`, 'clf-dim'],
    ['a matrix without numbers', `<Matrix ${both}/>`, 'clf-params'],
    ['power zero', cdl('Fwd').replace('1 2 0.5', '1 0 1'), 'clf-params'],
    ['too few numbers', `<LUT1D ${both}><Array dim="3 1">0 1</Array></LUT1D>`, 'clf-count'],
    ['an index map', `<LUT1D ${both}><IndexMap dim="2">0@0 1@1</IndexMap></LUT1D>`, 'clf-index-map'],
  ])('%s is refused with its place', (_n, nodes, code) => {
    try {
      readClf(file(nodes));
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(Problem);
      expect((error as Problem).code).toBe(code);
      expect((error as Problem).where).toMatch(/line|node/);
    }
  });
});
