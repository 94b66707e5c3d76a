import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import { noTrim, type Trim } from '@/core/bench/measure';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { KeptTrim, trimWords } from './KeptTrim';

const trim: Trim = { ...noTrim, slope: [1.1, 1, 0.9], power: [1, 1.05, 1] };

describe('a trim that is kept with an item', () => {
  test('is told by what it changes', () => {
    expect(trimWords(trim)).toBe('slope 1.1 1 0.9, power 1 1.05 1');
    expect(trimWords(noTrim)).toBe('changes nothing');
  });
  test('is forgotten by who may', async () => {
    const asked = serve({ 'DELETE /api/items/one/trim': {} });
    draw(<KeptTrim itemId="one" trim={trim} mayEdit />);
    await userEvent.setup().click(screen.getByRole('button', { name: 'Forget it' }));
    await vi.waitFor(() => expect(asked).toHaveLength(1));
    expect(await screen.findByText(/The trim is forgotten/)).toBeTruthy();
  });
  test('is only seen by others', () => {
    draw(<KeptTrim itemId="one" trim={trim} mayEdit={false} />);
    expect(screen.queryByRole('button')).toBeNull();
  });
});
