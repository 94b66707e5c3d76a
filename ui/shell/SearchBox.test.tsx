import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, test } from 'vitest';
import { must } from '@/core/must';
import { itemFound } from '../testing/item-found';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { router } from '../testing/setup';
import { SearchBox } from './SearchBox';

beforeEach(() => {
  history.replaceState(null, '', '/stations');
  serve({
    'GET /api/search?q=a&most=8': { items: [itemFound('Amber Wash'), itemFound('Ash')] },
    'GET /api/search?q=as&most=8': { items: [itemFound('Ash')] },
    'GET /api/search?q=ax&most=8': { items: [] },
  });
  draw(<SearchBox />);
});

const box = () => screen.getByRole('combobox', { name: 'Find items' });

test('away from the shelves, items are suggested for a letter, and an arrow and Enter open one', async () => {
  const user = userEvent.setup();
  await user.keyboard('/a');
  expect((await screen.findAllByRole('option')).map((option) => option.textContent)).toEqual([
    'Amber WashLook, House looks',
    'AshLook, House looks',
  ]);
  expect(box().getAttribute('aria-activedescendant')).toBeNull();
  await user.keyboard('{ArrowDown}{ArrowDown}');
  expect(document.getElementById(must(box().getAttribute('aria-activedescendant')))?.textContent).toMatch(/^Ash/);
  await user.keyboard('{Enter}');
  expect(router.push).toHaveBeenCalledWith('/items/Ash');
  expect(screen.queryByRole('listbox')).toBeNull();
});

test('Enter alone shows all that answers, and arrows lead round to that again', async () => {
  const user = userEvent.setup();
  await user.keyboard('/a');
  await screen.findAllByRole('option');
  await user.keyboard('{ArrowUp}{ArrowDown}{Enter}');
  expect(router.push).toHaveBeenCalledWith('/shelves?q=a');
});

test('an arrow that pointed at what is not found any more opens nothing', async () => {
  const user = userEvent.setup();
  await user.keyboard('/a');
  await screen.findAllByRole('option');
  await user.keyboard('{ArrowDown}s');
  expect(box().getAttribute('aria-activedescendant')).toBeNull();
  await user.keyboard('{Backspace}x');
  expect(await screen.findByText('Nothing matches “ax”.')).toBeTruthy();
  await user.keyboard('{Escape}');
  expect(screen.queryByRole('listbox')).toBeNull();
  expect(box()).toHaveProperty('value', 'ax');
});
