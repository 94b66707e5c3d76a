/**
 * Properties of a screen, sent to it as one text.
 *
 * What a page hands to a screen is walked value by value three times: to be written into the answer, to be read for the
 * first painting at the server, and to be read in the browser. A text is one value, and reading it is the engine's own work.
 */
export type Packed<T> = string & { readonly packed?: T };

/** For values that JSON can carry: no dates, no maps, nothing undefined that means something. */
export const pack = <T>(value: T): Packed<T> => JSON.stringify(value);

export const unpack = <T>(packed: Packed<T>): T => JSON.parse(packed) as T;
