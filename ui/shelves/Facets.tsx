'use client';
/** Facets as menus with counts; what is chosen stands beside them and is taken off with a click. */
import { ChevronDown, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { facetKeys } from '@/core/item/facets';
import { Menu, MenuEntry, MenuGroup, MenuLine } from '../kit/Menu';
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
  ['pack', 'Pack'],
  ['release', 'Release'],
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
  if (key === 'bound' && value === 'general') return 'General profile, for every camera';
  if (key === 'bound' && value === 'no') return 'Bound to no camera';
  return value;
};
interface Props {
  facets: FacetCount[];
  get: (key: string) => string | null;
  set: (key: string, value: string | null) => void;
}

export function Facets({ facets, get, set }: Props) {
  const values = (key: string) => facets.filter((f) => f.key === key).slice(0, 60);
  const entries = (key: string) =>
    values(key).map((facetCount) => (
      <MenuEntry
        key={facetCount.value}
        words={word(key, facetCount.value)}
        beside={count(facetCount.n, facetCount.more)}
        onSelect={() => set(key, get(key) === facetCount.value ? null : facetCount.value)}
      />
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
            <FacetMenu key={key} title={title}>
              {entries(key)}
            </FacetMenu>
          ),
      )}
      <FacetMenu title="More">
        {further.map(
          ([key, title]) =>
            values(key).length > 0 && (
              <MenuGroup key={key} title={title}>
                {entries(key)}
              </MenuGroup>
            ),
        )}
        <MenuLine />
        <MenuEntry
          words={get('archived') ? 'Leave the archive' : 'Show the archive'}
          onSelect={() => set('archived', get('archived') ? null : '1')}
        />
      </FacetMenu>
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

const FacetMenu = ({ title, children }: { title: string; children: ReactNode }) => (
  <Menu title={title} after={<ChevronDown aria-hidden size={12} />} className="chip" align="start">
    {children}
  </Menu>
);
