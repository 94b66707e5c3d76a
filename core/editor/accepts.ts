/**
 * What an editor takes, as its descriptor says it: which kinds, in which form, into which place, on what conditions. Checked
 * by itself, and against the places.
 */
import { array, boolean, mixed, number, object, string } from 'yup';
import { iccClasses, type IccClass } from '../icc/header';
import type { TableEncoding } from '../look/resample';
import type { Problem } from '../problem';
import { acceptedKinds, type AcceptedKind } from './accepted-kinds';
import { allowedSigns } from './allowed-signs';
import { isProgram } from './own-folder';
import { paths, type System } from './place-schema';
import { scopeConditions, type ScopeCondition } from './scope-conditions';

/** Points an axis that a table may have. */
export interface SizeRule {
  exact?: number;
  min?: number;
  max?: number;
  prefer?: number;
}
/** A Hald image has level² points an axis: its `size` is one exact square. */
export interface TableWriter {
  codec: 'cube' | 'clf' | 'hald';
  size: SizeRule;
  encoding: TableEncoding;
}
export interface Member {
  name: string;
  json?: Record<string, unknown>;
  table?: TableWriter;
}
/** An entry of a bundle: a stored preset in JSON as it is, or a template that may hold a table as base64. */
export type EntryWriter = { asIs: true } | { asIs?: undefined; json: Record<string, unknown>; table?: TableWriter };
/** How a version becomes a file, or an entry of a bundle: exactly one of these. */
export interface Writer {
  asIs?: boolean;
  table?: TableWriter;
  archive?: { format: 'zip'; members: Member[] };
  entry?: EntryWriter;
}

/** What a file must say before it is taken. */
export interface Conditions {
  /** It names the camera that it is for. */ camera?: true;
  /** Of ICC profiles: which classes (ICC.1, 7.2.5) it may be of. */ classes?: IccClass[];
}

export interface Accepts {
  kind: AcceptedKind;
  /** For presets: of which editor version the language is, "id@version"; only these are written, as they are. */
  language?: string;
  /** Of files that are taken as they are, such as "dcp"; without, whatever the item is held in. */ formats?: string[];
  meets?: Conditions;
  place: string;
  /** "" for entries of a bundle, which are no files */ extension: string;
  writer: Writer;
  /** Conditions of an item's scope by which it leaves these out for a photo, where not all kinds are treated alike. */
  honours?: ScopeCondition[];
  /** Whether headings become folders or stand in the file; "camera": the one folder is the body that it is for. */
  headings: 'folder' | 'inside' | 'none' | 'camera';
  /** A photo that was open when it came shows it only when that is opened again. */ sees?: 'reopen';
  /**
   * The place is a hand-off folder: nothing in it is listed before a person has the editor take it in, by these steps. The
   * editor keeps what it took in wherever it likes, and lists it by its title.
   */
  import?: string[];
  names?: { max?: number; allowed?: string };
  most?: number;
  /** A file beside the place that names what the editor loads, one file name a line; without a line there, a file is not loaded. */
  index?: { format: 'lines'; path: Partial<Record<System, string>> };
}

const size = object({
  exact: number().integer().min(2).max(256),
  min: number().integer().min(2).max(256),
  max: number().integer().min(2).max(256),
  prefer: number().integer().min(2).max(256),
})
  .noUnknown()
  .required();
/** Beyond so many stops, light is too small or too large a number to be told from none. */
const MOST_STOPS = 30;

function isLogRange(log: unknown): boolean {
  const { below, above } = (log ?? {}) as Record<string, unknown>;
  if (typeof below !== 'number' || typeof above !== 'number') return false;
  return below >= -MOST_STOPS && above <= MOST_STOPS && below < above;
}

const encoding = object({
  primaries: string().oneOf(['srgb', 'rec2020', 'p3', 'prophoto']).required(),
  transfer: mixed()
    .required()
    .test(
      'transfer',
      '${path} must be "srgb", "linear" or a log range of at most 30 stops about middle gray on each side',
      (transfer) =>
        transfer === 'srgb' || transfer === 'linear' || isLogRange((transfer as { log?: unknown } | null)?.log),
    ),
})
  .noUnknown()
  .required();
const table = object({ codec: string().oneOf(['cube', 'clf', 'hald']).required(), size, encoding })
  .noUnknown()
  .default(undefined)
  .test(
    'hald',
    '${path} is a Hald image, whose size is exactly the square of a whole number',
    (one) => one?.codec !== 'hald' || Number.isInteger(Math.sqrt(one.size.exact ?? Number.NaN)),
  );
const entryWriter = object({ asIs: mixed<boolean>().oneOf([true, undefined]), json: mixed<object>(), table })
  .noUnknown()
  .default(undefined)
  .test(
    'one',
    '${path} must say one of asIs and json, and a table only beside json',
    (entry) => !entry || (entry.asIs ? !entry.json && !entry.table : typeof entry.json === 'object'),
  );
function faultOfSigns(signs: string): string | null {
  try {
    allowedSigns(signs);
    return null;
  } catch (error) {
    return (error as Problem).message.replace(/\.$/, '');
  }
}

