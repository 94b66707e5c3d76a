import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { wholeFleet } from '@/core/records/fleet';
import { draw } from '../testing/render';
import { router } from '../testing/setup';
import { FleetChoice } from './FleetChoice';

const editors = [
  { id: 'marlstone@4', title: 'Marlstone 4' },
  { id: 'oxbow@2', title: 'Oxbow 2' },
];

test('what is chosen and typed goes into the address together', async () => {
  const user = userEvent.setup();
  draw(<FleetChoice filter={{ ...wholeFleet, show: 'due' }} editors={editors} groups={[]} />);
  await user.type(screen.getByRole('textbox', { name: 'Name of a station or a person' }), ' glaze ');
  await user.selectOptions(screen.getByRole('combobox', { name: 'With which editor' }), 'Oxbow 2');
  expect(router.push).toHaveBeenLastCalledWith('/stations?words=glaze&editor=oxbow%402&show=due');
  await user.click(screen.getByRole('button', { name: 'Show' }));
  expect(router.push).toHaveBeenLastCalledWith('/stations?words=glaze&show=due');
});

test('the whole fleet is a click away, where less is shown', async () => {
  const user = userEvent.setup();
  const { unmount } = draw(<FleetChoice filter={{ ...wholeFleet, words: 'glaze' }} editors={editors} groups={[]} />);
  await user.click(screen.getByRole('button', { name: 'Show all' }));
  expect(router.push).toHaveBeenLastCalledWith('/stations');
  unmount();
  draw(<FleetChoice filter={wholeFleet} editors={editors} groups={[]} />);
  expect(screen.queryByRole('button', { name: 'Show all' })).toBeNull();
});

test('a group is chosen where there are any', async () => {
  draw(<FleetChoice filter={wholeFleet} editors={editors} groups={['Kiln', 'Upper floor']} />);
  await userEvent.setup().selectOptions(screen.getByRole('combobox', { name: 'In which group' }), 'Upper floor');
  expect(router.push).toHaveBeenLastCalledWith('/stations?group=Upper+floor');
});
