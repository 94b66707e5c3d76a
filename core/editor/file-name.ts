/** File names that every system takes: legal characters, length, no reserved name, unique, extension kept. */
import { allowedSigns } from './allowed-signs';
import { isDevice } from './own-folder';

/** A title as a file name with this extension. `allowed` are the signs that it may have, see `allowedSigns`. */
export function fileName(
  title: string,
  extension: string,
  rule: { max?: number; allowed?: string } = {},
  taken: ReadonlySet<string> = new Set(),
): string {
  const max = (rule.max ?? 120) - extension.length;
  let base = title.normalize('NFC');
  if (rule.allowed) {
    const isAllowed = allowedSigns(rule.allowed);
    base = base.normalize('NFKD').replace(/\s+/g, '_');
    base = [...base].filter(isAllowed).join('');
  }
  base = base
    .replace(/[\u007f-\u009f\u00ad\u200b-\u200f\u202a-\u202e\u2060-\u2069\ufeff]/g, '')
    .replace(/[\u0000-\u001f<>:"/\\|?*]/g, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[. ]+|[. ]+$/g, '');
  if (!base || isDevice(base)) base = `item${base ? `-${base}` : ''}`;
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
