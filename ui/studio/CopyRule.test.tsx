import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { CopyRule } from './CopyRule';

function open() {
  const asked = serve({ 'PATCH /api/studio': {} });
  draw(<CopyRule p95={0.3} max={1} may />);
  const [most, farthest] = screen.getAllByRole<HTMLInputElement>('spinbutton');
  if (!most || !farthest) throw new Error('there are two differences');
  return { asked, most, farthest, user: userEvent.setup() };
}

describe('what counts as a copy', () => {
  test('is set once it is another figure, and then there is nothing more to set', async () => {
    const { asked, most, user } = open();
    expect(screen.queryByRole('button')).toBeNull();
    await user.clear(most);
    await user.type(most, '0.5');
    await user.click(screen.getByRole('button', { name: 'Set' }));
    await vi.waitFor(() => expect(screen.queryByRole('button')).toBeNull());
    expect(asked).toEqual([{ method: 'PATCH', path: '/api/studio', body: { p95: 0.5, max: 1 } }]);
  });

  test.each([
    ['0.01', 'At least 0.05 ΔE00: two writings of one table differ by that much.'],
    ['2', 'The farthest color may not be nearer than most are.'],
    ['', 'A difference is a number.'],
  ])('of %j, it is said beside the figure what is wrong', async (typed, says) => {
    const { asked, most, user } = open();
    await user.clear(most);
    if (typed) await user.type(most, typed);
    await user.click(screen.getByRole('button', { name: 'Set' }));
    expect((await screen.findAllByRole('alert')).map((alert) => alert.textContent)).toContain(says);
    expect(asked).toEqual([]);
  });
});
