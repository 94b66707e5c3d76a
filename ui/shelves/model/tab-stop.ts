import type { Spine } from './spine';

/**
 * The spine that Tab comes to among those that stand together: the one looked at last, or the first. A board with fifty
 * spines is one stop on the way through the page; arrows lead on within it.
 */
export const tabStop = (standing: readonly (Spine | undefined)[], current: Spine | undefined): Spine | undefined =>
  standing.find((spine) => spine && spine.id === current?.id) ?? standing.find((spine) => spine !== undefined);
