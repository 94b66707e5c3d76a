/**
 * Descriptors: all that Etagere knows of an editor and its version, as data. No code knows an editor's name, folders or
 * property names. A descriptor that breaks a rule gets a sentence for each fault.
 */
import { array, lazy, mixed, number, object, string, ValidationError } from 'yup';
import type { TableEncoding } from '../look/resample';
import { containers, type Container, type Form } from '../preset/container';
import type { Mapping } from '../preset/mapping';
import { faultsOfMapping } from '../preset/mapping-check';
import { Problem } from '../problem';
import { allowedSigns } from './allowed-signs';
import { faultOfPlace, isProgram } from './own-folder';

export const systems = ['macos', 'windows', 'linux'] as const;
export type System = (typeof systems)[number];

/** What an item's scope may be limited by. */
const scopeConditions = ['camera', 'input', 'result'] as const;
export type ScopeCondition = (typeof scopeConditions)[number];

/** Points an axis that a table may have. */
export interface SizeRule {
  exact?: number;
  min?: number;
  max?: number;
  prefer?: number;
}
/** How a version becomes a file: as it is, as one encoded table, or as an archive of members. */
export interface TableWriter {
  codec: 'cube' | 'clf';
  size: SizeRule;
  encoding: TableEncoding;
}
export interface Member {
  name: string;
  json?: Record<string, unknown>;
  table?: TableWriter;
}
export interface Writer {
  asIs?: boolean;
  table?: TableWriter;
  archive?: { format: 'zip'; members: Member[] };
}

export interface Accepts {
  kind: 'look' | 'preset';
  /** For presets: of which editor version the language is, "id@version"; only these are written, as they are. */
  language?: string;
  place: string;
  extension: string;
  writer: Writer;
  /** Whether headings become folders or stand in the file. */
  headings: 'folder' | 'inside' | 'none';
  names?: { max?: number; allowed?: string };
  most?: number;
  /** A file beside the place that names what the editor loads, one file name a line; without a line there, a file is not loaded. */
  index?: { format: 'lines'; path: Partial<Record<System, string>> };
}

export interface Descriptor {
  editor: string;
  version: string;
  title: string;
  kind: 'editor' | 'card';
  systems: System[];
  /** When a running editor notices new files. */
  sees: 'launch' | 'rescan';
  /** The editor's own files that tell what it lists and refuses, and that it is running. */
  listing: Partial<Record<System, string>>;
  places: Record<string, Partial<Record<System, string>>>;
  accepts: Accepts[];
  /** Whose camera data it reads: of all, or of the models named, in any of a model's names. Left out where nobody knows. */
  cameras?: 'all' | string[];
  /** Conditions of an item's scope by which it leaves items out of its lists for a photo; others it ignores. */
  honours?: ScopeCondition[];
  presets?: {
    container: Container;
    form?: Form;
    /** The text of a preset that changes nothing, into which others are written; without, presets are only read. */ template?: string;
    recognise: { namespace?: string; section?: string; key?: string; value?: string };
    mapping: Mapping;
  };
  notes?: string;
}

