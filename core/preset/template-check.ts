/** What is wrong with a descriptor's empty preset before anything is written into it. */
import { Problem } from '../problem';
import { readSteps } from './container';
import { applyMapping } from './mapping';
import { settingTitle } from './settings';
import type { Language } from './write';

/** Why the empty preset cannot serve, as the end of a sentence that begins with it; null where it can, or there is none. */
export function faultOfTemplate({ container, form, template, mapping }: Language): string | null {
  if (template === undefined) return null;
  try {
    const { settings } = applyMapping(mapping, readSteps(container, new TextEncoder().encode(template), form));
    const said = Object.keys(settings).map(settingTitle);
    return said.length ? `is not empty: it says ${said.join(', ')}` : null;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return `cannot be read as ${container.toUpperCase()}: ${error.message.replace(/\.$/, '')} (${error.where})`;
  }
}
