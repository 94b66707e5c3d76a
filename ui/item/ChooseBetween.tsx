'use client';
import { fieldWord } from '@/core/item/fields';
import { valueWords, type FieldConflict } from './model/edit-form';

interface Props {
  conflicts: readonly FieldConflict[];
  /** the fields of which theirs is taken */ theirs: ReadonlySet<string>;
  onTheirs: (theirs: ReadonlySet<string>) => void;
}

/** Fields that two people changed at once: one's own, or theirs. */
export function ChooseBetween({ conflicts, theirs, onTheirs }: Props) {
  const take = (field: string, isTheirs: boolean) => {
    const next = new Set(theirs);
    if (isTheirs) next.add(field);
    else next.delete(field);
    onTheirs(next);
  };
  return conflicts.map(({ field, mine, theirs: other }) => (
    <fieldset key={field} className="mb-2 border-t border-line pt-2">
      <legend className="text-[12px] text-soft">{fieldWord(field)}</legend>
      <label className="mr-6">
        <input type="radio" name={`merge-${field}`} checked={!theirs.has(field)} onChange={() => take(field, false)} />{' '}
        mine: <b className="font-medium">{valueWords(mine)}</b>
      </label>
      <label>
        <input type="radio" name={`merge-${field}`} checked={theirs.has(field)} onChange={() => take(field, true)} />{' '}
        theirs: <b className="font-medium">{valueWords(other)}</b>
      </label>
    </fieldset>
  ));
}
