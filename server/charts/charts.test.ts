import { must } from '@/core/must';
import { describe, expect, test } from 'vitest';
import sharp from 'sharp';
import { cardCorners, cardText } from '@/demo/cameras/card';
import { transaction } from '../db/pool';
import { people as p, withDatabase } from '../db/testing/database';
import { addExport, exportPicture, listExports, removeExport } from '../frames/exports';
import { addFrame, listFrames } from '../frames/service';
import { actorOf } from '../people/roles';
import { addChart, layChartOut, listCharts, placeChart } from './service';

withDatabase();
const picture = (width: number, height: number, g = 120) =>
  sharp({ create: { width, height, channels: 3, background: { r: 90, g, b: 60 } } });
const frame = async () =>
  transaction(async (sql) =>
    addFrame(sql, actorOf(p.librarian), {
      name: `F ${Math.random()}`,
      light: 'daylight',
      png: await picture(300, 200).png().toBuffer(),
      width: 300,
      height: 200,
      position: 1,
    }),
  );

describe('charts', () => {
  test('measured values come in as CGATS text, and a frame shows where their patches lie', async () => {
    const chart = await addChart(p.librarian, { text: cardText() });
    const file = await frame();
    expect(chart).toMatchObject({ name: 'Kiln card', columns: 8, rows: 5 });
    expect(chart.patches).toHaveLength(40);
    expect(must(chart.patches[0]).lab[0]).toBeGreaterThan(93); // the lightest gray of the ramp
    expect((await listCharts(p.retoucher)).map((x) => x.name)).toContain('Kiln card');
    await placeChart(p.librarian, file, { chart: chart.id, corners: cardCorners() });
    expect((await listFrames(p.retoucher)).find((x) => x.id === file)).toMatchObject({
      chart_id: chart.id,
      chart_corners: cardCorners(),
    });
    await placeChart(p.librarian, file, { chart: null });
    expect((await listFrames(p.retoucher)).find((x) => x.id === file)).toMatchObject({
      chart_id: null,
      chart_corners: null,
    });
  });
  test('rows that the text does not tell are said by a person; what does not fill them is refused, as is a name twice', async () => {
    const text = `CGATS.17\nBEGIN_DATA_FORMAT\nLAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n${'50 0 0\n'.repeat(12)}END_DATA\n`;
    const twelve = await addChart(p.librarian, { text, name: 'Twelve' });
    expect([twelve.columns, twelve.rows, twelve.outside]).toEqual([4, 3, 0.5]);
    expect(await layChartOut(p.librarian, twelve.id, { columns: 6, outside: 1 })).toMatchObject({
      columns: 6,
      rows: 2,
      outside: 1,
    });
    expect((await listCharts(p.retoucher)).find((c) => c.id === twelve.id)).toMatchObject({
      columns: 6,
      rows: 2,
      outside: 1,
    });
    await expect(layChartOut(p.librarian, twelve.id, { columns: 5, outside: 1 })).rejects.toMatchObject({
      code: 'chart-layout',
    });
    await expect(layChartOut(p.librarian, twelve.id, { columns: 6, outside: 9 })).rejects.toMatchObject({
      code: 'input-invalid',
    });
    await expect(addChart(p.librarian, { text, name: 'twelve' })).rejects.toMatchObject({ code: 'chart-name' });
    await expect(addChart(p.librarian, { text: 'no chart', name: 'X' })).rejects.toMatchObject({
      code: 'chart-broken',
    });
  });
  test('corners outside the picture, crossed or too few are refused, and nothing is kept', async () => {
    const chart = await addChart(p.librarian, { text: cardText(), name: 'Again' });
    const file = await frame();
    for (const corners of [
      [
        [0, 0],
        [2, 0],
        [1, 1],
        [0, 1],
      ],
      [
        [0, 0],
        [1, 1],
        [1, 0],
        [0, 1],
      ],
    ])
      await expect(placeChart(p.librarian, file, { chart: chart.id, corners })).rejects.toMatchObject({
        code: 'chart-corners',
      });
    await expect(placeChart(p.librarian, file, { chart: chart.id, corners: [[0, 0]] })).rejects.toMatchObject({
      code: 'input-invalid',
    });
    await expect(
      placeChart(p.librarian, '018f0000-0000-7000-8000-000000000000', { chart: chart.id, corners: cardCorners() }),
    ).rejects.toMatchObject({ code: 'not-found' });
    expect(must((await listFrames(p.retoucher)).find((x) => x.id === file)).chart_id).toBeNull();
  });
});

describe('editors’ exports', () => {
  test('one of a frame is kept by its label; another of the same label takes its place', async () => {
    const file = await frame();
    const first = await addExport(
      p.librarian,
      file,
      ' Oxbow 2,  Amber ',
      new Uint8Array(await picture(600, 400).jpeg().toBuffer()),
    );
    const second = await addExport(
      p.librarian,
      file,
      'oxbow 2, amber',
      new Uint8Array(await picture(300, 200, 200).tiff().toBuffer()),
    );
    const mine = (await listExports(p.retoucher)).filter((e) => e.frame_id === file);
    expect(mine.map((e) => [e.id, e.label])).toEqual([[second.id, 'oxbow 2, amber']]);
    await expect(exportPicture(p.retoucher, first.id, 320)).rejects.toMatchObject({ code: 'not-found' });
    const { data } = await sharp(await exportPicture(p.retoucher, second.id, 320))
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(Math.abs(must(data[1]) - 200)).toBeLessThan(3);
    await removeExport(p.librarian, second.id);
    expect((await listExports(p.retoucher)).filter((e) => e.frame_id === file)).toEqual([]);
  });
  test('a crop, no picture at all, and no label are refused', async () => {
    const file = await frame();
    await expect(
      addExport(p.librarian, file, 'A', new Uint8Array(await picture(300, 260).png().toBuffer())),
    ).rejects.toMatchObject({ code: 'export-shape' });
    await expect(addExport(p.librarian, file, 'A', new TextEncoder().encode('no picture'))).rejects.toMatchObject({
      code: 'picture-broken',
    });
    for (const label of ['', ' ', 'a!b', 'a:b', 'a~b'])
      await expect(
        addExport(p.librarian, file, label, new Uint8Array(await picture(300, 200).png().toBuffer())),
      ).rejects.toMatchObject({ code: 'export-label' });
  });
});
