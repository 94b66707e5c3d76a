/** An item made of a file's content, for tests: told by its content, as an arrival tells it. */
import { recognise } from '@/core/recognise';
import { putBlob } from '../../blobs/service';
import { transaction } from '../../db/pool';
import { people } from '../../db/testing/database';
import { descriptors } from '../../editors/service';
import { actorOf } from '../../people/roles';
import { addVersion, createItem } from '../create';

interface Made {
  itemId: string;
  versionId: string;
}
interface Said {
  shelfId: string;
  /** as the file says where they are left out */ title?: string;
  headings?: string[];
  supplier?: string;
  /** bodies that it is for */ cameras?: string[];
}

export async function itemOf(content: string | Uint8Array, name: string, said: Said): Promise<Made> {
  const bytes = Buffer.from(content as Uint8Array);
  const recognised = recognise(name, bytes, await descriptors());
  return transaction(async (sql) =>
    createItem(sql, actorOf(people.librarian), {
      kind: recognised.kind as 'look',
      title: said.title ?? recognised.title,
      headings: said.headings ?? recognised.headings,
      shelfId: said.shelfId,
      supplier: said.supplier ?? '',
      sha: await putBlob(sql, bytes),
      fileName: name,
      format: recognised.format,
      facts: { ...recognised.facts, ...(said.cameras ? { cameras: said.cameras } : {}) },
      selvedge: null,
      notes: '',
    }),
  );
}

/** A newer version of an item, of a file's content. */
export async function versionOf(itemId: string, content: string | Uint8Array, name: string): Promise<string> {
  const bytes = Buffer.from(content as Uint8Array);
  const { kind, format, facts } = recognise(name, bytes, await descriptors());
  return transaction(async (sql) =>
    addVersion(sql, actorOf(people.librarian), itemId, {
      kind: kind as 'look',
      sha: await putBlob(sql, bytes),
      fileName: name,
      format,
      facts,
      selvedge: null,
      notes: '',
    }),
  );
}
