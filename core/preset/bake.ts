/** Preset → look: which settings go in, which are left out and why, and how far the table is from the direct rendering. */
import { fromRows, type Look } from '../look/look';
import { residual, type Residual } from '../look/residual';
import { sampler } from '../look/sample';
import type { SettingClass, Settings } from './kinds';
import { compile, compileMany } from './render';
import { allSettings, classReason, isNeutral } from './settings';

export interface Left {
  setting: string;
  class: SettingClass;
  reason: string;
}

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
    else if (wanted && !wanted.includes(id)) left.push({ setting: id, class: kind, reason: 'was not chosen' });
    else kept[id] = value;
  }
  return { kept, left };
}

export interface Baked {
  look: Look;
  left: Left[];
  kept: Settings;
}

/** The table alone: `size` points an axis, sRGB code values in and out, not clamped. */
export function bake(
  settings: Settings,
  size: number,
  title: string,
  overrides: ClassOverrides = {},
  wanted?: readonly string[],
): Baked {
  const { kept, left } = split(settings, overrides, wanted);
  return { look: fromRows(size, title, compileMany(kept)), left, kept };
}

/** Table error: our direct rendering against our table, over the Halton points. */
export const bakeResidual = (baked: Baked): Residual => residual(compile(baked.kept), sampler(baked.look));
