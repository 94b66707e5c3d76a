import { fireEvent, render, screen } from '@testing-library/react';
import { useState, type ComponentType } from 'react';
import { describe, expect, it } from 'vitest';
import { fetchedWhenShown } from './fetched';

describe('a part of a screen that is fetched when it is shown', () => {
  it('lets what shows it change at once, and comes when its code is there', async () => {
    let arrive: (part: ComponentType<{ name: string }>) => void = () => {};
    const Bar = fetchedWhenShown<{ name: string }>(
      () =>
        new Promise((resolve) => {
          arrive = resolve;
        }),
    );
    function Screen() {
      const [chosen, setChosen] = useState(false);
      return (
        <>
          <input type="checkbox" checked={chosen} onChange={() => setChosen(!chosen)} />
          {chosen && <Bar name="one chosen" />}
        </>
      );
    }
    render(<Screen />);
    fireEvent.click(screen.getByRole('checkbox'));
    expect(screen.getByRole<HTMLInputElement>('checkbox').checked).toBe(true);
    expect(screen.queryByText('one chosen')).toBeNull();
    arrive(({ name }) => <p>{name}</p>);
    expect(await screen.findByText('one chosen')).toBeTruthy();
  });
});
