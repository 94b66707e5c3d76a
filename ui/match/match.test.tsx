import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { router } from '../testing/setup';
import { FramesOfMatch } from './FramesOfMatch';
import { MakeMatch } from './MakeMatch';
import { Patches, shownWords } from './Patches';

const one = '01a210e5-4862-76ff-8bf1-cca38cebf5bd';
const other = '01a210e5-4862-76ff-8bf1-cca38cebf5be';
const shelf = '01a210e5-4862-76ff-8bf1-cca38cebf5bf';

test('frames are chosen by camera, those of no known camera last, and stand in the address', async () => {
  const frames = [
    { id: 'x', name: 'Scan', camera: '' },
    { id: 'b', name: 'OND 2207', camera: 'Ondine 40' },
    { id: 'a', name: 'ALD 0412', camera: 'Perrin Alder' },
  ];
  draw(<FramesOfMatch frames={frames} from="" to="b" />);
  const from = screen.getByLabelText('The frame that is changed');
  expect(
    within(from)
      .getAllByRole('group')
      .map((group) => group.getAttribute('label')),
  ).toEqual(['Ondine 40', 'Perrin Alder', 'camera not known']);
  await userEvent.setup().selectOptions(from, 'ALD 0412');
  expect(router.replace).toHaveBeenCalledWith('/convert/match?from=a&to=b', { scroll: false });
});

test('the look is for the one camera unless that is taken off', async () => {
  const asked = serve({ 'POST /api/camera-match': { itemId: 'look', versionId: 'v' } });
  const user = userEvent.setup();
  draw(
    <MakeMatch
      from={one}
      to={other}
      title="Alder as Ondine"
      camera="Perrin Alder"
      shelves={[{ id: shelf, name: 'Kiln' }]}
    />,
  );
  await user.selectOptions(screen.getByLabelText('Points an axis'), '48');
  await user.click(screen.getByRole('checkbox', { name: 'Only for pictures of the Perrin Alder' }));
  await user.click(screen.getByRole('button', { name: 'Make the look' }));
  await vi.waitFor(() => expect(router.push).toHaveBeenCalledWith('/items/look'));
  expect(asked.at(-1)?.body).toEqual({ from: one, to: other, title: 'Alder as Ondine', shelf, size: 48, limit: false });
});

test('patches are told the farthest first, with those that were left out', () => {
  const patch = (name: string, after: number, used = true) => ({ name, area: null, before: 5, after, used });
  draw(<Patches patches={[patch('A1', 0.5), patch('A2', 9, false), patch('A3', 1.25)]} />);
  const rows = screen
    .getAllByRole('row')
    .slice(1)
    .map((row) => row.textContent);
  expect(rows).toEqual(['A25.009.00no: clipped, black, or unlike the others', 'A35.001.25yes', 'A15.000.50yes']);
  expect([shownWords(3), shownWords(600)]).toEqual(['all 3, the farthest first', 'the 60 farthest of 600']);
});
