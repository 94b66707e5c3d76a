/** What agent and server say to one another: shapes and their checks, with limits. Paths are relative to the station's root, with "/". */
import { array, boolean, number, object, string } from 'yup';
import { uuid } from '../uuid';

export const PROTOCOL = 1;
/** What the agent that comes with this server calls itself. */
export const AGENT_VERSION = '0.6.0';

function isSince(agentVersion: string | null, since: number): boolean {
  const [, major, minor = 0] = /^(\d+)(?:\.(\d+))?/.exec(agentVersion ?? '') ?? [];
  return Number(major) > 0 || Number(minor) >= since;
}

/** Agents before 0.2 know of files alone: an entry of a bundle would become a folder and a file there. */
export const knowsBundles = (agentVersion: string | null): boolean => isSince(agentVersion, 2);

/** Agents before 0.3 tell the text of an index that is a file, and of none that is an entry of a bundle. */
export const readsEntries = (agentVersion: string | null): boolean => isSince(agentVersion, 3);

/** Agents before 0.4 do not ask editors for pictures. */
export const asksForPictures = (agentVersion: string | null): boolean => isSince(agentVersion, 4);

/** Agents before 0.6 show nothing in the file manager, and carry nothing out that was brought by hand. */
export const showsPaths = (agentVersion: string | null): boolean => isSince(agentVersion, 6);

const sha = () => string().matches(/^[0-9a-f]{64}$/, 'must be a SHA-256');
const path = () =>
  string()
    .required()
    .max(1000)
    .test('inside', 'must stay inside its root', (p) => isInside(p ?? ''));

/** Is a relative path free of steps outwards, absolute beginnings, back slashes and control characters? */
export function isInside(path: string): boolean {
  return (
    path.length > 0 &&
    !path.startsWith('/') &&
    !/^[a-zA-Z]:/.test(path) &&
    !/[\\\u0000-\u001f]/.test(path) &&
    !path.split('/').some((s) => s === '..' || s === '.' || s === '')
  );
}

export interface Place {
  id: string;
  /** of a folder, or of a list in a bundle: `file#list` */ path: string;
  /** The editor that writes its bundle anew when it quits, and its list, which tells whether it runs: nothing is written meanwhile. */
  quitFirst?: { title: string; listing: string };
}
/** What the agent is to watch: folders and lists of bundles, and the editors' own listing files. */
export interface Instructions {
  protocol: number;
  station: string;
  places: Place[];
  listings: { editor: string; path: string }[];
  /** editors' own indexes and short lists, files or entries of bundles, which may be written too */ indexes: string[];
  /** files whose contents the server asks for, since a person takes in what lies at the station */ wanted: {
    path: string;
    sha256: string;
    size: number;
  }[];
  /** where editors are asked for pictures, and which; an agent of before 0.4 passes it over */ pictures?: PicturesAsked[];
  /** editors of which it is to tell whether they are there; an agent of before 0.6 passes it over */ lookedFor?: LookedFor[];
  /** a path that somebody wants to see in the file manager there; an agent of before 0.6 passes it over */ show?: {
    id: string;
    path: string;
  };
  /** the agent's program as the server has it; an agent of before 0.5 passes it over */ program?: ShippedProgram;
  everySeconds: number;
}

/** An editor is there where the list lies that it writes of itself. */
export interface LookedFor {
  /** "editor@version" */ editor: string;
  path: string;
}

/** The agent's program, with the signature of the server by whose key an agent takes programs. */
export interface ShippedProgram {
  version: string;
  sha256: string;
  size: number;
  /** Ed25519 (RFC 8032) of `signedWords`, in base64 */ signature: string;
}
export const signedWords = ({ version, sha256 }: Pick<ShippedProgram, 'version' | 'sha256'>): string =>
  `etagere-agent ${version} ${sha256}\n`;

/** Pictures that an editor is asked for: it finds each in its folder with a text beside it, and answers there. */
export interface PicturesAsked {
  folder: string;
  /** of the names of what is asked and answered, behind the id */
  endings: { picture: string; ask: string; result: string; fault: string };
  asked: { id: string; /** of the picture that it opens */ sha256: string; size: number; text: string }[];
}

