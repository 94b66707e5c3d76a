/** Where an arrival goes, from whom it is, and under which licence, as it is typed and as it is sent. */
import type { BodyOf } from '@/core/api';
import { filledSource, type SourcePart } from '@/core/item/fields';

/** What a licence says of a use. */
export type Allows = 'yes' | 'no' | 'unknown';

export interface AcceptForm {
  /** a shelf, or "new" */ shelf: string;
  newShelf: string;
  /** where items of a kind go instead; '' with the rest */ byKind: Record<string, string>;
  supplier: string;
  release: string;
  /** a licence, "new", or '' for none */ licence: string;
  newLicence: { name: string; may_convert: Allows; may_spread: Allows };
  origin: string;
  source: Partial<Record<SourcePart, string>>;
}

export type Acceptance = BodyOf<'POST /api/arrivals/:id'>;

export const NEW = 'new';

/** Whether all that is asked for is there. */
export const isComplete = (form: AcceptForm): boolean =>
  (form.shelf !== NEW || form.newShelf.trim() !== '') && (form.licence !== NEW || form.newLicence.name.trim() !== '');

const filled = (fields: Record<string, string>, but = ''): Record<string, string> =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value.trim() && value !== but));

export function acceptanceOf(form: AcceptForm): Acceptance {
  const { shelf, licence, newLicence, supplier, release } = form;
  return {
    ...(shelf === NEW ? { newShelf: form.newShelf.trim() } : { shelfId: shelf }),
    byKind: filled(form.byKind, shelf),
    supplier,
    release,
    licenceId: licence && licence !== NEW ? licence : null,
    ...(licence === NEW ? { newLicence: { ...newLicence, name: newLicence.name.trim() } } : {}),
    ...(form.origin ? { origin: form.origin as Acceptance['origin'] } : {}),
    source: filledSource(form.source),
  };
}
