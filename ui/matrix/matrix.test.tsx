import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { router } from '../testing/setup';
import { MatrixChoice } from './MatrixChoice';
import { MatrixTable } from './MatrixTable';

const stations = [
  { id: 's1', name: 'Desk' },
  { id: 's2', name: 'Room' },
];
const row = {
  item: 'i',
  version: 'v',
  title: 'Slate',
  number: 2,
  cells: {
    s1: {
      is: 'missing',
      editors: [
        { editor: 'oxbow@2', is: 'in-step' },
        { editor: 'marlstone@4', is: 'missing' },
      ],
    },
  },
  due: ['s1'],
};

test('a cell says how an item stands, and in which of several editors it is lacking', () => {
  const { rerender } = draw(
    <MatrixTable mayPlan stations={stations} rows={[row]} titles={{ 'marlstone@4': 'Marlstone 4' }} />,
  );
  expect(screen.getAllByRole('cell').map(({ textContent }) => textContent)).toEqual([
    'Slate v2',
    'missingMarlstone 4: missing',
    'no editor takes it',
    'Roll out',
  ]);
  expect(screen.getByRole('link', { name: 'Roll out Slate where it is due' }).getAttribute('href')).toBe(
    '/rollouts/new?versions=v&stations=s1',
  );
  rerender(<MatrixTable mayPlan={false} stations={stations} rows={[row]} titles={{}} />);
  expect(screen.queryByRole('link', { name: /Roll out/ })).toBeNull();
});

test('what it is of and whether it is narrowed down stand in the address', async () => {
  const user = userEvent.setup();
  const chosen = { shelf: 'a', pack: '', due: false };
  draw(<MatrixChoice chosen={chosen} shelves={[{ id: 'a', title: 'House' }]} packs={[{ id: 'p', title: 'Autumn' }]} />);
  await user.click(screen.getByLabelText('only what is missing or due somewhere'));
  await user.selectOptions(screen.getByLabelText('What it is of'), 'Autumn');
  await user.selectOptions(screen.getByLabelText('What it is of'), 'the everyday list');
  expect(router.push.mock.calls.map(([address]) => address as string)).toEqual([
    '/stations/matrix?shelf=a&due=1',
    '/stations/matrix?pack=p',
    '/stations/matrix',
  ]);
});
