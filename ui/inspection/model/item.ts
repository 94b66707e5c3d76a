/** An item among those that are inspected together. */
import type { Inspection } from '@/core/look/inspect';

export interface InspectedItem {
  id: string;
  versionId: string;
  title: string;
  /** "look, version 2" */ about: string;
}

/** What is known of an item's health so far; `none` for kinds that have no table, or where its file cannot be read. */
export type Found = { is: 'waiting' } | { is: 'none' } | { is: 'found'; inspection: Inspection } | { is: 'failed' };

export type FoundOf = (item: InspectedItem) => Found;

/** Where items are inspected together, and held against a target. */
export function inspectionAddress(
  of: { items: readonly string[] } | { shelf: string } | { pack: string },
  target = '',
): string {
  const asked = 'items' in of ? { items: of.items.join(',') } : of;
  const params = new URLSearchParams({ ...asked, ...(target ? { target } : {}) });
  return `/convert/inspection?${params.toString().replaceAll('%2C', ',')}`;
}
