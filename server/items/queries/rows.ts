/** Items and versions as they are read. */
import type { Trim } from '@/core/bench/measure';
import type { ItemSource, Shape } from '@/core/item/fields';
import type { Encoding } from '@/core/look/look';
import type { ItemKind } from '@/core/recognise';

export type Kind = ItemKind;

/** A saved search, as the address of Shelves has it. */
export type SavedSearch = Record<string, string>;

export interface ShelfRow {
  id: string;
  name: string;
  note: string;
  position: number;
  items: number;
  query: SavedSearch | null;
  away: boolean;
}

export interface ItemRow {
  id: string;
  kind: Kind;
  title: string;
  short_title: string;
  sort_title: string;
  headings: string[];
  position: number;
  description: string;
  intention: string;
  /** a trim that a verdict has kept with it */ compensation: Trim | null;
  creator: string;
  rights: string;
  web_statement: string;
  contact: string;
  supplier: string;
  tags: string[];
  aliases: string[];
  notes: string;
  scope: { input?: string | null; result?: string | null };
  /** its newest version leaves no color; null where that is not known */ gray: boolean | null;
  cameras: string[];
  lenses: string[];
  origin: string;
  source: ItemSource;
  licence_id: string | null;
  licence: string | null;
  shelf_id: string;
  shelf: string;
  strength_least: number;
  strength_usual: number;
  strength_most: number;
  revision: number;
  created_at: Date;
  archived_at: Date | null;
  merged_into: string | null;
  mine: boolean;
  house: boolean;
}

export interface VersionRow {
  variant: string;
  id: string;
  item_id: string;
  number: number;
  sha256: Buffer;
  size: number;
  file_name: string;
  format: string;
  facts: Record<string, unknown>;
  selvedge: [string, string][] | null;
  encoding: Encoding | null;
  encoding_confirmed_by: string | null;
  encoding_confirmed_at: Date | null;
  status: 'draft' | 'approved' | 'retired';
  notes: string;
  author: string | null;
  author_id: string | null;
  approver: string | null;
  created_at: Date;
}

export const casts: Record<Shape['is'], string> = {
  line: 'text',
  text: 'text',
  choice: 'text',
  whole: 'integer',
  list: 'text[]',
  licence: 'uuid',
  scope: 'jsonb',
  source: 'jsonb',
};

export interface VersionItem {
  title: string;
  kind: Kind;
  headings: string[];
  position: number;
  scope: Record<string, unknown>;
  cameras: string[];
  supplier: string;
  licence_id: string | null;
  archived_at: Date | null;
}

export interface LineRow {
  version_id: string;
  item_id: string;
  title: string;
  number: number;
  kind: Kind;
  recipe: Record<string, unknown>;
  newest: number;
  selvedge: [string, string][] | null;
}
