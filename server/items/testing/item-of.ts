/** An item made of a file's text, for tests: told by its content, as an arrival tells it. */
import { recognise } from '@/core/recognise';
import { putBlob } from '../../blobs/service';
import { transaction } from '../../db/pool';
import { people } from '../../db/testing/database';
import { descriptors } from '../../editors/service';
import { actorOf } from '../../people/roles';
import { createItem } from '../create';

interface Made {
  itemId: string;
  versionId: string;
}
interface Said {
  shelfId: string;
  /** as the file says where they are left out */ title?: string;
  headings?: string[];
  supplier?: string;
}

export async function itemOf(text: string, name: string, said: Said): Promise<Made> {
  const bytes = Buffer.from(text);
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
      facts: recognised.facts,
      selvedge: null,
      notes: '',
    }),
  );
}
