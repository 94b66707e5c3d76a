import Link from 'next/link';
import type { LineRow } from '@/server/items/service';
import { Selvedge } from '@/ui/kit/Selvedge';
import { lineageOfRequest } from '../request';

/** What the item was made from, and what was made from it. */
export async function Lineage({ id }: { id: string }) {
  const { sources, results } = await lineageOfRequest(id);
  if (!sources.length && !results.length) return null;
  return (
    <>
      <h2 className="mb-1 mt-5 text-[17px]">Lineage</h2>
      <ul>
        {sources.map((line) => (
          <Line key={line.version_id} line={line} word="made from" />
        ))}
        {results.map((line) => (
          <Line key={line.version_id} line={line} word="became the" />
        ))}
      </ul>
    </>
  );
}

function Line({ line, word }: { line: LineRow; word: string }) {
  const baked = typeof line.recipe.size === 'number' ? `, baked at ${line.recipe.size} points` : '';
  const stale = line.newest > line.number ? `; stale, version ${line.newest} is there` : '';
  return (
    <li className="flex items-center gap-3 border-t border-line py-2">
      <Selvedge threads={line.selvedge} className="h-[34px] w-[40px] shrink-0" />
      <span>
        <Link className="font-serif text-[15px] underline" href={`/items/${line.item_id}`}>
          {line.title}
        </Link>
        <span className="block text-[12px] text-soft">
          {word} {line.kind} version {line.number}
          {baked}
          {stale}
        </span>
      </span>
    </li>
  );
}
