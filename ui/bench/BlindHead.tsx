'use client';
/** The head of a column that nobody is to know: its letter, and the choice. Whatever could tell it from the others is left out. */
import { useBench } from './bench-context';

export function BlindHead({ index, name }: { index: number; name: string }) {
  const { may, ask } = useBench();
  return (
    <div className="min-w-0 pb-1.5" data-column={name}>
      <h2 className="min-h-[36px] text-[15.5px] leading-[1.15]">{name}</h2>
      {may.judge && (
        <button className="button !h-[26px]" onClick={() => ask({ what: 'judge', column: index })}>
          Choose {name.split(' ').at(-1)}
        </button>
      )}
    </div>
  );
}
