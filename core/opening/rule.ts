/**
 * Opening rules: what an editor does with a photo when it opens one. An ordered list; the first rule whose conditions all
 * hold is taken. Here they are in common words, whatever an editor calls them.
 */
import { object, string, type InferType } from 'yup';

export interface Definition {
  label: string;
  /** the words that may be said of it; without, any text such as a name */ values?: readonly string[];
  /** beside the words, any text may stand: what it is the name of */ named?: string;
}

/** When a rule is for a photo; what is left out holds for all. */
export type Condition = 'camera' | 'input' | 'lens' | 'iso';
export const conditions: Record<Condition, Definition> = {
  camera: { label: 'Camera', named: 'a body' },
  input: { label: 'File', values: ['camera data', 'rendered SDR', 'rendered HDR'] },
  lens: { label: 'Lens', values: ['matched', 'not matched'] },
  iso: { label: 'ISO', named: 'a range such as 100-800 or 1600-' },
};

/** What a photo is begun with; what is left out is the editor's own way. */
export type Setting = 'lens' | 'noise' | 'curve' | 'exposure' | 'engine' | 'profile' | 'preset' | 'look';
export const settings: Record<Setting, Definition> = {
  lens: { label: 'Lens correction', values: ['matched', 'last used', 'none'], named: 'a lens' },
  noise: { label: 'Noise reduction', values: ['none', 'color', 'color and luminance'] },
  curve: { label: 'Base curve', values: ['its own', 'none'] },
  exposure: { label: 'Exposure offset in the file', values: ['ignored', 'applied', 'applied, shown as zero'] },
  engine: { label: 'Raw engine', named: 'a version' },
  profile: { label: 'Camera profile', named: 'a profile' },
  preset: { label: 'Preset', named: 'a preset' },
  look: { label: 'Look', named: 'a look' },
};

export const conditionNames = Object.keys(conditions) as Condition[];
export const settingNames = Object.keys(settings) as Setting[];

export interface Rule {
  when: Partial<Record<Condition, string>>;
  start: Partial<Record<Setting, string>>;
}

const MOST = 200;
const text = (definition: Definition) => {
  const any = string().trim().max(MOST, `At most ${MOST} signs.`);
  return definition.values && !definition.named
    ? any.oneOf([...definition.values], `${definition.label} is one of ${definition.values.join('; ')}.`)
    : any.min(1);
};
const iso = string()
  .trim()
  .matches(/^\d{1,7}-(\d{1,7})?$/, 'ISO is a range such as 100-800, or 1600- for all above.')
  .test('order', 'The range of ISO ends before it begins.', (range) => {
    const [from, to] = (range ?? '').split('-');
    return !to || Number(from) <= Number(to);
  });

/** What a rule has a photo begun with. */
export const startSchema = object({
  lens: text(settings.lens),
  noise: text(settings.noise),
  curve: text(settings.curve),
  exposure: text(settings.exposure),
  engine: text(settings.engine),
  profile: text(settings.profile),
  preset: text(settings.preset),
  look: text(settings.look),
})
  .noUnknown()
  .test('some', 'A rule says at least one thing that a photo is begun with.', (start) =>
    Object.values(start ?? {}).some(Boolean),
  );

export const ruleSchema = object({
  when: object({
    camera: text(conditions.camera),
    input: text(conditions.input),
    lens: text(conditions.lens),
    iso,
  }).noUnknown(),
  start: startSchema,
}).noUnknown();
export type RuleInput = InferType<typeof ruleSchema>;

/** Without what is left out, and in one order: two rules that say the same are the same. */
export function tidy({ when, start }: Rule): Rule {
  const pick = <Name extends string>(names: readonly Name[], from: Partial<Record<Name, string>>) =>
    Object.fromEntries(names.flatMap((name) => (from[name] ? [[name, from[name]]] : []))) as Partial<
      Record<Name, string>
    >;
  return { when: pick(conditionNames, when), start: pick(settingNames, start) };
}

/** Which photos a rule is for, as one text. */
export const keyOfWhen = (when: Rule['when']): string =>
  conditionNames.flatMap((name) => (when[name] ? [`${name} ${when[name]}`] : [])).join('; ');

/** For each rule that is never taken, by its place, the rule before it that is for all of its photos. */
export function hiddenRules(rules: readonly Rule[]): Map<number, Rule> {
  const covers = (one: Rule, other: Rule): boolean =>
    conditionNames.every((name) => !one.when[name] || one.when[name] === other.when[name]);
  const hidden = new Map<number, Rule>();
  rules.forEach((rule, n) => {
    const before = rules.slice(0, n).find((one) => covers(one, rule));
    if (before) hidden.set(n, before);
  });
  return hidden;
}

/** The conditions of a rule in words. */
export function whenWords({ camera, input, lens, iso }: Rule['when']): string {
  const words = [
    camera ?? '',
    input ?? '',
    lens ? `lens ${lens}` : '',
    iso ? `ISO ${iso.endsWith('-') ? `from ${iso.slice(0, -1)}` : iso.replace('-', ' to ')}` : '',
  ].filter(Boolean);
  return words.length ? words.join(', ') : 'any photo';
}
