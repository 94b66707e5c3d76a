/** Identifiers: RFC 9562, of any version; we make those of version 7. */
import { string } from 'yup';

const pattern = '[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}';
const whole = new RegExp(`^${pattern}$`);
const anywhere = new RegExp(pattern, 'g');

declare const checked: unique symbol;
/** A text that was checked to be an identifier. */
export type Uuid = string & { readonly [checked]: true };

export const isUuid = (text: string | null | undefined): text is Uuid => typeof text === 'string' && whole.test(text);

/** All that a text holds. */
export const uuidsIn = (text: string): string[] => text.match(anywhere) ?? [];

/** Yup's own check knows no version 7. */
export const uuid = () => string().matches(whole, '${path} must be an identifier');
