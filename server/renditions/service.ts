/** Renditions: made once for (version, editor version, recipe, code version), then the same bytes for ever. */
import { must } from '@/core/must';
import { createHash } from 'node:crypto';
import { v7 } from 'uuid';
import type { Accepts, Descriptor } from '@/core/editor/descriptor';
import { render, RENDITION_CODE } from '@/core/editor/rendition';
import type { Look } from '@/core/look/look';
import { getBlob, hex, putBlob } from '../blobs/service';
import type { Sql } from '../db/pool';
import type { versionById } from '../items/queries';
import { lookOf } from '../items/service';
import { maybe } from '../db/query';

export interface RenditionRow {
  id: string;
  sha256: Buffer;
  size: number;
  points: number | null;
  residual: { maxDeltaE: number; p95DeltaE: number; meanDeltaE: number } | null;
}
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
): Promise<RenditionRow> {
  const inside = {
    title: version.title,
    headings: version.headings,
    position: version.position,
    scope: version.scope,
    encoding: version.encoding,
  };
  const recipe = createHash('sha256')
    .update(JSON.stringify([accepts.writer, accepts.writer.asIs ? null : inside]))
    .digest();
  const key = [version.id, descriptor.editor, descriptor.version, recipe, RENDITION_CODE];
  const find = async () =>
    maybe<RenditionRow>(
      sql,
      `
        select id, sha256, size, points, residual
        from rendition
        where version_id = $1
          and editor_id = $2
          and editor_version = $3
          and recipe_sha256 = $4
          and code_version = $5
      `,
      key,
    );
  const had = await find();
  if (had) return had;
  if (version.kind === 'look' && !looks.has(version.id)) looks.set(version.id, await lookOf(version, sql));
  const made = render(accepts, {
    ...inside,
    id: hex(version.sha256).slice(0, 32),
    bytes: await getBlob(version.sha256, sql),
    ...(version.kind === 'look' ? { look: must(looks.get(version.id)) } : {}),
  });
  const sha = await putBlob(sql, made.bytes);
  await sql.query(
    `
      insert into
        rendition (
          id, version_id, editor_id, editor_version, recipe_sha256, code_version, sha256, size,
          points, residual
        )
      values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
      on conflict do nothing
    `,
    [v7(), ...key, sha, made.bytes.length, made.size, made.residual ? JSON.stringify(made.residual) : null],
  );
  return must(await find());
}
