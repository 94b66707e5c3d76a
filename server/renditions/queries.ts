import { v7 } from 'uuid';
import type { Sql } from '../db/pool';
import { maybe } from '../db/query';

/** Color differences in ΔE00 between what was asked for and what the written file holds. */
interface Residual {
  maxDeltaE: number;
  p95DeltaE: number;
  meanDeltaE: number;
}

export interface RenditionRow {
  id: string;
  sha256: Buffer;
  size: number;
  points: number | null;
  residual: Residual | null;
}

/** All that a rendition's bytes depend on. */
export interface RenditionKey {
  version: string;
  editor: string;
  editorVersion: string;
  recipe: Buffer;
  code: number;
}

const valuesOf = (key: RenditionKey): unknown[] => [key.version, key.editor, key.editorVersion, key.recipe, key.code];

export const renditionOf = (sql: Sql, key: RenditionKey): Promise<RenditionRow | undefined> =>
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
    valuesOf(key),
  );

/** One that was made by somebody else meanwhile stays. */
export const insertRendition = (sql: Sql, key: RenditionKey, made: Omit<RenditionRow, 'id'>) =>
  sql.query(
    `
      insert into
        rendition (
          version_id, editor_id, editor_version, recipe_sha256, code_version, id, sha256, size,
          points, residual
        )
      values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
      on conflict do nothing
    `,
    [...valuesOf(key), v7(), made.sha256, made.size, made.points, made.residual ? JSON.stringify(made.residual) : null],
  );
