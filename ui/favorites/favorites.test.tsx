import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { PlanLists } from '../editor-lists/PlanLists';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { FavoritesList, type Favorite } from './FavoritesList';
import { RibbonsForTheirs } from './RibbonsForTheirs';

const entry = (title: string, mark: Favorite['mark'], more: Partial<Favorite> = {}): Favorite => ({
  title,
  mark,
  item: null,
  isThere: true,
  whose: null,
  ...more,
});

test('a list says of each entry how it came to be there, and of a long one how many more there are', () => {
  const own = [
    entry('Slate', 'both', { whose: 'Mirre Sand', item: 'i' }),
    entry('Gypsum', 'ours', { whose: '' }),
    entry('Kept.cube', 'theirs', { isThere: false }),
    entry('Old', 'removed'),
    entry('Scrim', 'taken-off', { whose: '' }),
  ];
  const { unmount } = draw(<FavoritesList label="Favorites" entries={own} />);
  expect(screen.getAllByRole('listitem').map((one) => one.textContent?.trim())).toEqual([
    '1 Slate ribbon of Mirre Sand',
    '2 Gypsum comes',
    '3 Kept.cube their own, not there any more',
    'Old goes',
    'Scrim taken off there',
  ]);
  expect(screen.getByRole('link', { name: 'Slate' }).getAttribute('href')).toBe('/items/i');
  unmount();
  draw(<FavoritesList label="Favorites" entries={Array.from({ length: 30 }, (_, n) => entry(`L ${n}`, 'both'))} />);
  expect(screen.getByText('and 6 more')).toBeDefined();
});

test('what they chose gets ribbons of the house or one’s own, as one may', async () => {
  const user = userEvent.setup();
  const place = { station: 's', editor: 'oxbow', version: '2' };
  const asked = serve({ 'POST /api/favorites/ribbons': { set: 1 } });
  draw(
    <RibbonsForTheirs
      place={place}
      where="Model room, Oxbow 2"
      titles={['Scrim']}
      may={{ house: false, mine: true }}
    />,
  );
  await user.click(screen.getByRole('button', { name: 'Ribbons for their own at Model room, Oxbow 2' }));
  const dialog = within(await screen.findByRole('dialog'));
  expect(dialog.queryByRole('button', { name: 'Ribbons of the house' })).toBeNull();
  await user.click(dialog.getByRole('button', { name: 'My ribbons' }));
  expect(asked[0]?.body).toEqual({ ...place, whose: 'mine' });
  expect(screen.queryByRole('dialog')).toBeNull();
});

test('a plan that the server refuses says why', async () => {
  const user = userEvent.setup();
  const problem = { code: 'favorites-nothing', message: 'None is to be written.', where: 'f', remedy: 'Reload.' };
  serve({ 'POST /api/favorites/plan': () => refusal(problem) });
  draw(<PlanLists what="favorites" places={[{ station: 's', editor: 'oxbow', version: '2' }]} words="Bring in step" />);
  await user.click(screen.getByRole('button', { name: 'Bring in step' }));
  expect(await screen.findByText(/None is to be written/)).toBeDefined();
});
