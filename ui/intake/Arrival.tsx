'use client';
/** What an arrival holds, by what is to be decided, exceptions first; corrected in bulk, and accepted onto a shelf in one go. */
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { ItemPicker } from '../kit/ItemPicker';
import { Notice } from '../kit/Notice';
import { AcceptBar } from './AcceptBar';
import { EntryGroup, type Correction } from './EntryGroup';
import { exceptOf, leftOut, takeAll } from './model/choice';
import { kindsOfNew, needsItem, type GroupOfEntries } from './model/entry';
import { usualShelf } from './model/usual-shelf';

interface Props {
  id: string;
  name: string;
  status: string;
  groups: GroupOfEntries[];
  /** the one group that is shown whole */ only: string | null;
  takeable: number;
  shelves: { id: string; name: string }[];
  licences: { id: string; name: string }[];
  may: boolean;
  supplier: string;
  /** it is said to be read, and nobody reads it */ stuck: boolean;
}

export function Arrival({ id, name, status, groups, only, takeable, shelves, licences, may, supplier, stuck }: Props) {
  const router = useRouter();
  const action = useAction();
  const [choice, setChoice] = useState(takeAll);
  const [picking, setPicking] = useState<Correction | null>(null);
  const open = status === 'ready' && may;

  const send = (correction: Correction & { itemId?: string }) => {
    const { kind: _kind, ...body } = correction;
    void action.runAndRefresh(() => call('PATCH /api/arrivals/:id', { id, body }));
  };
  const correct = (correction: Correction) => {
    if (needsItem(correction.outcome)) setPicking(correction);
    else send(correction);
  };
  const settle = async (work: () => Promise<unknown>, to: string) => {
    if (await action.runAndRefresh(work)) router.push(to);
  };
  const discard = () => void settle(() => call('DELETE /api/arrivals/:id', { id }), '/intake');

  const readAgain = () => void action.runAndRefresh(() => call('POST /api/arrivals/:id/read', { id }));

  return (
    <>
      {(status === 'failed' || stuck) && may && (
        <div className="mb-5 flex gap-2">
          <button className="button main" disabled={action.busy} onClick={readAgain}>
            Read it again
          </button>
          <button className="button danger" disabled={action.busy} onClick={discard}>
            Discard the arrival
          </button>
        </div>
      )}
      {groups.map((group) => (
        <EntryGroup
          key={group.group}
          arrival={id}
          group={group}
          open={open}
          busy={action.busy}
          choice={choice}
          onChoice={setChoice}
          onCorrect={correct}
        />
      ))}
      {only && (
        <p className="mb-4">
          <Link className="button" href={`/intake/${id}`}>
            Back to the whole arrival
          </Link>
        </p>
      )}
      <Notice problem={action.problem} className="mb-3" />
      {status === 'accepted' && may && (
        <UndoArrival
          busy={action.busy}
          onUndo={() => void action.runAndRefresh(() => call('POST /api/arrivals/:id/undo', { id }))}
        />
      )}
      {open && (
        <AcceptBar
          usual={usualShelf(shelves, name)}
          kinds={kindsOfNew(groups)}
          takeable={takeable}
          left={leftOut(choice)}
          shelves={shelves}
          licences={licences}
          supplier={supplier}
          busy={action.busy}
          onAccept={(accepted) =>
            void settle(
              () => call('POST /api/arrivals/:id', { id, body: { ...accepted, ...exceptOf(choice) } }),
              '/shelves',
            )
          }
          onDiscard={discard}
        />
      )}
      {picking && (
        <ItemPicker
          kind={picking.kind}
          title={picking.outcome === 'variant' ? 'A variant of which item?' : 'A new version of which item?'}
          onClose={() => setPicking(null)}
          onPick={(item) => {
            setPicking(null);
            send({ ...picking, itemId: item.id });
          }}
        />
      )}
    </>
  );
}

function UndoArrival({ busy, onUndo }: { busy: boolean; onUndo: () => void }) {
  return (
    <div className="mb-6">
      <button className="button" disabled={busy} onClick={onUndo}>
        Undo this arrival
      </button>
      <span className="ml-3 text-soft">takes back all that it brought, as long as nothing depends on it</span>
    </div>
  );
}
