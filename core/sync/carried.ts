/**
 * What is carried by hand between the server and a workstation that has no way to it: a ZIP with what the server would tell
 * the agent, signed by the server's key (Ed25519, RFC 8032), and a ZIP with what the agent would say, sealed with its token
 * (HMAC-SHA-256, RFC 2104). Contents lie in both as `contents/<SHA-256>`.
 */
import { unzipSync } from 'fflate';
import { array, number, object, string, type Schema } from 'yup';
import { uuid } from '../uuid';
import {
  operationResults,
  pictureFault,
  type FilesPart,
  type Instructions,
  type OperationResult,
  type Plan,
  type Report,
} from './protocol';

export const CARRIED_FORM = 1;

/** Names in the ZIPs. */
export const CARRIED = 'carried.json';
export const SIGNATURE = 'signature.txt';
export const ANSWER = 'answer.json';
export const SEAL = 'seal.txt';
export const PROGRAM = 'etagere-agent.mjs';
export const contentName = (sha256: string): string => `contents/${sha256}`;

/** Contents of one ZIP, unpacked, have at most so many bytes together. */
export const MOST_CARRIED = 256 * 2 ** 20;

/** A ZIP of either side may be as large as its contents, and what stands beside them. */
export const MOST_ZIP = MOST_CARRIED + 64 * 2 ** 20;

export type Members = Record<string, Uint8Array>;

/** The members of a ZIP of either side. Throws where it is none, or is cut off; what would be too large is left out. */
export function membersOf(zip: Uint8Array): Members {
  let room = MOST_ZIP;
  return unzipSync(zip, { filter: ({ originalSize }) => (room -= originalSize) >= 0 });
}

/** The server's side. */
export interface Carried {
  form: number;
  id: string;
  station: string;
  /** of the station */ name: string;
  /** ISO 8601, by the server's clock */ made: string;
  instructions: Instructions;
  /** what waits there; null where nothing does */ plan: Plan | null;
  /** where no agent has answered from there yet: this file enrols it, anew if need be */ enrolment?: CarriedEnrolment;
}
export interface CarriedEnrolment {
  server: string;
  system: string;
  token: string;
  /** the server's public key (SPKI in DER, base64) */ updateKey: string;
}

/** What the agent would have said, in its order. */
export type Saying =
  | { says: 'files'; part: FilesPart }
  | { says: 'report'; report: Report }
  | { says: 'content'; sha256: string; path: string }
  | { says: 'results'; plan: string; results: OperationResult[] }
  | { says: 'picture'; id: string; sha256: string }
  | { says: 'picture fault'; id: string; message: string };

/** The agent's side. */
export interface CarriedAnswer {
  form: number;
  /** which file it answers */ carried: string;
  station: string;
  /** the first answer to it is 1 */ number: number;
  said: Saying[];
}

/** What is signed: the words that stand before keep a signature of one kind from passing for another. */
export const carriedWords = (json: Uint8Array): Uint8Array => {
  const before = new TextEncoder().encode('etagere-carried\n');
  const all = new Uint8Array(before.length + json.length);
  all.set(before);
  all.set(json, before.length);
  return all;
};

const MOST_SAYINGS = 5000;

/** The answer without what is said, each saying of which is checked by its own schema. */
export const answerSchema = object({
  form: number().oneOf([CARRIED_FORM], 'The answer is of another form than this server reads.').required(),
  carried: uuid().required(),
  station: uuid().required(),
  number: number().integer().min(1).required(),
  said: array()
    .of(object({ says: string().required() }))
    .max(MOST_SAYINGS)
    .required(),
}).noUnknown();

const sha = () =>
  string()
    .matches(/^[0-9a-f]{64}$/, 'must be a SHA-256')
    .required();

/** What a saying has beside `says`; files and reports are looked through by the door that takes them, entry by entry. */
export const sayingSchemas = {
  files: null,
  report: null,
  content: object({ sha256: sha(), path: string().required().max(1000) }),
  results: object({ plan: uuid().required(), results: operationResults }),
  picture: object({ id: uuid().required(), sha256: sha() }),
  'picture fault': object({ id: uuid().required(), message: pictureFault }),
} as const satisfies Record<Saying['says'], Schema | null>;
