/** What lies twice at a station in one editor's folders: the same bytes, or two of ours that do the same. */
import { groupBy } from '../lists';

export interface FileThere {
  path: string;
  /** the editor in whose folders it lies */ editor: string;
  sha: string;
  /** null for a file that Etagere did not put there */ ours: { item: string; title: string } | null;
}
export interface Twice {
  how: 'bytes' | 'effect';
  /** one of ours */ keep: FileThere;
  others: FileThere[];
}

/** The shorter path first: copies have names to which something was added. */
const byPath = (one: FileThere, other: FileThere): number =>
  one.path.length - other.path.length || (one.path < other.path ? -1 : 1);
/** Ours first, since they are looked after; then by path. */
const oursFirst = (one: FileThere, other: FileThere): number =>
  Number(other.ours !== null) - Number(one.ours !== null) || byPath(one, other);

/** Files of theirs alone are nobody's business here. */
function sameBytes(files: readonly FileThere[]): Twice[] {
  return [...groupBy(files, ({ editor, sha }) => `${editor} ${sha}`).values()].flatMap((all) => {
    const [keep, ...others] = [...all].sort(oursFirst);
    return keep?.ours && others.length ? [{ how: 'bytes' as const, keep, others }] : [];
  });
}

/** Each with those that are near to it, and with none twice. */
function sameEffect(kept: readonly FileThere[], isNear: (one: string, other: string) => boolean): Twice[] {
  const taken = new Set<FileThere>();
  return kept.flatMap((keep) => {
    if (taken.has(keep)) return [];
    const others = kept.filter(
      (other) =>
        other !== keep &&
        !taken.has(other) &&
        other.editor === keep.editor &&
        other.ours !== null &&
        keep.ours !== null &&
        other.ours.item !== keep.ours.item &&
        isNear(keep.ours.item, other.ours.item),
    );
    if (!others.length) return [];
    for (const one of [keep, ...others]) taken.add(one);
    return [{ how: 'effect' as const, keep, others }];
  });
}

/**
 * @param isNear whether two items have one effect, and nobody said that this is meant
 * @returns those of the same bytes first; what goes by its bytes is not told once more by its effect
 */
export function duplicatesThere(files: readonly FileThere[], isNear: (one: string, other: string) => boolean): Twice[] {
  const bytes = sameBytes(files);
  const going = new Set(bytes.flatMap(({ others }) => others));
  const kept = files.filter((file) => file.ours && !going.has(file)).sort(byPath);
  return [...bytes, ...sameEffect(kept, isNear)];
}
