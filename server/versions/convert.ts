/** Preset → look: what would go in, what is left out and why, how far the table is off, and the draft item that results. */
import type { BodyOf } from '@/core/api';
import { versionEndpoints } from '@/core/api/versions';
import { must } from '@/core/must';
import { split } from '@/core/preset/bake';
import { computedEncoding } from '@/core/look/look';
import { settingById } from '@/core/preset/settings';
import { Problem } from '@/core/problem';
import { putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { record } from '../activity/queries';
import { allowUnderLicence } from '../licences/service';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { compute } from '../threads/computing';
import type { PresetSource } from '../threads/tasks';
import { createItem, takenOver } from '../items/create';
import { tableSource, type LookSource } from '../items/service';
import * as q from '../items/queries';

export interface ConversionView {
  carried: { setting: string; title: string; family: string; value: unknown; unit: string }[];
  left: { setting: string; title: string; class: string; reason: string }[];
  unknown: Record<string, string>;
  residual: { maxDeltaE: number; p95DeltaE: number; meanDeltaE: number };
}

async function presetVersion(id: string) {
  const version = await q.versionById(pool(), id);
  if (!version) throw new Problem('not-found', 'There is no such version.', id, 'Go back to Shelves.');
  if (version.kind !== 'preset')
    throw new Problem('convert-kind', `${version.title} is no preset.`, version.title, 'Choose a preset.');
  return version;
}

const titleOf = (setting: string): string => settingById.get(setting)?.title ?? setting;

/** What a table is made from: the settings, and the look that they call, where that is held. */
async function presetSource(version: LookSource): Promise<PresetSource> {
  const source = await tableSource(version);
  if (source.kind !== 'preset') throw new Error('a preset is made into a table by its settings');
  return source;
}

/** What the conversion would carry and leave, with the residual at the size; `wanted` narrows the settings. */
export async function previewConversion(
  person: Person,
  versionId: string,
  size: number,
  wanted?: string[],
): Promise<ConversionView> {
  allow(person, 'item.convert');
  const version = await presetVersion(versionId);
  const source = await presetSource(version);
  const all = split(source.settings, source.classes);
  const { residual } = await compute('baked', { source, size, title: version.title, wanted });
  const isCarried = (setting: string) => setting === 'look' && !!source.called;
  const called = source.called ? { look: source.settings.look } : {};
  return {
    carried: Object.entries({ ...all.kept, ...called }).map(([id, value]) => ({
      setting: id,
      title: titleOf(id),
      family: must(settingById.get(id)).family,
      value,
      unit: must(settingById.get(id)).unit,
    })),
    left: all.left.filter(({ setting }) => !isCarried(setting)).map((one) => ({ ...one, title: titleOf(one.setting) })),
    unknown: version.facts.unknown as Record<string, string>,
    residual: { maxDeltaE: residual.maxDeltaE, p95DeltaE: residual.p95DeltaE, meanDeltaE: residual.meanDeltaE },
  };
}

/** Bakes the preset into a `.cube` look: a draft on the preset's shelf that knows its source and recipe. */
export async function convertPreset(
  person: Person,
  { versionId, ...input }: { versionId: string } & BodyOf<'POST /api/versions/:id/convert'>,
): Promise<{ itemId: string; versionId: string }> {
  allow(person, 'item.convert');
  const wanted = checked(versionEndpoints['POST /api/versions/:id/convert'].body, input);
  const version = await presetVersion(versionId);
  const title = wanted.title || version.title;
  const baked = await compute('baked', {
    source: await presetSource(version),
    size: wanted.size,
    title,
    wanted: wanted.settings as string[] | undefined,
  });
  const carried = [...Object.keys(baked.kept), ...(baked.takesLook ? ['look'] : [])];
  if (!carried.length)
    throw new Problem(
      'convert-empty',
      'Nothing would be left of this preset in a look.',
      version.title,
      'Choose at least one setting that a table can carry.',
    );
  const source = must(await q.itemById(pool(), version.item_id, person.id));
  await allowUnderLicence(person, source, 'convert');
  const { residual } = baked;
  return transaction(async (sql) => {
    const sha = await putBlob(sql, baked.bytes);
    const made = await createItem(sql, actorOf(person), {
      kind: 'look',
      title,
      headings: version.headings,
      ...takenOver(source),
      sha,
      fileName: `${title}.cube`,
      format: 'cube',
      selvedge: baked.threads,
      encoding: computedEncoding,
      ...(baked.kept.monochrome ? { result: 'monochrome' as const } : {}),
      notes: `made from the preset ${version.title}, version ${version.number}`,
      facts: {
        kind: '3d',
        size: wanted.size,
        domain: baked.domain,
        range: baked.range,
        fileTitle: title,
        comments: [],
        warnings: [],
        tableError: residual,
        left: baked.left,
      },
    });
    await q.insertLineage(sql, made.versionId, version.id, {
      tool: 'bake',
      size: wanted.size,
      settings: carried,
      left: baked.left,
      tableError: residual,
    });
    await record(
      sql,
      actorOf(person),
      'item',
      made.itemId,
      'converted',
      { source: version.id },
      { title, size: wanted.size },
    );
    return made;
  });
}
