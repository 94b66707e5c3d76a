/** Preset → look: what would go in, what is left out and why, how far the table is off, and the draft item that results. */
import type { BodyOf } from '@/core/api';
import { versionEndpoints } from '@/core/api/versions';
import type { Bake } from '@/core/conversion/recipe';
import { LEAST_EV, MOST_EV } from '@/core/look/tonal-range';
import { must } from '@/core/must';
import { split } from '@/core/preset/bake';
import { settingById, settingTitle } from '@/core/preset/settings';
import { convertOne, sourceFor } from '../conversions/one';
import type { Kept } from '../conversions/keep';
import { carriable, presetSource } from '../conversions/makers/bake';
import { allow, type Person } from '../people/roles';
import { checked } from '../input';
import { compute } from '../threads/computing';

export interface ConversionView {
  carried: { setting: string; title: string; family: string; value: unknown; unit: string }[];
  left: { setting: string; title: string; class: string; reason: string }[];
  unknown: Record<string, string>;
  residual: { maxDeltaE: number; p95DeltaE: number; meanDeltaE: number };
}

/** A tonal range as far as a look can have it. */
const within = (above: number | null): number | null =>
  above === null ? null : Math.min(MOST_EV, Math.max(LEAST_EV, above));

/** What the conversion would carry and leave, with the residual at the size; `wanted` narrows the settings. */
export async function previewConversion(
  person: Person,
  versionId: string,
  size: number,
  wanted?: string[],
  above: number | null = null,
): Promise<ConversionView> {
  allow(person, 'item.convert');
  const { version } = await sourceFor(person, versionId, 'preset');
  const source = await presetSource({ version });
  const all = split(source.settings, source.classes);
  const { residual } = await compute('baked', { source, size, title: version.title, wanted, above: within(above) });
  const isCarried = (setting: string) => setting === 'look' && !!source.called;
  const called = source.called ? { look: source.settings.look } : {};
  return {
    carried: Object.entries({ ...all.kept, ...called }).map(([id, value]) => ({
      setting: id,
      title: settingTitle(id),
      family: must(settingById.get(id)).family,
      value,
      unit: must(settingById.get(id)).unit,
    })),
    left: all.left
      .filter(({ setting }) => !isCarried(setting))
      .map((one) => ({ ...one, title: settingTitle(one.setting) })),
    unknown: version.facts.unknown as Record<string, string>,
    residual: { maxDeltaE: residual.maxDeltaE, p95DeltaE: residual.p95DeltaE, meanDeltaE: residual.meanDeltaE },
  };
}

/** Bakes the preset into a `.cube` look: a draft on the preset's shelf that knows its source and recipe. */
export async function convertPreset(
  person: Person,
  { versionId, ...input }: { versionId: string } & BodyOf<'POST /api/versions/:id/convert'>,
): Promise<Kept> {
  allow(person, 'item.convert');
  const { size, settings, title, above } = checked(versionEndpoints['POST /api/versions/:id/convert'].body, input);
  const source = await sourceFor(person, versionId, 'preset');
  const leave = settings ? carriable(await presetSource(source)).filter((id) => !settings.includes(id)) : [];
  const recipe: Bake = { tool: 'bake', size, leave, ...(above === null ? {} : { above }) };
  return convertOne(person, recipe, source, title || source.version.title);
}
