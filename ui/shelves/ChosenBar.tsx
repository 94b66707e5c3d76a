'use client';
/** What can be done with the spines that are chosen; what was done can be taken back. */
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useConvert } from '../conversions/convert-action';
import { inspectionAddress } from '../inspection/model/item';
import { useApprove } from '../kit/approve';
import { call } from '../kit/call';
import { useToast } from '../kit/toast';
import { counted } from '../kit/words';
import { TakeAwayEverywhere } from '../rollouts/TakeAwayEverywhere';
import { MOST_CHOSEN } from './hooks/selection';
import { benchAddress } from '../bench/model/laid';
import { MOST_IN_ADDRESS, planAddress, rollable } from './model/selection';
import { useShelves } from './shelves-context';

export function ChosenBar() {
  const { selection, chooseNothing, may, params, ask } = useShelves();
  if (!selection.size) return null;
  const chosen = [...selection.values()];
  const assumed = chosen.filter((spine) => spine.assumed);
  return (
    <div
      className="sticky bottom-4 z-20 mt-4 flex flex-wrap items-center gap-2 border border-line bg-paper px-4 py-2.5"
      style={{ boxShadow: 'var(--shade)' }}
      role="region"
      aria-label="What is chosen"
    >
      <b className="font-semibold">{selection.size.toLocaleString('en')} chosen</b>
      {selection.size >= MOST_CHOSEN && <span className="text-soft">the first of more</span>}
      <button className="button quiet mr-auto" onClick={chooseNothing}>
        None
      </button>
      <OnTheBench />
      <Inspect />
      {may.edit && (
        <button className="button" onClick={() => ask({ what: 'change the chosen' })}>
          Change together
        </button>
      )}
      {may.edit && assumed.length > 0 && (
        <button className="button" onClick={() => ask({ what: 'confirm encodings' })}>
          Confirm {assumed.length === 1 ? 'an encoding' : `${assumed.length} encodings`}
        </button>
      )}
      {may.convert && <Convert />}
      {may.approve && chosen.some((spine) => spine.status === 'draft') && <Approve />}
      {may.edit && !params.get('archived') && <MoveTo />}
      {may.rollOut && <TakeAway />}
      {may.archive && <Archive />}
      {may.rollOut && <RollOut />}
    </div>
  );
}

function OnTheBench() {
  const { selection, frames } = useShelves();
  const address = benchAddress(selection.values(), frames);
  return address ? (
    <Link className="button" href={address}>
      On the bench
    </Link>
  ) : null;
}

function Inspect() {
  const { selection } = useShelves();
  return (
    <Link
      className="button"
      prefetch={false}
      href={inspectionAddress({ items: [...selection.keys()].slice(0, MOST_IN_ADDRESS) })}
    >
      Inspect{selection.size > MOST_IN_ADDRESS && ` the first ${MOST_IN_ADDRESS}`}
    </Link>
  );
}

function Convert() {
  const { selection, action } = useShelves();
  const { convert, again } = useConvert(action);
  const stale = [...selection.values()].filter((spine) => spine.stale).map((spine) => spine.id);
  return (
    <>
      <button className="button" disabled={action.busy} onClick={() => convert({ items: [...selection.keys()] })}>
        Convert
      </button>
      {stale.length > 0 && (
        <button className="button" disabled={action.busy} onClick={() => again(stale)}>
          Make {stale.length === 1 ? 'the stale one' : `${stale.length} stale ones`} again
        </button>
      )}
    </>
  );
}

function Approve() {
  const { selection, action, chooseNothing } = useShelves();
  const approve = useApprove(action);
  const approveChosen = async () => {
    if (await approve([...selection.keys()])) chooseNothing();
  };
  return (
    <button className="button" disabled={action.busy} onClick={() => void approveChosen()}>
      Approve
    </button>
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

/** From every station that has them. */
function TakeAway() {
  const { selection, action } = useShelves();
  return <TakeAwayEverywhere items={[...selection.keys()]} action={action} />;
}

function Archive() {
  const { selection, params, action, chooseNothing } = useShelves();
  const router = useRouter();
  const tell = useToast();
  const inArchive = !!params.get('archived');
  const archive = async () => {
    const items = [...selection.keys()];
    const put = (archived: boolean) => call('POST /api/items/archive', { body: { items, archived } });
    if (!(await action.run(() => put(!inArchive)))) return;
    tell({
      words: `${counted(items.length, 'item')} ${inArchive ? 'brought back' : 'put into the archive'}.`,
      undo: () => put(inArchive),
      ...(inArchive ? {} : { link: { href: '/shelves?archived=1', words: 'See the archive' } }),
    });
    chooseNothing();
    router.refresh();
  };
  return (
    <button className="button danger" onClick={() => void archive()}>
      {inArchive ? 'Bring back' : 'Archive'}
    </button>
  );
}

function rollOutWords(ready: number, chosen: number): string {
  if (ready > MOST_IN_ADDRESS) return ` the first ${MOST_IN_ADDRESS} approved`;
  return ready < chosen ? ` ${ready} approved` : '';
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
    <Link className="button main" href={planAddress(ready.map((spine) => spine.versionId))}>
      Roll out{rollOutWords(ready.length, selection.size)}
    </Link>
  );
}
