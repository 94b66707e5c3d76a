/** Presets that call an item by its name, told above its title: with another one they would not find it in the editors any more. */
import type { AnswerOf } from '@/core/api';

interface Props {
  presets: AnswerOf<'GET /api/items/:id/referring'>['presets'];
  /** whether they are written anew with the new name */ anew: boolean;
  onAnew: (anew: boolean) => void;
}

export function Callers({ presets, anew, onAnew }: Props) {
  const named = presets.map(({ title, editor }) => `${title} (${editor})`).join(', ');
  return (
    <div role="note" className="mb-3 border border-line-strong p-3">
      <p>
        {presets.length === 1 ? 'A preset calls it' : `${presets.length} presets call it`} by its name: {named}. An
        editor finds it by that name alone.
      </p>
      <label className="mt-2 flex items-center gap-2">
        <input type="checkbox" checked={anew} onChange={(event) => onAnew(event.target.checked)} />
        If the title changes, write {presets.length === 1 ? 'it' : 'them'} anew with it, as a draft
      </label>
    </div>
  );
}
