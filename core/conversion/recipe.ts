/**
 * What a conversion does to its source. It is kept in the lineage of what was made, so that the same can be made again of a
 * newer source.
 */
import { array, number, object, string, type InferType } from 'yup';
import type { Trim } from '../bench/measure';
import { LEAST_EV, MOST_EV } from '../look/tonal-range';
import { NOT_CHOSEN } from '../preset/bake';
import { settingById } from '../preset/settings';
import type { ItemKind } from '../recognise/recognised';
import { isUuid, uuid } from '../uuid';
import { same } from '../same';

/** The forms that a look can be written in. */
export const LOOK_FORMS = ['cube', 'clf', 'icc-link', 'icc-abstract'] as const;
/** What can be made of a camera profile. */
export const PROFILE_FORMS = [
  'icc-input',
  'without-look',
  'without-map',
  'straight',
  'editor-curve',
  'first-light',
  'second-light',
  'other-camera',
  'anchored',
] as const;
export type Form = (typeof LOOK_FORMS)[number] | (typeof PROFILE_FORMS)[number];

/** Preset → look: a table of so many points an axis that reaches so far, without the settings that are left. */
export interface Bake {
  tool: 'bake';
  size: number;
  /** ids of settings that a table could carry and shall not */ leave: string[];
  /** stops above middle gray that the table reaches; to display white without */ above?: number;
}
/** Preset → preset in the language of an editor, as "editor@version": a form of the same item. */
export interface Write {
  tool: 'preset';
  to: string;
}
/** Look → preset of an editor that calls it at a strength, in percent, and touches nothing else. */
export interface Companion {
  tool: 'companion';
  to: string;
  strength: number;
}
/** Look or camera profile → another form of it. */
export interface Derive {
  tool: 'derive';
  form: Form;
  points: number;
  kelvin: number;
  camera: string;
  /** id of the frame of camera data whose neutral is put at `kelvin`; '' for other forms */ frame: string;
}
/** A version in a column of the bench, laid over those before it. */
export interface ColumnLayer {
  version: string;
  /** percent */ strength: number;
  /** another encoding than the one that is recorded, in words */ assumed: string | null;
}
/** Layers from the lowest on → look: what a column of the bench does, as one table. It is kept there, and made again here. */
export interface Column {
  tool: 'column';
  size: number;
  layers: ColumnLayer[];
  trim: Trim | null;
  /** what else the column had, which no table can hold */ left: string[];
}
export type Recipe = Bake | Write | Companion | Derive | Column;

const tools = ['bake', 'preset', 'companion', 'derive'] as const;

export const titleField = () => string().trim().max(200, 'A title has at most 200 signs.');
/** Of a table, on each axis. */
export const pointsField = () =>
  number()
    .typeError('The points of a table are a number.')
    .integer('The points of a table are a whole number.')
    .min(2, 'A table has at least 2 points an axis.')
    .max(129, 'A table has at most 129 points an axis.');
/** null is display white. */
export const aboveField = () =>
  number()
    .typeError('The tonal range is a number of stops.')
    .min(LEAST_EV, 'A look reaches at least to display white, 2.5 stops above middle gray.')
    .max(MOST_EV, `A look reaches at most ${MOST_EV} stops above middle gray.`)
    .nullable()
    .default(null);
export const strengthField = () =>
  number()
    .typeError('The strength is a number of percent.')
    .min(0, 'The strength is at least 0 %.')
    .max(400, 'The strength is at most 400 %.');
export const formField = () => string().oneOf([...LOOK_FORMS, ...PROFILE_FORMS], 'That is no form of an item.');
export const kelvinField = () =>
  number()
    .typeError('The light is a number of kelvin.')
    .min(2000, 'The light is at least 2,000 K.')
    .max(50000, 'The light is at most 50,000 K.');
export const cameraField = () =>
  string()
    .trim()
    .max(200, 'A camera’s name has at most 200 signs.')
    .default('')
    .when('form', ([form], field) => (form === 'other-camera' ? field.required('Say for which camera.') : field));

export const frameField = () =>
  string()
    .trim()
    .max(36)
    .default('')
    .when('form', ([form], field) =>
      form === 'anchored'
        ? field
            .required('Say of which frame the neutral is meant.')
            .test('frame', 'That is no frame.', (id) => !id || isUuid(id))
        : field,
    );

const settingId = () =>
  string()
    .required()
    .test(
      'setting',
      ({ value }) => `There is no setting called ${String(value)}.`,
      (id) => !id || settingById.has(id),
    );

export const settingIds = () => array().of(settingId()).max(100);

/** One number a channel. */
export const triple = () => array().of(number().required()).length(3);

export const columnFields = object({
  size: pointsField().default(33),
  layers: array()
    .of(
      object({
        version: uuid().required(),
        strength: number().min(0).max(400).required(),
        assumed: string().max(120).nullable().default(null),
      })
        .noUnknown()
        .required(),
    )
    .max(16, 'A column has at most 16 layers.')
    .required(),
  trim: object({ slope: triple(), offset: triple(), power: triple() }).nullable().default(null),
  left: array().of(string().max(200).required()).max(8).default([]),
}).noUnknown();

