/**
 * Descriptors: all that Etagere knows of an editor and its version, as data. No code knows an editor's name, folders or
 * property names. A descriptor that breaks a rule gets a sentence for each fault.
 */
import { array, boolean, lazy, object, string, ValidationError } from 'yup';
import { containers, type Container, type Form } from '../preset/container';
import type { Mapping } from '../preset/mapping';
import { faultsOfMapping } from '../preset/mapping-check';
import { mappingSchema } from '../preset/mapping-schema';
import { faultOfTemplate } from '../preset/template-check';
import { Problem } from '../problem';
import { acceptsSchema, faultOfAccepts, type Accepts } from './accepts';
import { faultOfOpening, openingSchema, type Opening } from '../opening/descriptor';
import { faultOfFavorites, favoritesSchema, type Favorites } from './favorites';
import { faultOfRenders, rendersSchema, type Renders } from './renders';
import { paths, places, systems, type System } from './place-schema';
import { scopeConditions, type ScopeCondition } from './scope-conditions';

export type { ScopeCondition } from './scope-conditions';

export interface Descriptor {
  editor: string;
  version: string;
  title: string;
  kind: 'editor' | 'card';
  systems: System[];
  /** When a running editor notices what is new. */
  sees: 'launch' | 'rescan';
  /** The editor's own files that tell what it lists and refuses, and that it is running. */
  listing: Partial<Record<System, string>>;
  /** Folders, and lists in a bundle: `{config}/Name/bundle.json#list`. */
  places: Record<string, Partial<Record<System, string>>>;
  /** It holds its bundle in memory while it runs and writes it anew when it quits: nothing is written there meanwhile. */
  writesBack?: boolean;
  accepts: Accepts[];
  /** Its own short list of what is used every day, in order. */
  favorites?: Favorites;
  /** What it does with a photo that it opens, as rules that people there set. */
  opening?: Opening;
  /** How it is asked for a picture with one of its items on. */
  renders?: Renders;
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
  places: lazy((v: unknown) => object(Object.fromEntries(Object.keys((v ?? {}) as object).map((k) => [k, places])))),
  writesBack: boolean(),
  accepts: array().of(acceptsSchema).required(),
  favorites: favoritesSchema,
  opening: openingSchema,
  renders: rendersSchema,
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
    recognise: object({
      namespace: string().max(400),
      section: string().max(200),
      key: string().max(200),
      value: string().max(400),
    })
      .noUnknown()
      .required(),
    mapping: mappingSchema.required(),
  }).default(undefined),
  notes: string().max(20_000),
}).noUnknown();

/** Whether a place is a list in a bundle. */
export const isBundlePlace = ({ places }: Descriptor, place: string): boolean =>
  Object.values(places[place] ?? {}).some((template) => template?.includes('#'));

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
  const empty = descriptor.presets && faultOfTemplate(descriptor.presets);
  if (empty)
    throw new Problem(
      'descriptor-invalid',
      `The empty preset ${empty}.`,
      `${where}, presets.template`,
      'Correct the template: it is the text of a preset of this editor that changes nothing.',
    );
  for (const accepts of descriptor.accepts) {
    const fault = faultOfAccepts(descriptor.places, accepts);
    if (fault) throw new Problem('descriptor-invalid', fault.message, where, fault.remedy);
  }
  const unfit = descriptor.favorites && faultOfFavorites(descriptor.places, descriptor.accepts, descriptor.favorites);
  if (unfit) throw new Problem('descriptor-invalid', unfit.message, `${where}, favorites`, unfit.remedy);
  const odd = descriptor.opening && faultOfOpening(descriptor.opening);
  if (odd) throw new Problem('descriptor-invalid', odd.message, `${where}, opening`, odd.remedy);
  const unasked = descriptor.renders && faultOfRenders(descriptor.places, descriptor.renders);
  if (unasked) throw new Problem('descriptor-invalid', unasked.message, `${where}, renders`, unasked.remedy);
  return descriptor;
}

export const editorKey = (d: { editor: string; version: string }): string => `${d.editor}@${d.version}`;
