import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { writeTitle } from '../pack/write-title';
import { compile } from '../preset/render';
import { warm } from '../preset/testing';
import { icc } from '../testing';
import { toAbstract, toDeviceLink } from './convert';
import { describeIcc } from './describe';
import { iccHeader } from './header';
import { evaluateIcc } from './look';

/** Bytes of each tag by name. */
function elements(bytes: Uint8Array): Map<string, string> {
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  const out = new Map<string, string>();
  for (let i = 0; i < view.getUint32(128); i++) {
    const p = 132 + i * 12;
    out.set(
      String.fromCharCode(...bytes.subarray(p, p + 4)),
      Buffer.from(bytes.subarray(view.getUint32(p + 4), view.getUint32(p + 4) + view.getUint32(p + 8))).toString('hex'),
    );
  }
  return out;
}
const evaluate = compile(warm);
const created = new Date('2026-03-04T05:06:07Z');

describe('another description in an ICC profile', () => {
  test('version 4: it is read back, every other tag has its bytes, and the colors are the same', async () => {
    const { bytes } = await toAbstract(evaluate, { title: 'Old', created, grid: 9 });
    const after = writeTitle('icc', bytes, 'Größe „Kiln“ 5', [], []);
    const before = elements(bytes);
    const now = elements(after);
    expect(iccHeader(after).description).toBe('Größe „Kiln“ 5');
    before.delete('desc');
    now.delete('desc');
    expect(now).toEqual(before);
    expect([...(await evaluateIcc(after, [0.2, 0.5, 0.7]))]).toEqual([...(await evaluateIcc(bytes, [0.2, 0.5, 0.7]))]);
    expect(after.subarray(4, 84)).toEqual(bytes.subarray(4, 84));
    expect(new DataView(after.buffer).getUint32(0)).toBe(after.length);
  });
  test('version 2: plain letters for old readers, the whole title for others', () => {
    const old = icc('mntr', 'A display');
    const v2 = old.slice();
    v2[8] = 2;
    const after = describeIcc(v2, 'Größe 5');
    expect(iccHeader(after).description).toBe('Größe 5');
    expect(Buffer.from(after).toString('latin1')).toContain('Grosse 5'.replace('ss', '?'));
  });
  test('any title comes back; elements lie on fours, within the file, and none over another', async () => {
    const { bytes } = await toDeviceLink(evaluate, { title: 'Old', created, grid: 3 });
    fc.assert(
      fc.property(
        fc
          .string({ unit: 'grapheme', minLength: 1, maxLength: 60 })
          .map((s) => s.replace(/[\u0000-\u001f\u007f-\u009f]/g, '').trim())
          .filter((s) => s.length > 0),
        (title) => {
          const first = describeIcc(bytes, title);
          const view = new DataView(first.buffer);
          const spans = Array.from({ length: view.getUint32(128) }, (_, i): [number, number] => [
            view.getUint32(136 + i * 12),
            view.getUint32(136 + i * 12) + view.getUint32(140 + i * 12),
          ]).sort((x, y) => x[0] - y[0]);
          expect(iccHeader(first).description).toBe(title);
          spans.forEach(([from, to], i) => {
            expect(from % 4).toBe(0);
            expect(to).toBeLessThanOrEqual(first.length);
            if (i) expect(from).toBeGreaterThanOrEqual(spans[i - 1]![1]);
          });
        },
      ),
      { numRuns: 60 },
    );
  });
  test('shared elements stay shared', async () => {
    const { bytes } = await toDeviceLink(evaluate, { title: 'Old', created, grid: 3 });
    const view = new DataView(bytes.buffer);
    const names = Array.from({ length: view.getUint32(128) }, (_, i) =>
      String.fromCharCode(...bytes.subarray(132 + i * 12, 136 + i * 12)),
    );
    const d = names.indexOf('desc');
    const c = names.indexOf('cprt');
    const both = bytes.slice();
    const writer = new DataView(both.buffer);
    for (const k of [4, 8]) writer.setUint32(132 + c * 12 + k, view.getUint32(132 + d * 12 + k)); // the copyright is the old description's element
    const after = describeIcc(both, 'New');
    expect(iccHeader(after)).toMatchObject({ description: 'New', copyright: 'Old' });
  });
});
