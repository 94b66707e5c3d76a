/** What a maker gives: a file with all that is known of it, not yet kept anywhere. */
import type { Outcome } from '@/core/conversion/outcome';
import type { Recipe } from '@/core/conversion/recipe';
import { editorKey, type Descriptor } from '@/core/editor/descriptor';
import type { Encoding } from '@/core/look/look';
import { Problem } from '@/core/problem';
import type { Sql } from '../../db/pool';
import { descriptors } from '../../editors/service';
import type { ItemRow, Kind, VersionItem, VersionRow } from '../../items/queries/rows';

/** What a conversion begins with. */
export interface Source {
  version: VersionRow & VersionItem;
  item: ItemRow;
  /** of a column of the bench: its layers from the lowest on, itself among them */ layers?: Layer[];
}

export interface Layer {
  source: Omit<Source, 'layers'>;
  /** percent */ strength: number;
  /** another encoding than the one that is recorded, in words */ assumed: string | null;
}

export interface Made {
  kind: Kind;
  bytes: Uint8Array;
  fileName: string;
  format: string;
  facts: Record<string, unknown>;
  selvedge: unknown;
  /** of a look, where its maker knows it */ encoding?: Encoding;
  /** where its maker knows better than the file */ result?: 'monochrome';
  notes: string;
  outcome: Outcome;
  /** figures that the lineage keeps beside the recipe */ figures: Record<string, unknown>;
  /** of the source's own item, under this name, instead of an item of its own */ variant?: string;
  /** the item that a companion calls */ calls?: string;
  /** how the log tells of it */ told: {
    action:
      'converted' | 'made in another form' | 'written for an editor' | 'made as a companion' | 'kept from the bench';
    after: Record<string, unknown>;
  };
}

/** @throws a Problem where the source cannot become what is asked for */
export type Maker<One extends Recipe> = (recipe: One, source: Source, title: string, sql: Sql) => Promise<Made>;

export const nameOfFile = (title: string, extension: string): string =>
  `${title.replace(/[^\p{L}\p{N} ()-]+/gu, '-')}${extension}`;

/** What a file of a preset is called: by its title, and as its editor knows it. */
export function presetFileName(title: string, { accepts, presets }: Descriptor): string {
  const own = accepts.find(({ kind }) => kind === 'preset')?.extension;
  return nameOfFile(title, own ?? `.${presets?.container ?? 'preset'}`);
}

export async function editorFor(key: string, sql: Sql): Promise<Descriptor> {
  const found = (await descriptors(sql)).find((one) => editorKey(one) === key);
  if (found) return found;
  throw new Problem(
    'editor-unknown',
    'There is no such editor.',
    key,
    'Choose one of those that are listed in Studio.',
  );
}
