/** Ways through the application by keyboard: suggestions, one stop a board, back to where one was, and a whole job without a pointer. */
import { cubeOf } from '../demo/files';
import { awake, deliver } from './app';
import { expect, test, type Page } from './test';
import { seconds } from './patience';

let page: Page;
test.beforeEach(({ page: own }) => {
  page = own;
});

const press = async (...keys: string[]) => {
  for (const key of keys) await page.keyboard.press(key);
};
const focused = () => page.locator(':focus');

/** Goes on by Tab to what bears a name, as those do who have no pointer. */
async function tabTo(name: RegExp | string, most = 80): Promise<void> {
  for (let n = 0; n < most; n++) {
    await press('Tab');
    // past the last of the page, nothing of it has the focus for a moment
    const told = await page.evaluate(() => {
      const element = document.activeElement as HTMLInputElement | null;
      const labelled = element?.getAttribute('aria-label') ?? element?.labels?.[0]?.textContent;
      return (labelled ?? element?.textContent ?? '').trim();
    });
    if (typeof name === 'string' ? told === name : name.test(told)) return;
  }
  throw new Error(`Tab never came to ${String(name)}`);
}

test('from any screen, a letter suggests items; an arrow and Enter open one, Enter alone shows all', async () => {
  await page.goto('/stations');
  await awake(page);
  await press('/');
  await page.keyboard.type('amber pro');
  const suggested = page.getByRole('listbox', { name: 'Items found' }).getByRole('option');
  await expect(suggested.first()).toContainText('Amber Proscenium');
  await press('ArrowDown', 'Enter');
  await expect(page.getByRole('heading', { name: 'Amber Proscenium', level: 1 })).toBeVisible();
  await press('/');
  await page.keyboard.type('celadon');
  await expect(suggested.first()).toContainText('Celadon');
  await press('Enter');
  await expect(page).toHaveURL(/\/shelves\?q=celadon/);
  await expect(page.locator('[data-spine]').first()).toHaveAccessibleName(/Celadon/);
});

test('a board is one stop of Tab, arrows walk on it, and it is come back to where it was left', async () => {
  await page.goto('/shelves');
  await awake(page);
  const board = page.getByRole('region', { name: 'House looks', exact: true });
  await expect(board.locator('[data-spine][tabindex="0"]')).toHaveCount(1);
  await board.locator('[data-spine]').first().focus();
  await press('ArrowRight', 'ArrowRight');
  // other tests may have put the board in another order
  const third = (await board.locator('[data-spine]').nth(2).getAttribute('data-spine'))!;
  await expect(focused()).toHaveAttribute('data-spine', third);
  await press('Tab');
  await expect(focused()).not.toHaveAttribute('data-spine', /./);
  await press('Shift+Tab');
  await expect(focused()).toHaveAttribute('data-spine', third);
});

test('Back leads to the same place of a list, and to the link by which it was left', async () => {
  await page.goto('/shelves?kind=look');
  await awake(page);
  await page.evaluate(() => scrollTo(0, 400));
  const inView = await page.waitForFunction(() => {
    const spines = [...document.querySelectorAll<HTMLElement>('[data-spine]')];
    return spines.find((one) => one.getBoundingClientRect().top > 200 && scrollY === 400)?.dataset.spine;
  });
  const spine = page.locator(`[data-spine="${await inView.jsonValue()}"]`);
  await spine.focus();
  const before = await page.evaluate(() => scrollY);
  await press('Enter');
  await page.waitForURL('**/items/**');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.goBack();
  await expect(spine).toBeFocused();
  await expect.poll(async () => Math.abs((await page.evaluate(() => scrollY)) - before)).toBeLessThan(2);
  await page.goto('/stations');
  await awake(page);
  const station = page.getByRole('link', { name: 'Model room', exact: true });
  await station.focus();
  await press('Enter');
  await expect(page.getByRole('heading', { name: 'Model room', level: 1 })).toBeVisible();
  await page.goBack();
  await expect(station).toBeFocused();
});

test('the forms of a design are seen one by one, each for what it is meant, and compared', async () => {
  await page.goto('/shelves?q=plaster+dust');
  await page.locator('[data-spine]').first().click();
  const forms = page.getByRole('navigation', { name: 'Forms of this design' });
  await expect(forms.locator('[aria-current="page"]')).toContainText('Plain form');
  const shown = page.locator('canvas[data-shown]').first();
  await expect(shown).toBeVisible();
  const plain = await shown.getAttribute('data-shown');
  await forms.getByRole('link', { name: /for rendered files.*for rendered SDR/i }).click();
  await expect(page).toHaveURL(/form=/);
  await expect(forms.locator('[aria-current="page"]')).toContainText('for rendered files');
  await expect(shown).not.toHaveAttribute('data-shown', plain!);
  await forms.getByRole('link', { name: 'Compare with the plain form' }).click();
  await expect(page.getByText(/ΔE00/).first()).toBeVisible();
  await forms.getByRole('link', { name: 'All forms on the bench' }).click();
  await expect(page.getByRole('group', { name: 'The matrix' })).toBeVisible();
});

