/** What axe finds in a page: the faults that keep people from reading or using it. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

interface Asked {
  /** Only in what answers to this selector, such as a dialog. */ within?: string;
  /** Only by these rules; all of them otherwise. */ rules?: string[];
}

/** Each fault as its rule and what it was found at; none where the page is sound. */
export async function faultsOf(page: Page, { within, rules }: Asked = {}): Promise<string[]> {
  const axe = new AxeBuilder({ page })
    // pages have no frames: axe need not put what it found together in a window of its own, which takes a second each time
    .setLegacyMode()
    // what passes is not told in full: it is most of the work
    .options({ resultTypes: ['violations'] });
  if (within) axe.include(within);
  if (rules) axe.withRules(rules);
  const { violations } = await axe.analyze();
  return violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
}
