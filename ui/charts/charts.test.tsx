import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import type { ReadingFigures } from '@/core/editor-chart/figures';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { GiveBack } from './GiveBack';
import { NewChart } from './NewChart';
import { Readings, type Reading } from './Readings';

const figures: ReadingFigures = {
  noise: 0.2,
  spread: { mean: 0.1, max: 0.4 },
  repaired: ['a border around the chart was left out'],
  warnings: [{ code: 'chart-lossy', message: 'The picture was compressed with loss.' }],
  error: { meanDeltaE: 0.02, p95DeltaE: 0.04, maxDeltaE: 0.18 },
  agreement: null,
  validFor: 'rendered files',
};
const reading = (id: string): Reading => ({
  id,
  fileName: `${id}.tif`,
  figures,
  person: 'Odile Wren',
  at: '2026-11-28T10:00:00Z',
});

describe('a new chart', () => {
  const form = () => draw(<NewChart editors={['Oxbow 2']} preset={null} form={null} editor="" />);

  test('is asked for with what was said; each kind has its own sizes', async () => {
    const asked = serve({ 'POST /api/editor-charts': { id: 'made' } });
    const user = userEvent.setup();
    form();
    await user.type(screen.getByLabelText(/^Editor, with its version/), 'Quern 3');
    await user.type(screen.getByLabelText('What is switched on there'), 'Velour');
    await user.selectOptions(screen.getByLabelText('It is tried on'), 'plain');
    const sizes = screen.getByLabelText<HTMLSelectElement>('Points an axis');
    expect([...sizes.options].map(({ text }) => text)).toEqual(['25', '36', '64']);
    expect(sizes.value).toBe('36');
    await user.click(screen.getByRole('button', { name: 'Make the chart' }));
    await vi.waitFor(() => expect(router.push).toHaveBeenCalledWith('/convert/charts/made'));
    expect(asked.at(-1)?.body).toMatchObject({ editor: 'Quern 3', what: 'Velour', kind: 'plain', size: 36 });
  });

  test('of no editor is not asked for, and says so at the field', async () => {
    const asked = serve({});
    form();
    await userEvent.setup().click(screen.getByRole('button', { name: 'Make the chart' }));
    expect(await screen.findByText('Say which editor, with its version.')).toBeTruthy();
    expect(asked).toEqual([]);
  });

  test('for camera data needs a profile', async () => {
    serve({});
    const user = userEvent.setup();
    form();
    await user.type(screen.getByLabelText(/^Editor, with its version/), 'Quern 3');
    await user.selectOptions(screen.getByLabelText('It is tried on'), 'camera data');
    expect(screen.queryByLabelText('File')).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Make the chart' }));
    expect(await screen.findByText(/Choose the camera profile that the chart is made for/)).toBeTruthy();
  });
});

describe('readings', () => {
  const shelves = [
    { id: 'kiln', name: 'Kiln' },
    { id: 'stage', name: 'Stage' },
  ];
  const listed = (may = true) =>
    draw(
      <Readings
        chart="chart"
        title="Velour, Quern 3"
        readings={[reading('one'), reading('two')]}
        shelves={shelves}
        besidePreset={false}
        may={may}
      />,
    );

  test('that are ticked become one look, on the shelf that is chosen', async () => {
    const asked = serve({ 'POST /api/editor-charts/chart/look': { itemId: 'look', versionId: 'v' } });
    const user = userEvent.setup();
    listed();
    expect(screen.getByRole('button', { name: 'Make the look of 2 readings, averaged' })).toBeTruthy();
    await user.click(screen.getByRole('checkbox', { name: 'Take one.tif' }));
    await user.selectOptions(screen.getByLabelText('On the shelf'), 'Stage');
    await user.click(screen.getByRole('button', { name: 'Make the look' }));
    await vi.waitFor(() => expect(router.push).toHaveBeenCalledWith('/items/look'));
    expect(asked.at(-1)?.body).toEqual({ title: 'Velour, Quern 3', readings: ['two'], shelf: 'stage' });
  });

  test('say what was repaired and what to know; with none ticked nothing can be made', async () => {
    serve({});
    const user = userEvent.setup();
    listed();
    expect(screen.getAllByText('a border around the chart was left out')).toHaveLength(2);
    expect(screen.getAllByText('noise 0.20 of 255, spread ΔE00 0.40 at most')).toHaveLength(2);
    for (const name of ['Take one.tif', 'Take two.tif']) await user.click(screen.getByRole('checkbox', { name }));
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Make the look' }).disabled).toBe(true);
  });

  test('are looked at by those who may not convert, and not changed', () => {
    listed(false);
    expect(screen.queryByRole('button', { name: /Make the look|off$/ })).toBeNull();
  });
});

test('a chart that is refused says why, and another can be given', async () => {
  const why = { code: 'chart-clipped', message: 'It is clipped.', where: 'points', remedy: 'Export again.' };
  serve({ 'POST /api/editor-charts/chart/readings?name=x.tif': () => refusal(why) });
  draw(<GiveBack id="chart" />);
  const field = screen.getByLabelText('The picture that the editor exported');
  await userEvent.setup().upload(field, new File(['x'], 'x.tif', { type: 'image/tiff' }));
  expect(await screen.findByText('It is clipped.')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Give the chart back' })).toBeTruthy();
});
