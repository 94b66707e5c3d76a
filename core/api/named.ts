/** What a person calls a thing, and a note on it: a shelf, a bench, a set of frames. */
import { object, string, type InferType } from 'yup';

/** @param needed what is said where it is missing */
export const nameField = (needed: string) => string().trim().required(needed).max(120, 'A name has at most 120 signs.');
export const noteField = () => string().max(300, 'A note has at most 300 signs.').default('');

export const named = object({ name: nameField('A name is needed.'), note: noteField() }).noUnknown();
export type Named = InferType<typeof named>;
