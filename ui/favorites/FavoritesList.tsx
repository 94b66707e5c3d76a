/** An editor's short list as it would be: what stays, what comes, what goes, and what people there chose for themselves. */
import type { EntryMark } from '@/core/sync/ordered-lists';
import Link from 'next/link';

export interface Favorite {
  title: string;
  item: string | null;
  /** whether something lies there under the name */ isThere: boolean;
  mark: EntryMark;
  /** by whose ribbon; "" is the house's */ whose: string | null;
}

const says: Record<EntryMark, { word: string; tone: string }> = {
  both: { word: '', tone: '' },
  ours: { word: 'comes', tone: 'text-verd' },
  theirs: { word: 'their own', tone: 'text-soft' },
  removed: { word: 'goes', tone: 'text-ochre' },
  'taken-off': { word: 'taken off there', tone: 'text-ochre' },
};

/** Of more than these the first are shown. */
const MOST_SHOWN = 24;

const isInList = ({ mark }: Favorite): boolean => mark !== 'removed' && mark !== 'taken-off';

/** What is said of an entry beside its title. */
function wordsOf({ mark, whose, isThere }: Favorite): string {
  return [says[mark].word, whose ? `ribbon of ${whose}` : '', isThere ? '' : 'not there any more']
    .filter(Boolean)
    .join(', ');
}

export function FavoritesList({ entries, label }: { entries: readonly Favorite[]; label: string }) {
  const shown = entries.slice(0, MOST_SHOWN);
  if (!entries.length) return <span className="text-soft">nothing is in it, and no ribbon is on what lies there</span>;
  return (
    <>
      <ol aria-label={label} className="flex flex-wrap gap-x-4 gap-y-0.5">
        {shown.map((one, n) => (
          <li key={`${n} ${one.title}`} className="inline-flex items-baseline gap-1.5">
            {isInList(one) && <span className="text-[12px] tabular-nums text-soft">{n + 1}</span>} <Title one={one} />{' '}
            {wordsOf(one) && (
              <span className={`text-[12px] ${says[one.mark].tone || 'text-soft'}`}>{wordsOf(one)}</span>
            )}
          </li>
        ))}
      </ol>
      {entries.length > shown.length && (
        <span className="text-[12px] text-soft">and {entries.length - shown.length} more</span>
      )}
    </>
  );
}

function Title({ one: { title, item, mark } }: { one: Favorite }) {
  const gone = mark === 'removed' ? 'line-through' : '';
  if (!item) return <span className={`[overflow-wrap:anywhere] ${gone}`}>{title}</span>;
  return (
    <Link className={`font-serif text-[15px] [overflow-wrap:anywhere] hover:underline ${gone}`} href={`/items/${item}`}>
      {title}
    </Link>
  );
}
