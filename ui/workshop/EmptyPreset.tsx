'use client';
/** Into which empty preset others are written: that of the descriptor, or one that is made of a sample. */
import type { Descriptor } from '@/core/editor/descriptor';
import type { Draft } from './model/draft';

interface Props {
  draft: Draft;
  descriptor: Descriptor;
  onChoose: (sample: string) => void;
}

export function EmptyPreset({ draft, descriptor, onChoose }: Props) {
  const own = draft.descriptor?.presets?.template;
  const template = descriptor.presets?.template;
  return (
    <div className="mb-4 max-w-[760px]">
      <label className="flex items-center gap-2">
        Presets are written into
        <select className="field" value={draft.emptyOf} onChange={(event) => onChoose(event.target.value)}>
          <option value="">
            {own ? 'the empty preset that the editor has already' : 'nothing: they are only read'}
          </option>
          {draft.samples.map(({ name }) => (
            <option key={name} value={name}>
              {name}, emptied of all that is mapped
            </option>
          ))}
        </select>
      </label>
      {template && (
        <details className="mt-1">
          <summary className="cursor-pointer text-[12px] text-soft">The empty preset</summary>
          <pre className="mt-1 max-h-[200px] overflow-auto border border-line bg-sheet p-2 text-[12px]" tabIndex={0}>
            {template}
          </pre>
        </details>
      )}
    </div>
  );
}