/** Which files a thing can be: taken as they are, they are told by their formats or language. A writer that is missing is told by itself. */
function faultOfReach({ kind, formats, language, meets, writer, headings }: Partial<Accepts>): string | null {
  const isMade = kind === 'look' || kind === 'preset';
  const isAsIs = writer ? writer.asIs : true;
  if (kind === 'preset' && formats) return 'is told by its language, and has no formats';
  if (kind !== 'preset' && language) return 'has a language, which only presets have';
  if (!isMade && !formats) return 'must name the formats of the files that are taken';
  if (!isMade && !isAsIs) return 'is written as it is: give it the writer { "asIs": true }';
  if (formats && !isAsIs) return 'names formats, which only files have that are taken as they are';
  if (meets?.classes && !formats?.includes('icc')) return 'names classes, which only files of the format icc have';
  if (headings === 'camera' && !meets?.camera)
    return 'goes into a folder of its camera, and must name one: add { "meets": { "camera": true } }';
  return null;
}

const conditions = object({
  camera: boolean().oneOf([true, undefined]),
  classes: array()
    .of(
      string()
        .oneOf([...iccClasses])
        .required(),
    )
    .min(1),
})
  .noUnknown()
  .default(undefined);

/** What a descriptor says of one kind of thing, but for what only its places tell. */
export const acceptsSchema = object({
  kind: string()
    .oneOf([...acceptedKinds])
    .required(),
  language: string().matches(/^[a-z0-9-]+@[0-9.]+$/),
  formats: array()
    .of(
      string()
        .required()
        .matches(/^[a-z0-9-]{1,40}$/, 'must be the name of a format, such as dcp'),
    )
    .min(1),
  meets: conditions,
  place: string().required(),
  extension: string()
    .defined()
    .matches(/^(\.[a-z0-9]{1,12})?$/i, 'must be an extension such as .cube')
    .test('program', '${path} must not be that of a program', (extension) => !extension || !isProgram(extension)),
  writer: object({
    asIs: mixed<boolean>().oneOf([true, undefined]),
    table,
    archive: object({
      format: string().oneOf(['zip']).required(),
      members: array()
        .of(
          object({
            name: string()
              .required()
              .matches(/^[\w.-]+$/),
            json: mixed(),
            table,
          }).noUnknown(),
        )
        .min(1)
        .required(),
    }).default(undefined),
    entry: entryWriter,
  })
    .noUnknown()
    .required()
    .test(
      'one',
      'must say exactly one of asIs, table, archive and entry',
      (w) => [w?.asIs, w?.table, w?.archive, w?.entry].filter(Boolean).length === 1,
    ),
  headings: string().oneOf(['folder', 'inside', 'none', 'camera']).required(),
  honours: array().of(
    string()
      .oneOf([...scopeConditions])
      .required(),
  ),
  sees: string().oneOf(['reopen']),
  import: array().of(string().trim().required().max(300)).min(1).max(10),
  names: object({
    max: number().integer().min(5).max(255),
    allowed: string()
      .max(200)
      .test(
        'signs',
        ({ value }) => faultOfSigns(String(value)) ?? '',
        (signs) => signs === undefined || faultOfSigns(signs) === null,
      ),
  })
    .noUnknown()
    .default(undefined),
  most: number().integer().min(1),
  index: object({ format: string().oneOf(['lines']).required(), path: paths })
    .noUnknown()
    .default(undefined),
})
  .noUnknown()
  .test(
    'reach',
    ({ path, value }) => `${path} ${faultOfReach(value as Accepts)}`,
    (one) => faultOfReach(one as Accepts) === null,
  )
  .required();

type Places = Record<string, Partial<Record<System, string>>>;

/** What is wrong with where a thing goes and what it is written as. */
export function faultOfAccepts(places: Places, accepts: Accepts): { message: string; remedy: string } | null {
  const { place, writer, extension, headings, index } = accepts;
  const templates = Object.values(places[place] ?? {});
  if (!places[place])
    return {
      message: `Accepts names the place "${place}", which is not among the places.`,
      remedy: 'Add the place, or correct the name.',
    };
  const lists = templates.filter((template) => template?.includes('#')).length;
  if (lists !== 0 && lists !== templates.length)
    return {
      message: `The place "${place}" is a list in a bundle on one system, and a folder on another.`,
      remedy: 'Give it two places, one a form.',
    };
  if (lists && (!writer.entry || extension || !['inside', 'none'].includes(headings) || index))
    return {
      message: `The place "${place}" is a list in a bundle, whose entries have no extension, folders or index.`,
      remedy: 'Give it the writer "entry", the extension "", and headings "inside" or "none".',
    };
  if (accepts.import && (lists || index || headings === 'folder'))
    return {
      message: `The place "${place}" is a hand-off folder, which has no folders below it, no index, and is no list in a bundle.`,
      remedy: 'Give it a folder of its own, and headings "inside" or "none".',
    };
  if (!lists && (writer.entry || !extension))
    return {
      message: `The place "${place}" is a folder, into which files with an extension go.`,
      remedy: 'Name a list in a bundle ({config}/Name/name.json#list), or give it a writer of files and an extension.',
    };
  return null;
}
