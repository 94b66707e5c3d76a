/**
 * A preset in another editor's language, with what became of each setting: carried as it is, approximated with the figure
 * that was measured, or left out with the reason. Nothing disappears without a word.
 */
import { editorKey, type Descriptor } from '../editor/descriptor';
import { Problem } from '../problem';
import { residual } from '../look/residual';
import { split, type ClassOverrides } from './bake';
import type { About } from './container';
import type { SettingClass, Settings } from './kinds';
import { stepsToWrite } from './mapping-write';
import { compile } from './render';
import { isNeutral, settingById } from './settings';
import { rules, type Substitute, type Target } from './substitutes';
import { writePreset, type Language, type WrittenPreset } from './write';

export interface Approximated {
  setting: string;
  /** largest ΔE00 over the standard colors; null where the setting is none that is rendered */ figure: number | null;
  meanDeltaE: number | null;
  reason: string;
}
export interface LeftOut {
  setting: string;
  reason: string;
}
export interface PresetConversion {
  written: WrittenPreset;
  carried: string[];
  approximated: Approximated[];
  left: LeftOut[];
  /** how far our rendering of the two presets' point settings is apart */ rendering: {
    maxDeltaE: number;
    p95DeltaE: number;
    meanDeltaE: number;
  };
}

/** What is known of the preset that is converted. */
export interface Source {
  settings: Settings;
  classes: ClassOverrides;
  about: Partial<About>;
  /** its language, as "editor@version" */ language: string;
  /** properties that its language's mapping does not know */ unknown: Record<string, string>;
  /** its file, whose unknown properties ride along where the language stays the same */ bytes?: Uint8Array;
}

export function languageIn(descriptor: Descriptor): Language {
  if (descriptor.presets) return descriptor.presets;
  throw new Problem(
    'editor-presets',
    `${descriptor.title} has no preset language that Etagere knows.`,
    editorKey(descriptor),
    'Choose another editor, or describe its presets in the editor’s descriptor.',
  );
}

const classOf = (setting: string, classes: ClassOverrides): SettingClass | undefined =>
  classes[setting]?.class ?? settingById.get(setting)?.class;

/** The classes that a language gives the settings, where they are others than usual. */
const classesOf = ({ mapping }: Language): ClassOverrides =>
  Object.fromEntries(
    mapping.entries.flatMap((entry) => (entry.class ? [[entry.to.split('.')[0]!, { class: entry.class }]] : [])),
  );

/** Applies what stands in for what is lacking, until nothing more does. */
function substituted(settings: Settings, target: Target): { settings: Settings; made: Substitute[] } {
  let now = { ...settings };
  const made: Substitute[] = [];
  for (const rule of rules) {
    const lacking = new Set(stepsToWrite(target.mapping, now).left.map(({ setting }) => setting));
    const substitute = lacking.size ? rule(now, lacking, target) : null;
    if (!substitute) continue;
    const kept = Object.entries(now).filter(([id]) => !substitute.instead.includes(id));
    now = { ...Object.fromEntries(kept), ...substitute.settings };
    made.push(substitute);
  }
  return { settings: now, made };
}

/** How far two presets' point settings are apart in our rendering. */
function apart(one: Settings, other: Settings): PresetConversion['rendering'] {
  const { maxDeltaE, p95DeltaE, meanDeltaE } = residual(compile(one), compile(other));
  return { maxDeltaE, p95DeltaE, meanDeltaE };
}

/** What a substitute alone changes: the preset with it in the place of what it stands for. */
function figureOf(
  settings: Settings,
  instead: readonly string[],
  put: Settings,
): Pick<Approximated, 'figure' | 'meanDeltaE'> {
  const isRendered = instead.some((id) => settingById.get(id)?.compile);
  if (!isRendered) return { figure: null, meanDeltaE: null };
  const whole = split(settings).kept;
  const kept = Object.entries(whole).filter(([id]) => !instead.includes(id));
  const { maxDeltaE, meanDeltaE } = apart(whole, { ...Object.fromEntries(kept), ...put });
  return { figure: maxDeltaE, meanDeltaE };
}

const shown = (value: unknown): string =>
  typeof value === 'number' ? String(Number(value.toFixed(4))) : 'these values';

/** Settings that the file says otherwise than asked, and those that the two editors do in other ways. */
function unlike(source: Source, asked: Settings, written: WrittenPreset, to: Descriptor): Approximated[] {
  const rounded = written.changed.map(({ setting, reads }): Approximated => {
    const reason = `${to.title} takes ${shown(reads)}, the nearest that it has to ${shown(asked[setting])}`;
    return { setting, ...figureOf(asked, [setting], { [setting]: reads }), reason };
  });
  const theirs = classesOf(languageIn(to));
  const other = written.written.flatMap((setting): Approximated[] => {
    const here = classOf(setting, source.classes);
    const there = classOf(setting, theirs);
    if (here === there || rounded.some((one) => one.setting === setting)) return [];
    const why = 'the two work on pictures in different ways, so that the same number gives another picture';
    return [{ setting, figure: null, meanDeltaE: null, reason: `${here} here, ${there} in ${to.title}: ${why}` }];
  });
  return [...rounded, ...other];
}

/** A reason that the mapping gives, told of the editor by its name. */
const saidOf = (title: string, reason: string): string =>
  reason.startsWith('it ') ? `${title}${reason.slice(2)}` : `${title}: ${reason}`;

/**
 * @param to the descriptor of the editor whose language is written
 * @throws a Problem where that editor has no language, or gives no template of an empty preset
 */
export function convertPreset(source: Source, to: Descriptor): PresetConversion {
  const language = languageIn(to);
  const isSame = source.language === editorKey(to);
  const settings = Object.fromEntries(Object.entries(source.settings).filter(([id, value]) => !isNeutral(id, value)));
  const can = (setting: string, value: unknown): boolean =>
    stepsToWrite(language.mapping, { [setting]: value }).left.length === 0;
  const { settings: asked, made } = substituted(settings, { mapping: language.mapping, title: to.title, can });
  const written = writePreset(language, asked, source.about, to.title, isSame ? source.bytes : undefined);
  const replaced = made.flatMap(({ instead, settings: put, reason }): Approximated[] => {
    const figures = figureOf(settings, instead, put);
    return instead.map((setting) => ({ setting, ...figures, reason }));
  });
  const own = unlike(source, asked, written, to).filter(
    ({ setting }) => settings[setting] !== undefined && !replaced.some((one) => one.setting === setting),
  );
  const approximated = [...replaced, ...own];
  const notExact = new Set([...approximated, ...written.left].map(({ setting }) => setting));
  const unknown = isSame ? [] : Object.keys(source.unknown);
  return {
    written,
    carried: Object.keys(settings).filter((setting) => !notExact.has(setting)),
    approximated,
    left: [
      ...written.left.map(({ setting, reason }) => ({ setting, reason: saidOf(to.title, reason) })),
      ...unknown.map((setting) => ({
        setting,
        reason: 'is in no mapping, and stays in the preset that was converted',
      })),
    ],
    rendering: apart(split(settings).kept, split(written.read.settings).kept),
  };
}