const template = /^\{(home|config|media)\}(\/[^/\\:*?"<>|]+)+$/;
const paths = lazy((value: unknown) =>
  object(
    Object.fromEntries(
      Object.keys((value ?? {}) as object).map((key) => [
        key,
        string()
          .required()
          .max(400)
          .matches(template, '${path} must begin with {home}, {config} or {media} and name folders below it')
          .test(
            'fit',
            ({ path, value }) => `${path} ${faultOfPlace(String(value))}`,
            (p) => !p || faultOfPlace(p) === null,
          ),
      ]),
    ),
  )
    .noUnknown()
    .test('systems', 'names a system that is none of macos, windows, linux', (names) =>
      Object.keys(names ?? {}).every((k) => (systems as readonly string[]).includes(k)),
    ),
);
const size = object({
  exact: number().integer().min(2).max(256),
  min: number().integer().min(2).max(256),
  max: number().integer().min(2).max(256),
  prefer: number().integer().min(2).max(256),
})
  .noUnknown()
  .required();
const encoding = object({
  primaries: string().oneOf(['srgb', 'rec2020', 'p3', 'prophoto']).required(),
  transfer: mixed()
    .required()
    .test(
      'transfer',
      'must be "srgb", "linear" or a log range',
      (t) => t === 'srgb' || t === 'linear' || typeof (t as { log?: { below?: number } })?.log?.below === 'number',
    ),
})
  .noUnknown()
  .required();
const table = object({ codec: string().oneOf(['cube', 'clf']).required(), size, encoding })
  .noUnknown()
  .default(undefined);
/** A name of an element, a section or a key in a preset's language. */
const name = () =>
  string()
    .required()
    .max(200)
    .matches(/^[^\u0000-\u001f<>=\[\]]+$/, 'must be a plain name');
function faultOfSigns(signs: string): string | null {
  try {
    allowedSigns(signs);
    return null;
  } catch (error) {
    return (error as Problem).message.replace(/\.$/, '');
  }
}
const schema = object({
  editor: string()
    .required()
    .matches(/^[a-z][a-z0-9-]{0,39}$/, 'must be a short lower-case identifier'),
  version: string()
    .required()
    .matches(/^[0-9][0-9.]{0,11}$/, 'must be a version number'),
  title: string().required().max(80),
  kind: string().oneOf(['editor', 'card']).required(),
  systems: array()
    .of(
      string()
        .oneOf([...systems])
        .required(),
    )
    .min(1)
    .required(),
  sees: string().oneOf(['launch', 'rescan']).required(),
  listing: paths,
  places: lazy((v: unknown) => object(Object.fromEntries(Object.keys((v ?? {}) as object).map((k) => [k, paths])))),
  accepts: array()
    .of(
      object({
        kind: string().oneOf(['look', 'preset']).required(),
        language: string().matches(/^[a-z0-9-]+@[0-9.]+$/),
        place: string().required(),
        extension: string()
          .required()
          .matches(/^\.[a-z0-9]{1,12}$/i, 'must be an extension such as .cube')
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
        })
          .noUnknown()
          .required()
          .test(
            'one',
            'must say exactly one of asIs, table and archive',
            (w) => [w?.asIs, w?.table, w?.archive].filter(Boolean).length === 1,
          ),
        headings: string().oneOf(['folder', 'inside', 'none']).required(),
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
      }).noUnknown(),
    )
    .required(),
  cameras: lazy((value: unknown) =>
    Array.isArray(value)
      ? array().of(string().trim().required('names a camera without a name').max(120)).max(5000)
      : string().oneOf(['all'], 'must be "all" or a list of cameras'),
  ),
  honours: array().of(
    string()
      .oneOf([...scopeConditions])
      .required(),
  ),
  presets: object({
    container: string()
      .oneOf([...containers])
      .required(),
    form: object({
      sequence: string().max(200),
      step: string().max(200),
      properties: string().oneOf(['attributes', 'elements']),
      namespace: string().max(400),
    })
      .noUnknown()
      .default(undefined),
    template: string().max(200_000),
    recognise: object().required(),
    mapping: object({
      title: object({ step: name(), attribute: name() }).default(undefined),
      headings: object({ step: name(), attribute: name() }).default(undefined),
      entries: array()
        .of(object({ step: string().required(), to: string().required() }))
        .required(),
    }).required(),
  }).default(undefined),
  notes: string().max(20_000),
}).noUnknown();

/** Checks a descriptor; throws a Problem whose message has a sentence for each fault. */
export function parseDescriptor(value: unknown, where = 'descriptor'): Descriptor {
  try {
    schema.validateSync(value, { abortEarly: false, strict: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    throw new Problem(
      'descriptor-invalid',
      error.errors.map((m) => `${m.charAt(0).toUpperCase()}${m.slice(1)}.`).join(' '),
      where,
      'Correct the descriptor and bring it in again.',
    );
  }
  const descriptor = value as Descriptor;
  const [fault] = descriptor.presets ? faultsOfMapping(descriptor.presets.mapping) : [];
  if (fault)
    throw new Problem(
      'descriptor-invalid',
      `The mapping ${fault.message}.`,
      `${where}, presets.mapping, ${fault.where}`,
      'Correct the entry; docs/common-settings.md lists the settings.',
    );
  for (const accepts of descriptor.accepts)
    if (!descriptor.places[accepts.place])
      throw new Problem(
        'descriptor-invalid',
        `Accepts names the place "${accepts.place}", which is not among the places.`,
        where,
        'Add the place, or correct the name.',
      );
  return descriptor;
}

export const editorKey = (d: { editor: string; version: string }): string => `${d.editor}@${d.version}`;
