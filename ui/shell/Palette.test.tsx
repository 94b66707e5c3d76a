import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { itemFound } from '../testing/item-found';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { router } from '../testing/setup';
import { asked, openTo, screens, tasks } from './model/screens';
import { PaletteKey } from './PaletteKey';

async function open(may: readonly string[] = asked) {
  serve({
    'GET /api/search?q=&most=8': { items: [itemFound('Lately')] },
    'GET /api/search?q=amber&most=8': { items: [itemFound('Amber Proscenium'), itemFound('Amber Wash')] },
    'GET /api/search?q=rollout&most=8': { items: [] },
    'GET /api/search?q=nowhere&most=8': { items: [] },
  });
  draw(<PaletteKey may={may} />);
  const user = userEvent.setup();
  await user.keyboard('{Control>}k{/Control}');
  // it is fetched first
  await screen.findByRole('dialog', { name: 'Go to' }, { timeout: 10_000 });
  const offered = () => screen.getAllByRole('option').map((option) => option.textContent);
  return { user, offered };
}

describe('the palette', () => {
  test('opens by its keys, with what one had lately, the screens and the tasks', async () => {
    const { offered } = await open();
    expect(await screen.findByText('Lately')).toBeTruthy();
    expect(offered()).toContain('Stations');
    expect(offered()).toContain('Plan a rollout');
  });

  test('suggests items for what is typed, and opens the one that is chosen by keys', async () => {
    const { user } = await open();
    await user.keyboard('amber');
    await screen.findByText('Amber Wash');
    await user.keyboard('{ArrowDown}{Enter}');
    expect(router.push).toHaveBeenCalledWith('/items/Amber Wash');
    expect(screen.queryByRole('dialog')).toBeNull();
  });

  test('goes to screens and tasks by a part of their names, and says where nothing is called so', async () => {
    const { user, offered } = await open();
    await user.keyboard('rollout');
    await expect.poll(offered).toEqual(['Rollouts', 'Plan a rollout']);
    await user.clear(screen.getByRole('combobox'));
    await user.keyboard('nowhere');
    expect(await screen.findByText('Nothing has this name.')).toBeTruthy();
  });

  test('offers nothing that the role cannot use', async () => {
    const { offered } = await open([]);
    await screen.findByText('Lately');
    expect(offered()).not.toContain('Intake');
    expect(offered()).not.toContain('Plan a rollout');
    expect(offered()).toContain('Bench');
  });
});

test('screens and tasks lead to different places and bear different names', () => {
  const all = [...screens.flat(), ...tasks];
  expect(new Set(all.map(({ name }) => name)).size).toBe(all.length);
  expect(all.filter(openTo(asked))).toHaveLength(all.length);
});
