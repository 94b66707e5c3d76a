/** Preset → look: what would go in, what is left out and why, how far the table is off, and the draft item that results. */
import type { BodyOf } from '@/core/api';
import { versionEndpoints } from '@/core/api/versions';
import { must } from '@/core/must';
import { split, type ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { settingById } from '@/core/preset/settings';
import { Problem } from '@/core/problem';
import { putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { record } from '../activity/queries';
import { allowUnderLicence } from '../licences/service';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { compute } from '../threads/computing';
import { createItem } from '../items/create';
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

/** What the conversion would carry and leave, with the residual at the size; `wanted` narrows the settings. */
export async function previewConversion(
  person: Person,
  versionId: string,
  size: number,
  wanted?: string[],
): Promise<ConversionView> {
  allow(person, 'item.convert');
  const version = await presetVersion(versionId);
  const settings = version.facts.settings as Settings;
  const classes = version.facts.classes as ClassOverrides;
  const all = split(settings, classes);
  const { residual } = await compute('baked', { settings, classes, size, title: version.title, wanted });
  const titled = (id: string) => settingById.get(id)?.title ?? id;
  return {
    carried: Object.entries(all.kept).map(([id, value]) => ({
      setting: id,
      title: titled(id),
      family: must(settingById.get(id)).family,
      value,
      unit: must(settingById.get(id)).unit,
    })),
    left: all.left.map((l) => ({ ...l, title: titled(l.setting) })),
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
    settings: version.facts.settings as Settings,
    classes: version.facts.classes as ClassOverrides,
    size: wanted.size,
    title,
    wanted: wanted.settings as string[] | undefined,
  });
  if (!Object.keys(baked.kept).length)
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
      shelfId: source.shelf_id,
      supplier: source.supplier,
      licenceId: source.licence_id,
      source: source.source,
      origin: source.origin,
      creator: source.creator,
      rights: source.rights,
      sha,
      fileName: `${title}.cube`,
      format: 'cube',
      selvedge: baked.threads,
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
      settings: Object.keys(baked.kept),
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
