import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { PlanForm } from './PlanForm';

const version = '018f0000-0000-7000-8000-000000000001';
const other = '018f0000-0000-7000-8000-000000000002';
const station = '018f0000-0000-7000-8000-00000000000a';

const versions = [
  { versionId: version, title: 'Harbor Dusk', kind: 'look', number: 2, selvedge: null },
  { versionId: other, title: 'Kiln', kind: 'preset', number: 1, selvedge: null },
];
const stations = [{ id: station, name: 'Glaze desk', note: 'macOS', groups: [] as string[] }];

test('a rollout is planned for what is ticked, where it is ticked', async () => {
  const asked = serve({ 'POST /api/rollouts': { id: 'made' } });
  draw(<PlanForm versions={versions} stations={stations} chosen={[version]} />);
  const user = userEvent.setup();
  const show = screen.getByRole<HTMLButtonElement>('button', { name: 'Show every file' });
  expect(show.disabled).toBe(true);
  await user.click(screen.getByRole('checkbox', { name: /Kiln/ }));
  await user.click(screen.getByRole('checkbox', { name: /Harbor Dusk/ }));
  await user.click(screen.getByRole('checkbox', { name: /Glaze desk/ }));
  expect(screen.getByText('1 item onto 1 station')).toBeTruthy();
  await user.click(show);
  await vi.waitFor(() => expect(router.push).toHaveBeenCalledWith('/rollouts/made'));
  expect(asked[0]?.body).toEqual({ title: '', versions: [other], stations: [station] });
});

test('what goes wrong is said, and what was ticked stays', async () => {
  serve({
    'POST /api/rollouts': refusal({
      code: 'retired',
      message: 'Kiln was retired.',
      where: 'Kiln',
      remedy: 'Leave it.',
    }),
  });
  draw(<PlanForm versions={versions} stations={stations} chosen={[version]} />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('checkbox', { name: /Glaze desk/ }));
  await user.click(screen.getByRole('button', { name: 'Show every file' }));
  expect(await screen.findByText('Kiln was retired.', { exact: false })).toBeTruthy();
  expect(screen.getByRole<HTMLInputElement>('checkbox', { name: /Harbor Dusk/ }).checked).toBe(true);
  expect(router.push).not.toHaveBeenCalled();
});

test('all stations of a group are taken at once, beside those that are taken already', async () => {
  const asked = serve({ 'POST /api/rollouts': { id: 'made' } });
  const idOf = (n: number): string => `018f0000-0000-7000-8000-0000000000b${n}`;
  const floor = [1, 2].map((n) => ({ id: idOf(n), name: `Loft ${n}`, note: '', groups: ['Floor'] }));
  draw(<PlanForm versions={versions} stations={[...stations, ...floor]} chosen={[version]} at={[station]} />);
  const user = userEvent.setup();
  const all = screen.getByRole<HTMLButtonElement>('button', { name: 'All of Floor' });
  await user.click(all);
  expect(screen.getByText('1 item onto 3 stations')).toBeTruthy();
  expect(screen.getByRole<HTMLInputElement>('checkbox', { name: /Loft 2/ }).checked).toBe(true);
  expect(all.disabled).toBe(true);
  await user.click(screen.getByRole('button', { name: 'Show every file' }));
  await vi.waitFor(() => expect(asked[0]?.body).toMatchObject({ stations: [station, idOf(1), idOf(2)] }));
});
