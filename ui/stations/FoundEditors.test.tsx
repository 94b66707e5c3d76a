import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { router } from '../testing/setup';
import { FoundEditors } from './FoundEditors';

const station = { id: 'desk', name: 'Desk', person: 'Ana' };
const found = [{ id: 'tessel@7', title: 'Tessel 7' }];

test('an editor that was found is added by one click, and the station is called as before', async () => {
  const asked = serve({ 'PATCH /api/stations/desk': {} });
  draw(<FoundEditors station={station} found={found} may />);
  await userEvent.setup().click(screen.getByRole('button', { name: 'Add Tessel 7' }));
  expect(asked.map(({ body }) => body)).toEqual([{ name: 'Desk', person: 'Ana', came: ['tessel@7'] }]);
  expect(router.refresh).toHaveBeenCalledOnce();
});

test('those who may not are told of it alone; where nothing was found nothing is said', () => {
  const { rerender } = draw(<FoundEditors station={station} found={found} may={false} />);
  expect(screen.getByRole('region', { name: 'Found on the machine' }).textContent).toContain('Tessel 7');
  expect(screen.queryByRole('button')).toBeNull();
  rerender(<FoundEditors station={station} found={[]} may />);
  expect(screen.queryByRole('region', { name: 'Found on the machine' })).toBeNull();
});
