/** Whether two values are the same in all their parts. The order of an object's keys says nothing, nor does a missing value beside null. */
import equal from 'fast-deep-equal';

export const same = (a: unknown, b: unknown): boolean => equal(a ?? null, b ?? null);
