import type { ItemScope } from '@/core/item/fields';
import type { Encoding } from '@/core/look/look';
import type { Sql } from '../db/pool';
import { many } from '../db/query';
import type { Kind } from '../items/queries/rows';

export interface InspectedRow {
  id: string;
  version_id: string;
  number: number;
  title: string;
  kind: Kind;
  format: string;
  status: string;
  scope: Partial<ItemScope>;
  cameras: string[];
  icc_class: string | null;
  /** points an axis, of a 3D table */ points: number | null;
  encoding: Encoding | null;
}

/** By the newest version of each item. */
const inspected = `
  select
    i.id, v.id as version_id, v.number, i.title, i.kind, v.format, v.status, i.scope, i.cameras, v.encoding,
    case when v.format = 'icc' then v.facts ->> 'class' end as icc_class,
    case when i.kind = 'look' and v.facts ->> 'kind' = '3d' then (v.facts ->> 'size')::int end as points
  from item i
    join version v on v.id = i.newest_version_id
`;

/** Items in the order in which they are given. */
export const inspectedItems = (sql: Sql, items: readonly string[]): Promise<InspectedRow[]> =>
  many<InspectedRow>(
    sql,
    `
      ${inspected}
        join unnest($1::uuid[]) with ordinality asked (id, place) on asked.id = i.id
      where i.archived_at is null
      order by asked.place
    `,
    [items],
  );

export const inspectedInPack = (sql: Sql, pack: string, most: number): Promise<InspectedRow[]> =>
  many<InspectedRow>(
    sql,
    `
      ${inspected}
      where i.archived_at is null
        and i.id in (
          select m.item_id
          from pack_member p
            join version m on m.id = p.version_id
          where p.pack_id = $1
        )
      order by i.sort_title, i.id
      limit $2
    `,
    [pack, most],
  );
