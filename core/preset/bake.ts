/** Preset → look: which settings go in, which are left out and why, and how far the table is from the direct rendering. */
import { fromRows, type Look } from '../look/look';
import { pointsIn, residual, type Residual } from '../look/residual';
import { sampler } from '../look/sample';
import { domainUpTo } from '../look/tonal-range';
import { evaluateOf, operationOf, type CalledLook, type PresetEffect } from './apply';
import type { SettingClass, Settings } from './kinds';
import { allSettings, classReason, isNeutral, settingTitle } from './settings';

export interface Left {
  setting: string;
  class: SettingClass;
  reason: string;
}

/** Why a setting is left out that a table could carry. */
export const NOT_CHOSEN = 'was not chosen';

/** What a mapping knows better than the default class. */
export type ClassOverrides = Record<string, { class: SettingClass; reason?: string }>;

/** Splits settings into those that a table can carry (and are wanted) and those left out, each with its reason. */
export function split(
  settings: Settings,
  overrides: ClassOverrides = {},
  wanted?: readonly string[],
): { kept: Settings; left: Left[] } {
  const kept: Settings = {};
  const left: Left[] = [];
  for (const definition of allSettings) {
    const { id } = definition;
    const value = settings[id];
    if (value === undefined || isNeutral(id, value)) continue;
    const over = overrides[id];
    const kind = over?.class ?? definition.class;
    const why = over?.reason ?? classReason[kind];
    if (kind !== 'point') left.push({ setting: id, class: kind, reason: why ?? 'cannot go into a table' });
    else if (wanted && !wanted.includes(id)) left.push({ setting: id, class: kind, reason: NOT_CHOSEN });
    else kept[id] = value;
  }
  return { kept, left };
}

/** Titles of a preset's settings that are not rendered; the look that it calls is rendered where it is held. */
export const notRendered = (settings: Settings, overrides: ClassOverrides = {}): string[] =>
  split(settings, overrides)
    .left.filter(({ setting }) => setting !== 'look')
    .map(({ setting }) => settingTitle(setting));

export interface Baked {
  look: Look;
  left: Left[];
  kept: Settings;
  /** what the table stands for */ effect: PresetEffect;
}

export interface BakeOptions {
  overrides?: ClassOverrides;
  /** settings that are wanted, by id; all that a table can carry without */ wanted?: readonly string[] | undefined;
  /** how far the table reaches, in stops above middle gray; to display white without */ above?: number | null;
  /** the look that the preset calls, where it is at hand: it goes into the table, behind the settings */ called?: CalledLook | null;
}

/** What goes into a table, with the look that is called where it is at hand and wanted. */
function divided(settings: Settings, { overrides, wanted, called }: BakeOptions) {
  const { kept, left } = split(settings, overrides, wanted);
  if (!called || !left.some(({ setting }) => setting === 'look')) return { kept, left, look: null };
  const others = left.filter(({ setting }) => setting !== 'look');
  if (!wanted || wanted.includes('look')) return { kept, left: others, look: called };
  return { kept, left: [...others, { setting: 'look', class: 'reference' as const, reason: NOT_CHOSEN }], look: null };
}

/** The table alone: `size` points an axis, sRGB code values in and out, not clamped; beyond white where it reaches further. */
export function bake(settings: Settings, size: number, title: string, options: BakeOptions = {}): Baked {
  const { kept, left, look } = divided(settings, options);
  const effect = { settings: kept, look };
  return { look: fromRows(size, title, operationOf(effect), domainUpTo(options.above ?? null)), left, kept, effect };
}

/** Table error: our direct rendering against our table, over the Halton points of its domain. */
export const bakeResidual = ({ effect, look }: Baked): Residual =>
  residual(evaluateOf(effect), sampler(look), pointsIn(look.domain));
