'use client';
/** What narrows the list: facets, one's ribbons, what was used lately, what is new. */
import Link from 'next/link';
import { call } from '../kit/call';
import { Facets } from './Facets';
import { count } from './model/spine';
import { useShelves } from './shelves-context';

/** So many that are new are counted: more are many. */
const MOST_FRESH = 200;

export function NarrowDown() {
  const { total, filtered, fresh, params, go, result, shelf, view, may, ask } = useShelves();
  if (!total && !filtered) return null;
  return (
    <div className="mb-4 flex flex-wrap items-center gap-2" role="group" aria-label="Narrow down">
      <Facets facets={result.counts.facets} get={(key) => params.get(key)} set={(key, value) => go({ [key]: value })} />
      <Switch words="With ribbon" name="ribbon" value="any" />
      <Switch words="Recent" name="recent" value="1" />
      {(fresh > 0 || params.get('fresh')) && (
        <Switch words={`New to you ${count(Math.min(fresh, MOST_FRESH), fresh > MOST_FRESH)}`} name="fresh" value="1" />
      )}
      {fresh > 0 && params.get('fresh') && <SeenButton />}
      {filtered && !shelf && (
        <Link prefetch={false} href={view === 'table' ? '/shelves?view=table' : '/shelves'} className="button quiet">
          Show all
        </Link>
      )}
      {filtered && !params.get('shelf') && may.shelf && (
        <button className="button quiet" onClick={() => ask({ what: 'save the search' })}>
          Save as a shelf
        </button>
      )}
    </div>
  );
}

function Switch({ words, name, value }: { words: string; name: string; value: string }) {
  const { params, go } = useShelves();
  const on = params.get(name) === value;
  return (
    <button className="chip" aria-pressed={on} onClick={() => go({ [name]: on ? null : value })}>
      {words}
    </button>
  );
}

function SeenButton() {
  const { action, go } = useShelves();
  const seen = async () => {
    await action.runAndRefresh(() => call('POST /api/items/seen'), 'What comes from now on is new');
    go({ fresh: null });
  };
  return (
    <button className="button quiet" onClick={() => void seen()}>
      I have seen them
    </button>
  );
}
