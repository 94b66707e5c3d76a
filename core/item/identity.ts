/** Who made a file, what it is, and whose it is: as XMP, camera profiles, ICC profiles and JSON say it, and as an item bears it. */
import { itemFields } from './fields';

export interface Identity {
  description: string;
  creator: string;
  rights: string;
  /** how the creator is reached: an address of mail or of the web, a telephone */ contact: string;
  /** the address where the rights are told */ webStatement: string;
}

/**
 * The property of a creator's contact in which one stands (IPTC Photo Metadata Standard, Creator's Contact Info): by what it
 * looks like.
 */
export function contactProperty(contact: string): 'CiEmailWork' | 'CiUrlWork' | 'CiTelWork' | 'CiAdrExtadr' {
  if (/^\S+@\S+$/.test(contact)) return 'CiEmailWork';
  if (/^https?:\/\/\S+$/.test(contact)) return 'CiUrlWork';
  return /^[+\d][\d ()/.-]+$/.test(contact) ? 'CiTelWork' : 'CiAdrExtadr';
}

/** How the namespace of that standard ends, whoever is named before. */
export const CONTACT_NAMESPACE_END = '/Iptc4xmpCore/1.0/xmlns/';

/** The field of an item that bears each part, which says how long it may be. */
const fields = {
  description: itemFields.description,
  creator: itemFields.creator,
  rights: itemFields.rights,
  contact: itemFields.contact,
  webStatement: itemFields.web_statement,
} as const satisfies Record<keyof Identity, unknown>;
const parts = Object.keys(fields) as (keyof Identity)[];

/** As an item bears it. */
export const identityOfItem = (item: {
  description: string;
  creator: string;
  rights: string;
  contact: string;
  web_statement: string;
}): Partial<Identity> => identityIn({ ...item, webStatement: item.web_statement });

/** Of whatever a file says: texts alone, trimmed, without the empty ones, as long as an item can bear them. */
export function identityIn(said: Partial<Record<keyof Identity, unknown>>): Partial<Identity> {
  return Object.fromEntries(
    parts.flatMap((part) => {
      const value = said[part];
      const text = typeof value === 'string' ? value.trim().slice(0, fields[part].shape.most) : '';
      return text ? [[part, text]] : [];
    }),
  );
}
