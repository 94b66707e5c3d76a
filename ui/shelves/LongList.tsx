'use client';
/** What a search found, or all of one shelf: as one long shelf, or as a table. */
import { useCard } from './hooks/card';
import { useDropOn } from './hooks/drop';
import { LongShelf } from './LongShelf';
import { isOrdered, useShelves } from './shelves-context';
import { Table } from './Table';

/** A list that was not counted to its end is taken to be at most so long. */
const MOST_ROWS = 100_000;

export function LongList({ columns }: { columns: number }) {
  const { result, view } = useShelves();
  if (!result.counts.n) return null;
  return view === 'table' ? <ListAsTable /> : <ListAsShelf columns={columns} />;
}

function ListAsShelf({ columns }: { columns: number }) {
  const { shelf, result, params, setInView } = useShelves();
  const card = useCard();
  const ordered = isOrdered(shelf) ? shelf : null;
  const drop = useDropOn(ordered?.id ?? null);
  const { n: count, more } = result.counts;
  return (
    <div {...drop}>
      <LongShelf
        search={result.search}
        first={result.spines}
        total={more ? Math.max(count, ordered?.items ?? 0) : count}
        columns={columns}
        labelled={ordered !== null && !params.get('sort')}
        render={card}
        onRows={setInView}
      />
    </div>
  );
}

function ListAsTable() {
  const { shelf, result, params, go, selection, toggle, lookAt, onSpineKey, setInView, may } = useShelves();
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
      chosen={new Set(selection.keys())}
      onChoose={toggle}
      onAt={lookAt}
      onKey={onSpineKey}
      onRows={setInView}
      may={may.edit || may.rollOut}
    />
  );
}
