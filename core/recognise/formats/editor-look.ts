/** Looks in an editor's own archive. */
import { editorKey } from '../../editor/descriptor';
import { identityIn } from '../../item/identity';
import { member } from '../../look/archive';
import { readLook } from '../../look/read';
import { archiveEditor } from '../editor-archive';
import { baseName, headingsIn, lookFacts, recognised, type Format } from '../recognised';
import { ZIP } from './signatures';

interface About {
  title?: string;
  headings?: unknown;
  scope?: unknown;
  description?: unknown;
  creator?: unknown;
  rights?: unknown;
  web?: unknown;
}

/** What the archive says of itself; nothing where that cannot be read: the table alone then. */
function aboutIn(bytes: Uint8Array, name: string | null): About {
  try {
    const text = new TextDecoder().decode(member(bytes, name ?? '') ?? new Uint8Array());
    return JSON.parse(text) as About;
  } catch {
    return {};
  }
}

export const editorLook: Format = {
  id: 'editor-look',
  find: (file) => {
    const own = ZIP.test(file.start) ? archiveEditor(file.bytes, file.descriptors) : null;
    if (!own) return null;
    const { title } = own.descriptor;
    const look = readLook(file.bytes);
    const about = aboutIn(file.bytes, own.about);
    return recognised(file, 'look', editorKey(own.descriptor), `look of ${title}, ${look.size} points`, {
      title: about.title ?? (look.title || baseName(file.path)),
      headings: headingsIn(about.headings),
      evidence: [`archive with the members of a look of ${title}`],
      look,
      facts: {
        ...lookFacts(look),
        fileTitle: about.title ?? '',
        fileHeadings: about.headings ?? [],
        fileScope: about.scope ?? null,
        identity: identityIn({ ...about, webStatement: about.web }),
      },
    });
  },
};