/** A recipe as it is sent: the fields that its tool does not use are passed over. */
export const recipeFields = object({
  tool: string().oneOf(tools, 'Choose what shall be made.').required('Choose what shall be made.'),
  size: pointsField().default(33),
  leave: settingIds().default([]),
  above: aboveField(),
  to: string()
    .max(60)
    .default('')
    .when('tool', ([tool], field) =>
      tool === 'preset' || tool === 'companion' ? field.required('Choose an editor.') : field,
    ),
  strength: strengthField().default(100),
  form: formField().default('cube'),
  points: pointsField().default(33),
  kelvin: kelvinField().default(5000),
  camera: cameraField(),
  frame: frameField(),
}).noUnknown();
export type RecipeFields = InferType<typeof recipeFields>;

/** The recipe alone, of all that was sent. */
export function recipeOf(fields: RecipeFields): Recipe {
  const { tool, size, leave, above, to, strength, form, points, kelvin, camera, frame } = fields;
  if (tool === 'bake') return { tool, size, leave, ...(above === null ? {} : { above }) };
  if (tool === 'preset') return { tool, to };
  if (tool === 'companion') return { tool, to, strength };
  return { tool, form, points, kelvin, camera, frame };
}

export const isLookForm = (form: Form): form is (typeof LOOK_FORMS)[number] =>
  (LOOK_FORMS as readonly string[]).includes(form);

/** The kind of item that a recipe takes; null where it takes several. */
export function takes(recipe: Exclude<Recipe, Column>): ItemKind;
export function takes(recipe: Recipe): ItemKind | null;
export function takes(recipe: Recipe): ItemKind | null {
  if (recipe.tool === 'column') return null;
  if (recipe.tool === 'bake' || recipe.tool === 'preset') return 'preset';
  if (recipe.tool === 'companion') return 'look';
  return isLookForm(recipe.form) ? 'look' : 'camera-profile';
}

/** The recipe that is offered first for items of a kind; null for kinds that are converted to nothing. */
export function usualRecipe(kind: string): Recipe | null {
  if (kind === 'preset') return { tool: 'bake', size: 33, leave: [] };
  const derive = { tool: 'derive', points: 33, kelvin: 5000, camera: '', frame: '' } as const;
  if (kind === 'look') return { ...derive, form: 'cube' };
  return kind === 'camera-profile' ? { ...derive, form: 'icc-input' } : null;
}

/** The kind of item that a recipe gives; null where it gives a form of the source's own item, which needs no name. */
export function gives(recipe: Recipe): ItemKind | null {
  if (recipe.tool === 'bake' || recipe.tool === 'column') return 'look';
  if (recipe.tool === 'companion') return 'preset';
  return recipe.tool === 'derive' ? takes(recipe) : null;
}

/** Forms as people say them, short. */
export const formWords: Record<Form, string> = {
  cube: 'table',
  clf: 'CLF',
  'icc-link': 'device link',
  'icc-abstract': 'abstract profile',
  'icc-input': 'input profile',
  'without-look': 'without look table',
  'without-map': 'without hue and saturation map',
  straight: 'straight curve',
  'editor-curve': 'editor’s curve',
  'first-light': 'first light',
  'second-light': 'second light',
  'other-camera': 'other camera',
  anchored: 'anchored',
};

/** How what is made is called where nobody says otherwise: what stands beside its source needs another name. */
export const usualNaming = (recipe: Recipe): string =>
  recipe.tool === 'derive' ? `{title}, ${formWords[recipe.form]}` : '{title}';

/** Says the same thing, whatever the order of what is left out. */
export function sameRecipe(one: Recipe, other: Recipe): boolean {
  const sorted = (recipe: Recipe): Recipe =>
    recipe.tool === 'bake' ? { ...recipe, leave: [...recipe.leave].sort() } : recipe;
  return same(sorted(one), sorted(other));
}

/** What a lineage says of how its version was made, whoever wrote it. */
interface Kept extends Partial<Record<keyof RecipeFields | 'layers' | 'trim', unknown>> {
  /** settings that a bake left out, with the reason; or what a column had besides, in words */ left?: unknown[];
}

function columnIn({ size, layers, trim, left }: Kept): Column | null {
  const said = { size, layers, trim, left };
  if (!columnFields.isValidSync(said)) return null;
  return { tool: 'column', ...columnFields.cast(said) } as Column;
}

const notChosen = (left: readonly unknown[] | undefined): string[] | undefined =>
  (left as { setting: string; reason: string }[] | undefined)
    ?.filter(({ reason }) => reason === NOT_CHOSEN)
    .map(({ setting }) => setting);

/** The recipe in a lineage; null where it is none that can be made again, as of a merge or an edit by hand. */
export function recipeIn(lineage: Kept): Recipe | null {
  if (lineage.tool === 'column') return columnIn(lineage);
  const said = { ...lineage, leave: lineage.leave ?? notChosen(lineage.left) ?? [] };
  const known = Object.fromEntries(Object.keys(recipeFields.fields).map((key) => [key, said[key as keyof Kept]]));
  return recipeFields.isValidSync(known) ? recipeOf(recipeFields.cast(known) as RecipeFields) : null;
}
