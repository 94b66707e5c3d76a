import Link from 'next/link';
import { recipeIn } from '@/core/conversion/recipe';
import type { LineRow } from '@/server/items/service';
import { may } from '@/server/people/roles';
import { presetLanguages } from '@/server/versions/preset-forms';
import { recipeWords, type Language } from '@/ui/conversions/model/recipe-words';
import { MakeAgain } from '@/ui/item/MakeAgain';
import { Selvedge } from '@/ui/kit/Selvedge';
import { lineageOfRequest, personOfRequest } from '../request';

/** What the item was made from and how, and what was made from it; what is stale is made again from here. */
export async function Lineage({ id }: { id: string }) {
  const { sources, results } = await lineageOfRequest(id);
  if (!sources.length && !results.length) return null;
  const person = await personOfRequest();
  const languages = await presetLanguages(person);
  const mayConvert = may(person, 'item.convert');
  return (
    <>
      <h2 className="mb-1 mt-5 text-[17px]">Lineage</h2>
      <ul>
        {sources.map((line) => (
          <Line key={line.version_id} line={line} word="made from" languages={languages}>
            {mayConvert && isStale(line) && recipeIn(line.recipe) && <MakeAgain itemId={id} />}
          </Line>
        ))}
        {results.map((line) => (
          <Line key={line.version_id} line={line} word="became the" languages={languages} />
        ))}
      </ul>
    </>
  );
}

const isStale = ({ newest, number }: LineRow): boolean => newest > number;

interface LineProps {
  line: LineRow;
  word: string;
  languages: readonly Language[];
  children?: React.ReactNode;
}

function Line({ line, word, languages, children }: LineProps) {
  const recipe = recipeIn(line.recipe);
  const by = recipe ? `, by the recipe: ${recipeWords(recipe, languages)}` : '';
  const stale = isStale(line) ? `; stale, version ${line.newest} is there` : '';
  return (
    <li className="flex flex-wrap items-center gap-3 border-t border-line py-2">
      <Selvedge threads={line.selvedge} className="h-[34px] w-[40px] shrink-0" />
      <span className="min-w-0 flex-1">
        <Link className="font-serif text-[15px] underline" href={`/items/${line.item_id}`}>
          {line.title}
        </Link>
        <span className="block text-[12px] text-soft">
          {word} {line.kind} version {line.number}
          {by}
          {stale}
        </span>
      </span>
      {children}
    </li>
  );
}
