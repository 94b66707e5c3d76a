/** The table that changes nothing. */
import { fromRows, type Look } from './look';

/** @param size points an axis */
export const identityOf = (size: number, title = 'Identity'): Look => fromRows(size, title, () => {});
