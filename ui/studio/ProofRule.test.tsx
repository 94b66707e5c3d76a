import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { ProofRule } from './ProofRule';

describe('how far off a table may be', () => {
  test('is set by who may, and says what is wrong with a figure', async () => {
    const asked = serve({ 'PATCH /api/studio/proof': {} });
    draw(<ProofRule mean={0.5} max={3} may />);
    const user = userEvent.setup();
    const farthest = screen.getByLabelText('ΔE00 at the farthest color');
    await user.clear(farthest);
    await user.type(farthest, '0.2');
    await user.click(screen.getByRole('button', { name: 'Set' }));
    expect((await screen.findByRole('alert')).textContent).toContain('may not be nearer than the mean');
    await user.clear(farthest);
    await user.type(farthest, '2.5');
    await user.click(screen.getByRole('button', { name: 'Set' }));
    await vi.waitFor(() => expect(asked.map(({ body }) => body)).toEqual([{ mean: 0.5, max: 2.5 }]));
  });
  test('is seen by all, and set by nobody else', () => {
    draw(<ProofRule mean={0.5} max={3} may={false} />);
    expect(screen.getAllByRole<HTMLInputElement>('spinbutton').every((field) => field.disabled)).toBe(true);
  });
});
