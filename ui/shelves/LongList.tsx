'use client';
/** What a search found, or all of one shelf: as one long shelf, or as a table. */
import { useCard } from './hooks/card';
import { useDropOn } from './hooks/drop';
import { HeadingsStrip } from './HeadingsStrip';
import { LongShelf } from './LongShelf';
import { foldedIn, withFolding, wordsOfHeadings } from './model/folded-headings';
import type { Spine } from './model/spine';
import { isOrdered, useShelves } from './shelves-context';
import { Table } from './Table';

/** A list that was not counted to its end is taken to be at most so long. */
const MOST_ROWS = 100_000;

export function LongList({ columns }: { columns: number }) {
  const { result, view, params } = useShelves();
  // with all headings folded, the headings themselves are still there
  if (!result.counts.n && !params.get('folded')) return null;
  return view === 'table' ? <ListAsTable /> : <ListAsShelf columns={columns} />;
}

function ListAsShelf({ columns }: { columns: number }) {
  const { shelf, result, params, go, current, setInView } = useShelves();
  const card = useCard();
  const ordered = isOrdered(shelf) ? shelf : null;
  const drop = useDropOn(ordered?.id ?? null);
  const inItsOrder = ordered !== null && !params.get('sort') && !params.get('q');
  const { n: count, more } = result.counts;
  const folded = foldedIn(params);
  const foldOf =
    ({ headings }: Spine) =>
    () =>
      go({ folded: withFolding(folded, wordsOfHeadings(headings), true) });
  return (
    <div {...drop}>
      {inItsOrder && <HeadingsStrip shelf={ordered.id} />}
      <LongShelf
        search={result.search}
        first={result.spines}
        total={more && !folded.size ? Math.max(count, ordered?.items ?? 0) : count}
        columns={columns}
        labelled={ordered !== null && !params.get('sort')}
        render={(spine, standing) => card(spine, { ...standing, onFold: inItsOrder ? foldOf(spine) : null })}
        current={current}
        onRows={setInView}
      />
    </div>
  );
}

function ListAsTable() {
  const { shelf, result, params, go, current, selection, toggle, lookAt, onSpineKey, setInView, may } = useShelves();
  let usualSort = 'title';
  if (isOrdered(shelf)) usualSort = 'shelf';
  else if (params.get('recent')) usualSort = '';
  return (
    <Table
      search={result.search}
      first={result.spines}
      total={result.counts.more ? MOST_ROWS : result.counts.n}
      sort={params.get('sort') ?? usualSort}
      down={params.get('down') === '1'}
      onSort={(sort, down) => go({ sort, down: down ? '1' : null })}
      current={current}
      chosen={new Set(selection.keys())}
      onChoose={toggle}
      onAt={lookAt}
      onKey={onSpineKey}
      onRows={setInView}
      may={may.edit || may.rollOut}
    />
  );
}
