// docs/schema.md, drawn from the database itself: bin/db schema
export function schema(psql) {
  const rows = (sql) =>
    psql(sql)
      .split('\n')
      .filter(Boolean)
      .map((l) => l.split('|'));
  const columns = rows(
    `
      select
        c.relname, a.attname, format_type(a.atttypid, a.atttypmod), a.attnotnull
      from pg_attribute a
        join pg_class c on c.oid = a.attrelid
        join pg_namespace n on n.oid = c.relnamespace
      where n.nspname = 'public'
        and c.relkind = 'r'
        and a.attnum > 0
        and not a.attisdropped
        and c.relname <> 'schema_migration'
      order by c.relname, a.attnum
    `,
  );
  const keys = rows(
    `
      select c.relname, k.contype, pg_get_constraintdef(k.oid)
      from pg_constraint k
        join pg_class c on c.oid = k.conrelid
        join pg_namespace n on n.oid = c.relnamespace
      where n.nspname = 'public' and k.contype in ('p', 'f', 'u')
      order by c.relname, k.contype desc, pg_get_constraintdef(k.oid)
    `,
  );
  const out = ['# Schema', '', '<!-- Drawn from the database by `bin/db schema`; do not edit by hand. -->', ''];
  for (const table of [...new Set(columns.map((c) => c[0]))]) {
    out.push(
      `## ${table}`,
      '',
      '| column | type | |',
      '| --- | --- | --- |',
      ...columns
        .filter((c) => c[0] === table)
        .map(([, name, type, needed]) => `| ${name} | ${type} | ${needed === 't' ? '' : 'may be null'} |`),
      '',
      ...keys.filter((k) => k[0] === table).map(([, , def]) => `- ${def}`),
      '',
    );
  }
  return out.join('\n');
}
