/** Renditions: made once for (version, editor version, recipe, code version), then the same bytes for ever. */
import { must } from '@/core/must';
import { createHash } from 'node:crypto';
import type { Accepts } from '@/core/editor/accepts';
import type { Descriptor } from '@/core/editor/descriptor';
import { scopeToWrite } from '@/core/item/forms';
import { render, RENDITION_CODE } from '@/core/editor/rendition';
import type { Look } from '@/core/look/look';
import { getBlob, hex, putBlob } from '../blobs/service';
import type { Sql } from '../db/pool';
import type { versionById } from '../items/queries';
import { lookOf } from '../items/service';
import * as q from './queries';

type Version = NonNullable<Awaited<ReturnType<typeof versionById>>>;

/** Looks read already, for a plan that makes many renditions of few versions. */
export type Looks = Map<string, Look>;

/** The recipe is all that the bytes depend on beside the version's content: the writer, and what the item writes into the file. */
export async function renditionFor(
  sql: Sql,
  version: Version,
  descriptor: Descriptor,
  accepts: Accepts,
  looks: Looks = new Map(),
): Promise<q.RenditionRow> {
  const inside = {
    title: version.title,
    headings: version.headings,
    position: version.position,
    scope: scopeToWrite(version, version),
    encoding: version.encoding,
  };
  const recipe = createHash('sha256')
    .update(JSON.stringify([accepts.writer, accepts.writer.asIs ? null : inside]))
    .digest();
  const key: q.RenditionKey = {
    version: version.id,
    editor: descriptor.editor,
    editorVersion: descriptor.version,
    recipe,
    code: RENDITION_CODE,
  };
  const had = await q.renditionOf(sql, key);
  if (had) return had;
  if (version.kind === 'look' && !looks.has(version.id)) looks.set(version.id, await lookOf(version, sql));
  const made = render(accepts, {
    ...inside,
    id: hex(version.sha256).slice(0, 32),
    bytes: await getBlob(version.sha256, sql),
    ...(version.kind === 'look' ? { look: must(looks.get(version.id)) } : {}),
  });
  const sha = await putBlob(sql, made.bytes);
  await q.insertRendition(sql, key, {
    sha256: sha,
    size: made.bytes.length,
    points: made.size,
    residual: made.residual,
  });
  return must(await q.renditionOf(sql, key));
}
