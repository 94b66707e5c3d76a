/** Files at a station that its reports cannot tell of, with the names of the first. */
import type { LeftOut } from '@/core/sync/left-out';
import { counted } from '../kit/words';

export function LeftOutOfReport({ leftOut: { count, examples } }: { leftOut: LeftOut }) {
  if (!count) return null;
  const more = count - examples.length;
  return (
    <details className="mb-6 border-l-2 border-ochre pl-3">
      <summary className="cursor-pointer">
        {counted(count, 'file')} there cannot be listed: a name has a character that is not allowed here, or there are
        too many files. Rename {count === 1 ? 'it' : 'them'} at the station.
      </summary>
      <ul className="mt-1 font-mono text-[12px]">
        {examples.map((name) => (
          <li key={name} className="[overflow-wrap:anywhere]">
            {name}
          </li>
        ))}
      </ul>
      {more > 0 && <p className="text-[12px] text-soft">and {more.toLocaleString('en')} more</p>}
    </details>
  );
}
