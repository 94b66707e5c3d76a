import { screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { Readings, type ReadingShown } from './Readings';

const reading = (more: Partial<ReadingShown>): ReadingShown => ({
  editor: 'oxbow',
  version: '2',
  title: 'Oxbow 2',
  before: 3,
  after: 4,
  came: [],
  gone: [],
  refused: [],
  more: 0,
  waiting: 0,
  ...more,
});
const things = (count: number) => Array.from({ length: count }, (_, n) => ({ path: `p${n}`, title: `Look ${n}` }));

test('what came, went and was refused is named, with both counts', () => {
  const refused = [{ path: 'Looks/x.cube', reason: 'cut off' }];
  draw(
    <Readings readings={[reading({ came: things(1), gone: [{ path: 'g', title: 'Gone' }], refused, waiting: 2 })]} />,
  );
  expect(screen.getByRole('listitem').textContent).toBe(
    'Oxbow 2 listed 3 before and 4 after. Came: Look 0. Went: Gone. Refused: Looks/x.cube (cut off). Of 2 files it says nothing yet.',
  );
});

test('of many some are named, and the rest is counted', () => {
  draw(<Readings readings={[reading({ came: things(14), more: 5 })]} />);
  expect(screen.getByRole('listitem').textContent).toMatch(/Look 11 and 7 more\.$/);
});

test('nothing stands where no list has changed', () => {
  draw(<Readings readings={[]} />);
  expect(screen.queryByRole('list', { name: /before and after/ })).toBeNull();
});
