/** File names that every system takes: legal characters, length, no reserved name, unique, extension kept. */
const RESERVED = /^(con|prn|aux|nul|com\d|lpt\d)$/i;

/** A title as a file name without extension. `allowed` is a set of characters as in a regular expression's brackets. */
export function fileName(
  title: string,
  extension: string,
  rule: { max?: number; allowed?: string } = {},
  taken: ReadonlySet<string> = new Set(),
): string {
  const max = (rule.max ?? 120) - extension.length;
  let base = title.normalize('NFC');
  if (rule.allowed)
    base = base
      .normalize('NFKD')
      .replace(/[\u0300-\u036f]/g, '')
      .replace(/\s+/g, '_')
      .replace(new RegExp(`[^${rule.allowed}]`, 'g'), '');

  base = base
    .replace(/[\u0000-\u001f<>:"/\\|?*]/g, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[. ]+|[. ]+$/g, '');
  if (!base || RESERVED.test(base)) base = `item${base ? `-${base}` : ''}`;
  const cut = (text: string, room: number): string => {
    let out = [...text].slice(0, room).join('');
    while (new TextEncoder().encode(out).length > 200) out = [...out].slice(0, -1).join('');
    return out.replace(/[. ]+$/, '');
  };
  let name = cut(base, max) + extension;
  for (let n = 2; taken.has(name.toLowerCase()); n++)
    name = cut(base, max - String(n).length - 1) + (rule.allowed ? '_' : ' ') + n + extension;
  return name;
}
