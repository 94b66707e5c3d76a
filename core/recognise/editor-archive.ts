/** Archives that are an editor's own kind of file. */
import type { Descriptor } from '../editor/descriptor';
import { memberNames } from '../look/archive';

/** An editor's own archive has a few members; one with more is a pack. */
const MOST_MEMBERS = 50;

export interface EditorArchive {
  descriptor: Descriptor;
  /** the member that says what it is, as JSON */ about: string | null;
}

/** The descriptor whose own kind of archive these bytes are: all of its members are there. */
export function archiveEditor(bytes: Uint8Array, descriptors: readonly Descriptor[]): EditorArchive | null {
  const names = memberNames(bytes);
  if (!names || names.length > MOST_MEMBERS) return null;
  // editions may share a form; then the newest counts
  const newestFirst = [...descriptors].sort((a, b) => b.version.localeCompare(a.version, 'en', { numeric: true }));
  for (const descriptor of newestFirst)
    for (const { writer } of descriptor.accepts) {
      const members = writer.archive?.members ?? [];
      if (members.length && members.every((member) => names.includes(member.name)))
        return { descriptor, about: members.find((member) => member.json)?.name ?? null };
    }
  return null;
}
