/** A licence as the screens of the studio have it. */
export interface Licence {
  id: string;
  name: string;
  owner: string;
  terms: string;
  may_convert: string;
  may_spread: string;
  seats: number | null;
  seats_by: string;
  ends_on: string | null;
  at_end: string;
  items: number;
}

/** What a licence says of a use, in words. */
export const says: Record<string, string> = { yes: 'yes', no: 'no', unknown: 'not known' };
