import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { NumberField } from './NumberField';

function open(from: number, bounds: { min: number; max: number; step: number }) {
  const taken = vi.fn();
  function Kept() {
    const [value, setValue] = useState(from);
    const take = (next: number) => {
      taken(next);
      setValue(next);
    };
    return <NumberField label="Figure" value={value} onValue={take} {...bounds} />;
  }
  draw(<Kept />);
  return { user: userEvent.setup(), taken };
}
const field = () => screen.getByRole<HTMLInputElement>('spinbutton', { name: 'Figure' });
const kelvin = { min: 2000, max: 50000, step: 50 };

describe('a number that is typed', () => {
  test.each([
    ['kelvin', 5694, kelvin, '4500', 4500],
    ['tint', 0, { min: -150, max: 150, step: 1 }, '-20', -20],
    ['offset', 0, { min: -1, max: 1, step: 0.005 }, '-0.05', -0.05],
    ['power', 1, { min: 0.1, max: 4, step: 0.01 }, '0.85', 0.85],
  ])('letter by letter counts once, whole: %s', async (_, from, bounds, text, value) => {
    const { user, taken } = open(from, bounds);
    await user.clear(field());
    await user.type(field(), text);
    expect(taken).not.toHaveBeenCalled();
    await user.keyboard('{Enter}');
    expect(taken.mock.calls).toEqual([[value]]);
    expect(field().value).toBe(String(value));
  });

  test('counts when one leaves the field', async () => {
    const { user, taken } = open(5694, kelvin);
    await user.clear(field());
    await user.type(field(), '4500');
    await user.tab();
    expect(taken.mock.calls).toEqual([[4500]]);
  });

  test('that is out of range stays as typed and says the range, and changes nothing', async () => {
    const { user, taken } = open(5694, kelvin);
    await user.clear(field());
    await user.type(field(), '450{Enter}');
    expect(field().value).toBe('450');
    expect(screen.getByRole('alert').textContent).toBe('From 2,000 to 50,000');
    expect(field().getAttribute('aria-invalid')).toBe('true');
    await user.type(field(), '0');
    expect(screen.queryByRole('alert')).toBeNull();
    await user.tab();
    expect(taken.mock.calls).toEqual([[4500]]);
  });

  test('is taken back by Escape', async () => {
    const { user, taken } = open(5694, kelvin);
    await user.type(field(), '9{Escape}');
    expect(field().value).toBe('5694');
    await user.tab();
    expect(taken).not.toHaveBeenCalled();
  });
});

test('arrow keys step, from what is typed, and far with Shift', async () => {
  const { user, taken } = open(5000, kelvin);
  await user.type(field(), '{ArrowUp}');
  await user.keyboard('{Shift>}{ArrowDown}{/Shift}');
  await user.clear(field());
  await user.type(field(), '3000{ArrowUp}');
  expect(taken.mock.calls).toEqual([[5050], [4550], [3050]]);
});
