import Link from 'next/link';
import { favoritesFor, type FavoritesView } from '@/server/favorites/service';
import { signedInPerson } from '@/server/http';
import { may } from '@/server/people/roles';
import { PlanLists } from '@/ui/editor-lists/PlanLists';
import { listsShown, placesOf } from '@/ui/editor-lists/shown';
import { FavoritesList } from '@/ui/favorites/FavoritesList';
import { RibbonsForTheirs } from '@/ui/favorites/RibbonsForTheirs';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { counted } from '@/ui/kit/words';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Favorites' };

const keyOf = (view: FavoritesView): string => `${view.station.id} ${view.path}`;

/** Over how many rows the name of a list's station stands; 0 where it stands above. */
function headOf(lists: readonly FavoritesView[], n: number): number {
  const own = lists[n]?.station.id;
  if (lists[n - 1]?.station.id === own) return 0;
  return lists.filter(({ station }) => station.id === own).length;
}

export default async function Page() {
  const person = await signedInPerson();
  const lists = await favoritesFor(person);
  const due = lists.filter(({ state }) => state === 'update-due');
  const shown = listsShown(lists);
  const mayDo = {
    plan: may(person, 'rollout.plan'),
    mine: may(person, 'ribbon.own'),
    house: may(person, 'ribbon.house'),
  };
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['station', 'rollout', 'item']} />
      <PageHead
        title="Favorites"
        note={
          due.length
            ? `${counted(due.length, 'list')} of ${lists.length} would change`
            : `${counted(lists.length, 'list')}, each with what our ribbons ask for`
        }
      >
        <Link className="button" href="/ribbons">
          Ribbons
        </Link>
        {mayDo.plan && due.length > 0 && (
          <PlanLists
            main
            what="favorites"
            places={placesOf(due)}
            words={`Bring ${counted(due.length, 'list')} in step`}
          />
        )}
      </PageHead>
      <p className="mb-4 max-w-[760px] text-soft">
        Each editor keeps a short list of its own at each station. The ribbons of the house come into it, and those of
        the person who works there, as far as the items lie there. What people put into a list themselves stays in it;
        what they took off stays off.
      </p>
      {lists.length ? (
        <table className="list">
          <thead>
            <tr>
              <th>Station</th>
              <th>Editor</th>
              <th>List</th>
              <th>State</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((view, n) => (
              <ListRow key={keyOf(view)} view={view} mayDo={mayDo} head={headOf(shown, n)} />
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-2 text-soft">
          No editor at any station keeps favorites that a descriptor tells of.
        </p>
      )}
      {lists.length > shown.length && (
        <p className="mt-2 text-soft">and {lists.length - shown.length} more, at stations where nothing would change</p>
      )}
    </div>
  );
}

interface RowProps {
  view: FavoritesView;
  /** over how many rows its station’s name stands; 0 where it stands above */ head: number;
  mayDo: { plan: boolean; mine: boolean; house: boolean };
}

function ListRow({ view, mayDo, head }: RowProps) {
  const { station, editor, path, entries } = view;
  const where = `${station.name}, ${editor.title}, ${path}`;
  const theirs = entries.filter(({ mark, item }) => mark === 'theirs' && item);
  const off = entries.filter(({ mark }) => mark === 'taken-off');
  return (
    <tr data-list={`${station.name} ${path}`}>
      {head > 0 && (
        <td rowSpan={head} className="whitespace-nowrap">
          <Link className="font-serif text-[15px] hover:underline" href={`/stations/${station.id}`}>
            {station.name}
          </Link>
          {station.person && <span className="block text-[12px] text-soft">{station.person}</span>}
        </td>
      )}
      <td>
        {editor.title}
        <span className="block font-mono text-[11.5px] text-soft [overflow-wrap:anywhere]">{path}</span>
      </td>
      <td>{view.state === 'unread' ? '' : <FavoritesList entries={entries} label={`Favorites at ${where}`} />}</td>
      <td>
        <State of={view.state} />
        {view.reason && <span className="block text-[12px] text-soft">{view.reason}</span>}
        {view.theirOrder && <span className="block text-[12px] text-soft">in the order that they gave it</span>}
        <div className="flex flex-wrap gap-x-3">
          {mayDo.plan && view.state === 'update-due' && (
            <PlanLists
              what="favorites"
              places={placesOf([view])}
              words="Bring in step"
              label={`Bring in step: ${where}`}
            />
          )}
          {mayDo.plan && off.length > 0 && (
            <PlanLists
              over
              what="favorites"
              places={placesOf([view])}
              words="Put back what was taken off"
              label={`Put back what was taken off: ${where}`}
            />
          )}
          {mayDo.mine && theirs.length > 0 && (
            <RibbonsForTheirs
              place={{ station: station.id, editor: editor.id, version: editor.version }}
              where={`${station.name}, ${editor.title}`}
              titles={theirs.map(({ title }) => title)}
              may={mayDo}
            />
          )}
        </div>
      </td>
    </tr>
  );
}
