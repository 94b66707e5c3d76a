'use client';
/** What can be done with the spines that are chosen. */
import Link from 'next/link';
import { call } from '../kit/call';
import { rollable } from './model/selection';
import { useShelves } from './shelves-context';

export function ChosenBar() {
  const { selection, chooseNothing, may, params, ask } = useShelves();
  if (!selection.size) return null;
  return (
    <div
      className="sticky bottom-4 z-20 mt-4 flex flex-wrap items-center gap-2 border border-line bg-paper px-4 py-2.5"
      style={{ boxShadow: 'var(--shade)' }}
      role="region"
      aria-label="What is chosen"
    >
      <b className="font-semibold">{selection.size} chosen</b>
      <button className="button quiet" onClick={chooseNothing}>
        None
      </button>
      {may.edit && (
        <button className="button ml-auto" onClick={() => ask({ what: 'change the chosen' })}>
          Change together
        </button>
      )}
      {may.edit && !params.get('archived') && <MoveTo />}
      {may.archive && <Archive />}
      {may.rollOut && <RollOut />}
    </div>
  );
}

function MoveTo() {
  const { shelves, selection, move, chooseNothing } = useShelves();
  return (
    <select
      aria-label="Move to a shelf"
      className="field"
      value=""
      onChange={(event) => void move([...selection.keys()], event.target.value, null).then(chooseNothing)}
    >
      <option value="">Move to …</option>
      {shelves
        .filter((shelf) => !shelf.query)
        .map((shelf) => (
          <option key={shelf.id} value={shelf.id}>
            {shelf.name}
          </option>
        ))}
    </select>
  );
}

function Archive() {
  const { selection, params, action, chooseNothing } = useShelves();
  const inArchive = !!params.get('archived');
  const archive = async () => {
    const body = { items: [...selection.keys()], archived: !inArchive };
    await action.runAndRefresh(
      () => call('POST /api/items/archive', { body }),
      inArchive ? 'Brought back' : 'Archived',
    );
    chooseNothing();
  };
  return (
    <button className="button danger" onClick={() => void archive()}>
      {inArchive ? 'Bring back' : 'Archive'}
    </button>
  );
}

function RollOut() {
  const { selection } = useShelves();
  const ready = rollable(selection);
  if (!ready.length)
    return (
      <button className="button main" disabled title="Only approved looks and presets are rolled out">
        Roll out
      </button>
    );
  return (
    <Link className="button main" href={`/rollouts/new?versions=${ready.map((spine) => spine.versionId).join(',')}`}>
      Roll out{ready.length < selection.size ? ` ${ready.length} approved` : ''}
    </Link>
  );
}
