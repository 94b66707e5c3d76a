/** SQL of editors that agents look for on their machines. */
import type { System } from '@/core/editor/place-schema';
import { many } from '../db/query';
import type { Sql } from '../db/pool';

/** The lists that editors write of themselves on a system, as templates; of cards there are none to be found. */
export const ownLists = (sql: Sql, system: System): Promise<{ editor: string; list: string }[]> =>
  many<{ editor: string; list: string }>(sql, {
    name: 'own lists of editors',
    text: `
      select id || '@' || version as editor, descriptor #>> array['listing', $1] as list
      from editor
      where descriptor #>> array['listing', $1] is not null
        and descriptor ->> 'kind' = 'editor'
      order by 1
    `,
    values: [system],
  });

/** @param ids as "editor@version" */
export const titlesOf = (sql: Sql, ids: readonly string[]): Promise<{ id: string; title: string }[]> =>
  many<{ id: string; title: string }>(
    sql,
    `
      select id || '@' || version as id, coalesce(descriptor ->> 'title', id) as title
      from editor
      where id || '@' || version = any ($1::text[])
      order by 2
    `,
    [ids],
  );
