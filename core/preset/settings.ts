/** The list of all common settings, in the order in which the point settings act. To add one, add its definition to one of the two lists. */
import { otherSettings } from './other-settings';
import { pointSettings } from './point-settings';
import type { SettingClass, SettingDefinition, Settings } from './kinds';

export const allSettings: SettingDefinition[] = [...pointSettings, ...otherSettings] as unknown as SettingDefinition[];
export const settingById = new Map(allSettings.map((s) => [s.id, s]));

/** What a setting is called on screens; its id where none is known. */
export const settingTitle = (id: string): string => settingById.get(id)?.title ?? id;

/** The language of our own settings, as files in it are marked. */
export const OWN_LANGUAGE = 'etagere@1';

/** Why a class of setting cannot go into a table of colors; null where it can. */
export const classReason: Record<SettingClass, string | null> = {
  point: null,
  raw: 'needs camera data, which a table never sees',
  local: 'looks at neighbouring pixels, which a table cannot',
  position: 'depends on where a pixel lies, which a table does not know',
  geometry: 'moves pixels, which a table cannot',
  reference: 'is another item, which is not at hand',
};

/** Is the value what leaves the picture as it is? */
export const isNeutral = (id: string, value: unknown): boolean =>
  JSON.stringify(value) === JSON.stringify(settingById.get(id)?.neutral);

/** A sentence for each value that is not legal. */
export function faults(settings: Settings): { setting: string; message: string }[] {
  return Object.entries(settings).flatMap(([id, value]) => {
    const definition = settingById.get(id);
    const message = definition ? definition.check(value) : 'is not a common setting';
    return message ? [{ setting: id, message }] : [];
  });
}

/** docs/common-settings.md, from the definitions. */
export function documentation(): string {
  const row = (setting: SettingDefinition) =>
    `### ${setting.title} \`${setting.id}\`\n\nClass ${setting.class}, family ${setting.family}. Unit: ${setting.unit}. Range: ${setting.range}. Neutral: \`${JSON.stringify(setting.neutral)}\`.\n\n${setting.formula}\n`;
  return [
    '# Common settings',
    '',
    '<!-- Written by `bin/etagere docs settings` from core/preset; do not edit by hand. -->',
    '',
    'Our vocabulary of adjustments. Point settings act in the order in which they stand here, on one pixel at a time.',
    '',
    'The renderer takes and gives sRGB-encoded values (IEC 61966-2-1, continued odd-symmetrically), and clamps nothing. The settings from warmth to contrast pivot act on linear sRGB, those from slope to the curves on encoded values, those from the hue sectors on in OKLab (Ottosson 2020) of linear sRGB. What is absent is neutral.',
    '',
    'The class of a setting is a default; a mapping may say otherwise for its editor.',
    '',
    '## Point settings',
    '',
    ...(pointSettings as unknown as SettingDefinition[]).map(row),
    '## Settings that no table can carry',
    '',
    ...Object.entries(classReason)
      .filter(([, why]) => why)
      .map(([name, why]) => `- **${name}**: ${why}`),
    '',
    ...(otherSettings as unknown as SettingDefinition[]).map(row),
  ].join('\n');
}
