'use client';
import { Ellipsis } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useConvert } from '../conversions/convert-action';
import { inspectionAddress } from '../inspection/model/item';
import { call } from '../kit/call';
import { Menu, MenuEntry } from '../kit/Menu';
import type { ShelfView } from './model/spine';
import { useShelves } from './shelves-context';

/** The order of all shelves after one of them has moved among those that are shown; null where it cannot. */
export function reordered(shelves: readonly ShelfView[], id: string, by: -1 | 1): string[] | null {
  const ids = shelves.map((shelf) => shelf.id);
  const shown = shelves.filter((shelf) => !shelf.away && !shelf.query).map((shelf) => shelf.id);
  const other = shown[shown.indexOf(id) + by];
  if (!shown.includes(id) || !other) return null;
  const a = ids.indexOf(id);
  const b = ids.indexOf(other);
  ids[a] = other;
  ids[b] = id;
  return ids;
}

/** What can be done with a shelf. */
export function ShelfMenu({ shelf }: { shelf: ShelfView }) {
  const { shelves, may, params, go, action, ask } = useShelves();
  const empty = shelf.items === 0;
  const { convert } = useConvert(action);
  const router = useRouter();
  const putAway = () =>
    void action.runAndRefresh(
      () => call('POST /api/shelves/:id/away', { id: shelf.id, body: { away: true } }),
      `${shelf.name} is put away`,
    );
  const moveBy = (by: -1 | 1) => {
    const ids = reordered(shelves, shelf.id, by);
    if (ids) void action.runAndRefresh(() => call('POST /api/shelves/order', { body: { shelves: ids } }));
  };
  const orderByHeadings = () =>
    void action.runAndRefresh(
      () => call('POST /api/shelves/:id/headings', { id: shelf.id }),
      `${shelf.name} is ordered by headings`,
    );
  const remove = async () => {
    const well = await action.runAndRefresh(
      () => call('DELETE /api/shelves/:id', { id: shelf.id }),
      `${shelf.name} is taken away`,
    );
    if (well && params.get('shelf') === shelf.id) go({ shelf: null });
  };
  return (
    <Menu
      title={`The shelf ${shelf.name}`}
      face={<Ellipsis aria-hidden size={14} />}
      className="button quiet !h-[22px] self-center"
      align="start"
    >
      <MenuEntry words="Put away, for me" onSelect={putAway} />
      <MenuEntry
        words="Inspect all of it"
        off={empty}
        onSelect={() => router.push(inspectionAddress({ shelf: shelf.id }))}
      />
      {may.convert && <MenuEntry words="Convert all of it" off={empty} onSelect={() => convert({ shelf: shelf.id })} />}
      {may.shelf && (
        <>
          <MenuEntry words="Rename" onSelect={() => ask({ what: 'rename the shelf', shelf })} />
          <MenuEntry words="Move up" onSelect={() => moveBy(-1)} />
          <MenuEntry words="Move down" onSelect={() => moveBy(1)} />
          <MenuEntry words="Order by headings" off={empty} onSelect={orderByHeadings} />
          <MenuEntry words="Take the shelf away" off={!empty} onSelect={() => void remove()} />
        </>
      )}
    </Menu>
  );
}