export interface InventoryFile {
  path: string;
  size: number;
  sha256: string;
}
export interface ListingReport {
  editor: string;
  text: string | null;
  running: boolean;
  at: string | null;
}
/** An editor's own list of what it has found. */
export interface Listing {
  at: string;
  running: boolean;
  /** where an editor tells it, of what a thing holds: it may keep things elsewhere than where they were put */
  listed: { path: string; title: string; kind: string; sha256?: string }[];
  refused: { path: string; reason: string }[];
}
export interface Report {
  agentVersion: string;
  files: InventoryFile[] | null;
  digest: string;
  /** so many parts of the files were sent ahead (`FilesPart`), and `files` is null */ parts?: number;
  listings: ListingReport[];
  indexes: { path: string; text: string }[];
  waiting: string | null;
  /** drawn by the agent when it starts, and the machine's name; agents of old tell neither */ run?: string;
  host?: string;
  /** why it could not take the server's program, in words */ updateFault?: string;
  /** of the editors that it is to look for, those that are there; agents before 0.6 do not look */ found?: string[];
}

/** Files are sent so many at a time: no body is large, whatever lies at a station. */
export const PART_FILES = 5_000;
/** More files than this are not kept of one station. */
export const MOST_FILES = 200_000;
/** More parts than are kept, so that what is left out of them can be told. */
export const MOST_PARTS = 100;

/** A part of the files of a report that follows. A part may be sent again, and parts come in any order. */
export interface FilesPart {
  /** of all files, as the report will say it */ digest: string;
  /** from 0 on */ part: number;
  files: InventoryFile[];
}

export interface ReportAnswer {
  /** the whole inventory is asked for */ need: 'files' | null;
  /** the plan that is under way is not ours: it is to be left as it is, and forgotten */ drop?: true;
}

export interface Operation {
  n: number;
  do: 'put' | 'remove';
  place: string;
  path: string;
  sha256: string | null;
  size: number;
  expect: string | null;
}
export interface Plan {
  id: string;
  operations: Operation[];
}
export type Outcome = 'done' | 'conflict' | 'failed';
/** `at` is the agent's clock, to compare with what editors at that station write. */
export interface OperationResult {
  n: number;
  outcome: Outcome;
  message: string;
  before: string | null;
  at: string;
}

const files = () =>
  array().of(
    object({ path: path(), size: number().integer().min(0).required(), sha256: sha().required() }).noUnknown(),
  );

export const filesPartSchema = object({
  digest: sha().required(),
  part: number()
    .integer()
    .min(0)
    .max(MOST_PARTS - 1)
    .required(),
  files: files().max(PART_FILES).required(),
}).noUnknown();

export const reportSchema = object({
  agentVersion: string().required().max(40),
  files: files().max(MOST_FILES).nullable().defined(),
  digest: sha().required(),
  parts: number().integer().min(1).max(MOST_PARTS),
  listings: array()
    .of(
      object({
        editor: string().required().max(60),
        text: string().max(2_000_000).nullable().defined(),
        running: boolean().required(),
        at: string().max(40).nullable().defined(),
      }).noUnknown(),
    )
    .max(50)
    .required(),
  indexes: array()
    .of(object({ path: path(), text: string().max(500_000).defined() }).noUnknown())
    .max(50)
    .required(),
  waiting: uuid().nullable().defined(),
  run: uuid(),
  host: string().max(200),
  updateFault: string().max(400),
  found: array().of(string().required().max(120)).max(200),
}).noUnknown();

/** A content that an agent sends may have at most this many bytes. */
export const MOST_CONTENT = 256 * 2 ** 20;

/** A picture that an editor made may have at most this many bytes. */
export const MOST_PICTURE = 32 * 2 ** 20;

/** Why a path could not be shown in the file manager; "" where it was. */
export const shownSchema = object({ fault: string().max(500).defined() }).noUnknown();

/** Why an editor made no picture. */
export const pictureFault = string().required().max(500);
export const pictureFaultSchema = object({ message: pictureFault }).noUnknown();

export const enrolSchema = object({
  code: string().required().max(80),
  system: string().oneOf(['macos', 'windows', 'linux']).required(),
  host: string().required().max(200),
  agentVersion: string().required().max(40),
}).noUnknown();

export const operationResults = array()
  .of(
    object({
      n: number().integer().min(0).required(),
      outcome: string()
        .oneOf(['done', 'conflict', 'failed'] as const)
        .required(),
      message: string().max(500).defined(),
      before: sha().nullable().defined(),
      at: string()
        .required()
        .max(40)
        .matches(/^\d{4}-\d\d-\d\dT/),
    }).noUnknown(),
  )
  .max(50000)
  .required();
export const resultSchema = object({ results: operationResults }).noUnknown();

export const planSchema = object({
  id: uuid().required(),
  operations: array()
    .of(
      object({
        n: number().integer().min(0).required(),
        do: string().oneOf(['put', 'remove']).required(),
        place: string().required(),
        path: path(),
        sha256: sha().nullable().defined(),
        size: number().integer().min(0).required(),
        expect: sha().nullable().defined(),
      }).noUnknown(),
    )
    .max(50000)
    .required(),
}).noUnknown();
