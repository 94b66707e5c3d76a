/** A recipe in words, and the choices that are offered for it. */
import { settingTitle } from '@/core/preset/settings';
import { formWords, LOOK_FORMS, PROFILE_FORMS, takes, type Form, type Recipe } from '@/core/conversion/recipe';

export interface Language {
  id: string;
  title: string;
  /** its presets can call a look */ calls: boolean;
}

const titleOf = (languages: readonly Language[], id: string): string =>
  languages.find((one) => one.id === id)?.title ?? id;

/** What things become: “looks, tables of 33 points”. */
export function recipeWords(recipe: Recipe, languages: readonly Language[]): string {
  switch (recipe.tool) {
    case 'bake': {
      const without = recipe.leave.map(settingTitle).join(', ');
      const reach = recipe.above === undefined ? '' : ` to +${recipe.above} EV`;
      return `looks, tables of ${recipe.size} points${reach}${without && `, without ${without}`}`;
    }
    case 'preset':
      return `presets of ${titleOf(languages, recipe.to)}`;
    case 'companion':
      return `presets of ${titleOf(languages, recipe.to)} that call the look at ${recipe.strength} %`;
    case 'column':
      return 'looks, as their columns of the bench were kept';
    case 'derive':
      return `${takes(recipe) === 'look' ? 'looks' : 'camera profiles'}: ${formWords[recipe.form]}`;
  }
}

export interface Choice {
  /** of the select: “bake”, “preset oxbow@2”, “derive clf” */ value: string;
  words: string;
  kind: 'preset' | 'look' | 'camera-profile';
}

const looks: Record<(typeof LOOK_FORMS)[number], string> = {
  cube: 'a table of another size',
  clf: 'a chain in Common LUT Format',
  'icc-link': 'an ICC device link',
  'icc-abstract': 'an ICC abstract profile',
};
const profiles: Record<(typeof PROFILE_FORMS)[number], string> = {
  'icc-input': 'an ICC input profile',
  'without-look': 'the same without its look table',
  'without-map': 'the same without its hue and saturation map',
  straight: 'the same with a straight tone curve',
  'editor-curve': 'the same with the editor’s tone curve',
  'first-light': 'for its first light alone',
  'second-light': 'for its second light alone',
  'other-camera': 'for another camera',
  anchored: 'anchored by the neutral of a frame',
};

/** All that can be made, by what it is made of. */
export function choices(languages: readonly Language[]): Choice[] {
  return [
    { value: 'bake', words: 'a look: a table', kind: 'preset' },
    ...languages.map(({ id, title }): Choice => ({
      value: `preset ${id}`,
      words: `a preset of ${title}`,
      kind: 'preset',
    })),
    ...LOOK_FORMS.map((form): Choice => ({ value: `derive ${form}`, words: looks[form], kind: 'look' })),
    ...languages
      .filter(({ calls }) => calls)
      .map(({ id, title }): Choice => ({
        value: `companion ${id}`,
        words: `a preset of ${title} that calls it`,
        kind: 'look',
      })),
    ...PROFILE_FORMS.map((form): Choice => ({
      value: `derive ${form}`,
      words: profiles[form],
      kind: 'camera-profile',
    })),
  ];
}

export function valueOf(recipe: Recipe): string {
  if (recipe.tool === 'bake' || recipe.tool === 'column') return recipe.tool;
  return recipe.tool === 'derive' ? `derive ${recipe.form}` : `${recipe.tool} ${recipe.to}`;
}

function pointsOf(recipe: Recipe): number {
  if (recipe.tool === 'bake' || recipe.tool === 'column') return recipe.size;
  return recipe.tool === 'derive' ? recipe.points : 33;
}

/** The recipe of a choice, with what was typed so far where it needs the same. */
export function recipeOfChoice(value: string, before: Recipe): Recipe {
  const [tool, detail = ''] = value.split(' ');
  const points = pointsOf(before);
  if (tool === 'preset') return { tool, to: detail };
  if (tool === 'companion') return { tool, to: detail, strength: before.tool === 'companion' ? before.strength : 100 };
  if (tool === 'derive') {
    const same = before.tool === 'derive' ? before : { kelvin: 5000, camera: '', frame: '' };
    const { kelvin, camera, frame } = same;
    return { tool, form: detail as Form, points, kelvin, camera, frame };
  }
  return { tool: 'bake', size: points, leave: before.tool === 'bake' ? before.leave : [] };
}
