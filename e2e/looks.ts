/** Looks of a test's own: made, and approved by the endpoints that the screens use. */
import { expect, type Page } from '@playwright/test';
import { origin, takeIn } from './app';

/** A look that does something of its own: red raised to a power. */
export function redRaised(title: string, power: number): string {
  const steps = [0, 0.25, 0.5, 0.75, 1];
  const rows = steps.flatMap((b) => steps.flatMap((g) => steps.map((r) => `${(r ** power).toFixed(6)} ${g} ${b}`)));
  return [`TITLE "${title}"`, 'LUT_3D_SIZE 5', ...rows, ''].join('\n');
}

interface Row {
  id: string;
  versionId: string;
}

/** The item of a title. */
export async function itemNamed(page: Page, title: string): Promise<Row> {
  const answer = await page.request.get(`/api/items?q=${encodeURIComponent(title)}&limit=1`);
  const { rows } = (await answer.json()) as { rows: Row[] };
  return rows[0]!;
}

/** Has an item approved by a word; a look by its encoding, too. */
export async function approve(page: Page, title: string, kind: 'look' | 'preset' = 'look'): Promise<void> {
  const { versionId } = await itemNamed(page, title);
  const say = async (verb: string, data: object): Promise<void> => {
    const done = await page.request.post(`/api/versions/${versionId}/${verb}`, { data, headers: origin() });
    expect(done.status(), await done.text()).toBe(200);
  };
  if (kind === 'look')
    await say('encoding', { primaries: 'sRGB', transfer: 'sRGB', range: 'full', referred: 'display', white: 'D65' });
  await say('approve', {});
}

/**
 * A look of a test's own on a shelf of its own, approved. Its power is far from that of any other test: what does nearly the
 * same is taken for a copy.
 */
export async function ownLook(page: Page, title: string, shelf: string, power: number): Promise<void> {
  const text = redRaised(title, power);
  await takeIn(page, shelf, { [`${title}.cube`]: text }, { shelf });
  await approve(page, title);
}
