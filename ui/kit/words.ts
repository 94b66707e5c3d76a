/** Numbers with their nouns. */
export { counted, nounFor } from '@/core/words';

/** With commas; the browser's own formatting takes tens of milliseconds to wake. */
export const thousands = (value: number): string => String(Math.round(value)).replace(/\B(?=(\d{3})+$)/g, ',');
