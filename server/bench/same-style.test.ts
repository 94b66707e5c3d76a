/** The same style from other sources: by name and by effect, and never by the last word of a title. */
import { beforeAll, expect, test } from 'vitest';
import type { Settings } from '@/core/preset/kinds';
import { cubeOf } from '@/demo/files';
import { people, withDatabase } from '../db/testing/database';
import { itemOf } from '../items/testing/item-of';
import { addShelf } from '../shelves/service';
import { moreCandidates } from './service';

withDatabase();
let shelf = '';
beforeAll(async () => {
  shelf = await addShelf(people.librarian, { name: 'Test' });
});
const look = (title: string, supplier: string, settings: Settings) =>
  itemOf(cubeOf({ title, headings: [], settings }, 9), `${title}.cube`, { title, supplier, shelfId: shelf });
const like = async (itemId: string) =>
  (await moreCandidates(people.retoucher, { like: itemId })).map(({ title, supplier }) => `${title}, ${supplier}`);

test('comes from other suppliers: what bears the name first, then what does nearly the same', async () => {
  const own = await look('Amber Dusk', 'Fathom Color', { warmth: 30, contrast: 1.1 });
  await look('Late Sun', 'Sable Row', { warmth: 32, contrast: 1.12 });
  await look('Sundown', 'Quarry', { warmth: 38, contrast: 1.12 });
  await look('Amber dusk', 'Sable Row', { chroma: 0.2, contrast: 1.4 });
  await look('Amber Noon', 'Fathom Color', { warmth: 30, contrast: 1.1 });
  await look('Blue Dusk', 'Sable Row', { warmth: -60, contrast: 1.4 });
  expect(await like(own.itemId)).toEqual(['Amber dusk, Sable Row', 'Late Sun, Sable Row', 'Sundown, Quarry']);
});