test('without a pointer: a delivery is taken in, approved and rolled out', async () => {
  test.setTimeout(seconds(120));
  const title = 'Thaw';
  const look = cubeOf({ title, headings: [], settings: { warmth: -27, contrast: 1.03 } }, 17);
  await page.goto(`/intake/${await deliver(page, `${title} set`, { [`${title} set/${title}.cube`]: look })}`);
  await expect(page.getByRole('button', { name: 'Accept 1 as proposed' })).toBeVisible({ timeout: seconds(30) });
  await awake(page);
  await tabTo('Accept 1 as proposed');
  await press('Enter');
  await page.waitForURL(/\/shelves/);
  await expect(page.getByRole('heading', { name: 'Shelves', level: 1 })).toBeVisible();
  await press('/');
  await page.keyboard.type(title.toLowerCase());
  const spine = page.locator('[data-spine]');
  await expect(spine).toHaveCount(1);
  await press('Enter');
  await expect(spine).toBeFocused();
  await press('Enter');
  await expect(page.getByRole('heading', { name: title, level: 1 })).toBeVisible();
  await tabTo('Confirm the encoding');
  await press('Enter');
  await tabTo(/^Confirm$|^Confirm the|^Save/);
  await press('Enter');
  await expect(page.getByText('confirmed', { exact: false }).first()).toBeVisible();
  await tabTo('Approve', 160);
  await press('Enter');
  await expect(page.getByRole('link', { name: 'Roll out' })).toBeVisible();
  await tabTo('Roll out', 160);
  await press('Enter');
  await page.waitForURL(/\/rollouts\/new/);
  await tabTo(/Model room/);
  await press('Space');
  await tabTo('Show every file');
  await press('Enter');
  await page.waitForURL(/\/rollouts\/[0-9a-f-]{36}/);
  const confirm = page.getByRole('button', { name: /^Confirm: write 1 file/ });
  await expect(confirm).toBeVisible({ timeout: seconds(20) });
  await tabTo(/^Confirm: write 1 file/, 160);
  await press('Enter');
  await expect(page.getByText('1 of 1 files reported')).toBeVisible({ timeout: seconds(30) });
});

test('headings on one long shelf are folded and unfolded, and the address says which', async () => {
  await page.goto('/shelves');
  await page.getByRole('link', { name: 'House looks', exact: true }).click();
  // counted on the shelf itself, not on the board from which it was opened
  await page.waitForURL(/[?&]shelf=/);
  await awake(page);
  const spines = page.locator('[data-spine]');
  await expect(spines.first()).toBeVisible();
  const all = await spines.count();
  const stage = page.getByRole('button', { name: /^House \/ Stage, \d+: fold$/ });
  const under = Number(/, (\d+):/.exec((await stage.getAttribute('aria-label'))!)![1]);
  await stage.click();
  await expect(spines).toHaveCount(all - under);
  await expect(page).toHaveURL(/folded=House/);
  await page.reload();
  await expect(spines).toHaveCount(all - under);
  await page.getByRole('button', { name: 'Unfold all' }).click();
  await expect(spines).toHaveCount(all);
});

test('a frame is put away: the bench offers it no more, until it is brought back', async () => {
  const name = 'ALD 0440, painted garden';
  const isOffered = async () => {
    await page.goto('/bench');
    await awake(page);
    await page.getByRole('button', { name: 'Frames', exact: true }).click();
    await expect(page.getByRole('menuitem', { name: /^OND 2231/ })).toBeVisible();
    return page.getByRole('menuitem', { name: new RegExp(`^${name}`) }).count();
  };
  await page.goto('/studio');
  await awake(page);
  await page.getByRole('button', { name: `Change ${name}` }).click();
  await page.getByLabel('What it shows').fill('leaves');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('region', { name: 'leaves' })).toContainText(name);
  await page.getByRole('button', { name: `Put ${name} away` }).click();
  await expect(page.getByRole('region', { name: 'Put away' })).toContainText(name);
  expect(await isOffered()).toBe(0);
  await page.goto('/studio');
  await awake(page);
  await page.getByRole('button', { name: `Bring ${name} back` }).click();
  await expect(page.getByRole('region', { name: 'leaves' })).toContainText(name);
  expect(await isOffered()).toBe(1);
});
