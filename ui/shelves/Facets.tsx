'use client';
/** Facets as menus with counts; what is chosen stands beside them and is taken off with a click. */
import { ChevronDown, X } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { facetKeys } from '@/core/item/facets';
import { count, kindWords, type FacetCount } from './model/spine';

const menus: [string, string][] = [
  ['kind', 'Kind'],
  ['status', 'Status'],
  ['supplier', 'Supplier'],
  ['camera', 'Camera'],
  ['tag', 'Tag'],
];
const further: [string, string][] = [
  ['format', 'Format'],
  ['origin', 'Origin'],
  ['licence', 'Licence'],
  ['bound', 'Bound to a camera'],
  ['result', 'Result'],
  ['input', 'Input'],
  ['stale', 'Stale'],
  ['assumed', 'Encoding assumed'],
];
const titles = new Map([...menus, ...further]);
const word = (key: string, value: string): string => {
  if (key === 'kind') return kindWords[value] ?? value;
  if (key === 'format') return value.replace('@', ' ');
  if (key === 'bound' && value === 'no') return 'Bound to no camera';
  return value;
};
const item =
  'flex cursor-default items-center justify-between gap-6 px-3 py-1.5 outline-none data-[highlighted]:bg-verd-wash';
const panel = 'z-40 max-h-[60vh] min-w-[190px] overflow-auto border border-line bg-paper py-1';

interface Props {
  facets: FacetCount[];
  get: (key: string) => string | null;
  set: (key: string, value: string | null) => void;
}

export function Facets({ facets, get, set }: Props) {
  const values = (key: string) => facets.filter((f) => f.key === key).slice(0, 60);
  const list = (key: string) =>
    values(key).map((facetCount) => (
      <DropdownMenu.Item
        key={facetCount.value}
        className={item}
        onSelect={() => set(key, get(key) === facetCount.value ? null : facetCount.value)}
      >
        <span className="[overflow-wrap:anywhere]">{word(key, facetCount.value)}</span>
        <span className="text-soft">{count(facetCount.n, facetCount.more)}</span>
      </DropdownMenu.Item>
    ));
  const chosen = facetKeys.flatMap((facet) => {
    const value = get(facet);
    return value ? [[facet, value] as const] : [];
  });
  return (
    <>
      {menus.map(
        ([key, title]) =>
          values(key).length > 0 &&
          !get(key) && (
            <DropdownMenu.Root key={key} modal={false}>
              <DropdownMenu.Trigger className="chip">
                {title}
                <ChevronDown aria-hidden size={12} />
              </DropdownMenu.Trigger>
              <DropdownMenu.Portal>
                <DropdownMenu.Content
                  align="start"
                  sideOffset={4}
                  className={panel}
                  style={{ boxShadow: 'var(--shade)' }}
                >
                  {list(key)}
                </DropdownMenu.Content>
              </DropdownMenu.Portal>
            </DropdownMenu.Root>
          ),
      )}
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger className="chip">
          More
          <ChevronDown aria-hidden size={12} />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="start" sideOffset={4} className={panel} style={{ boxShadow: 'var(--shade)' }}>
            {further.map(
              ([key, title]) =>
                values(key).length > 0 && (
                  <DropdownMenu.Group key={key}>
                    <DropdownMenu.Label className="px-3 pb-0.5 pt-2 text-[12px] text-soft">{title}</DropdownMenu.Label>
                    {list(key)}
                  </DropdownMenu.Group>
                ),
            )}
            <DropdownMenu.Separator className="my-1 h-px bg-line" />
            <DropdownMenu.Item className={item} onSelect={() => set('archived', get('archived') ? null : '1')}>
              {get('archived') ? 'Leave the archive' : 'Look into the archive'}
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {chosen.map(([facet, value]) => (
        <button
          key={facet}
          className="chip"
          aria-pressed="true"
          aria-label={`${titles.get(facet)}: ${word(facet, value)}, take off`}
          onClick={() => set(facet, null)}
        >
          {value === 'yes' ? titles.get(facet) : word(facet, value)}
          <X aria-hidden size={12} />
        </button>
      ))}
      {get('archived') && (
        <button className="chip" aria-pressed="true" onClick={() => set('archived', null)}>
          In the archive
          <X aria-hidden size={12} />
        </button>
      )}
    </>
  );
}
