'use client';
/** What an arrival holds, by what is to be decided, exceptions first; corrected in bulk, and accepted onto a shelf in one go. */
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { ItemPicker } from '../kit/ItemPicker';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';
import { AcceptBar } from './AcceptBar';
import { ArrivalBar } from './ArrivalBar';
import { EntryGroup } from './EntryGroup';
import { Papers } from './Papers';
import type { Acceptance } from './model/acceptance';
import { exceptOf, leftOut, takeAll } from './model/choice';
import type { Correction, Decisions } from './model/decisions';
import { kindsOfNew, needsItem, takenWords, type GroupOfEntries } from './model/entry';
import type { Paper } from './model/paper';
import { shelfNameOf, usualShelf } from './model/usual-shelf';

interface Props {
  id: string;
  name: string;
  status: string;
  groups: GroupOfEntries[];
  papers: Paper[];
  frames: { id: string; name: string }[];
  frame: string;
  /** the one group that is shown whole */ only: string | null;
  /** what is searched for */ words: string;
  takeable: number;
  files: number;
  shelves: { id: string; name: string }[];
  licences: { id: string; name: string }[];
  may: boolean;
  supplier: string;
  /** it is said to be read, and nobody reads it */ stuck: boolean;
}

export function Arrival(props: Props) {
  const { id, name, status, groups, only, words, frame, frames, papers, may, stuck } = props;
  const router = useRouter();
  const action = useAction();
  const tell = useToast();
  const [choice, setChoice] = useState(takeAll);
  const [picking, setPicking] = useState<Correction | null>(null);
  const [paper, setPaper] = useState<{ id: number; apart: boolean }>({ id: papers[0]?.id ?? 0, apart: false });
  const open = status === 'ready' && may;

  const send = (correction: Correction & { itemId?: string }) => {
    const { kind: _kind, ...body } = correction;
    const within = body.group && words ? { words } : {};
    void action.runAndRefresh(() => call('PATCH /api/arrivals/:id', { id, body: { ...body, ...within } }));
  };
  const decisions: Decisions = {
    arrival: id,
    frame,
    words,
    open,
    settled: status === 'accepted',
    busy: action.busy,
    onCorrect: (correction) => {
      if (needsItem(correction.outcome)) setPicking(correction);
      else send(correction);
    },
    onTitle: (entry, title) =>
      void action.runAndRefresh(() => call('POST /api/arrivals/:id/title', { id, body: { entry, title } })),
    onRead: (entry) => setPaper({ id: entry, apart: true }),
  };
  const { accept, discard, undo } = useSettling({ id, name, action, router, tell });
  const readAgain = () => void action.runAndRefresh(() => call('POST /api/arrivals/:id/read', { id }));
  const readPapers = (
    <Papers arrival={id} papers={papers} chosen={paper.id} onChoose={(one) => setPaper({ ...paper, id: one })} />
  );

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
      <ArrivalBar id={id} words={words} only={only} frame={frame} frames={frames} />
      {groups.map((group) => (
        <EntryGroup key={group.group} group={group} choice={choice} onChoice={setChoice} decisions={decisions} />
      ))}
      {words && groups.length === 0 && (
        <p className="py-6 text-soft">No file of this arrival has “{words}” in its path or title.</p>
      )}
      {only && (
        <p className="mb-4">
          <Link className="button" href={`/intake/${id}`}>
            Back to the whole arrival
          </Link>
        </p>
      )}
      <Notice problem={action.problem} className="mb-3" />
      {status === 'accepted' && may && <UndoArrival busy={action.busy} onUndo={undo} />}
      {open && (
        <AcceptBar
          usual={usualShelf(props.shelves, name, props.files)}
          named={shelfNameOf(name)}
          kinds={kindsOfNew(groups)}
          takeable={props.takeable}
          left={leftOut(choice)}
          shelves={props.shelves}
          licences={props.licences}
          supplier={props.supplier}
          papers={readPapers}
          busy={action.busy}
          onAccept={(accepted) => accept({ ...accepted, ...exceptOf(choice) })}
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
      {paper.apart && (
        <Modal title="Papers" width={720} onClose={() => setPaper({ ...paper, apart: false })}>
          {readPapers}
          <ModalFoot cancel="Close" />
        </Modal>
      )}
    </>
  );
}

interface Settling {
  id: string;
  name: string;
  action: ReturnType<typeof useAction>;
  router: ReturnType<typeof useRouter>;
  tell: ReturnType<typeof useToast>;
}

/** What settles an arrival or takes that back, with where it leads and what is told of it. */
function useSettling({ id, name, action, router, tell }: Settling) {
  const putBack = () => call('POST /api/arrivals/:id/undo', { id });
  const link = { href: `/intake/${id}`, words: 'See the arrival' };
  const accept = async (body: Acceptance) => {
    let told = '';
    const well = await action.runAndRefresh(async () => {
      told = takenWords(await call('POST /api/arrivals/:id', { id, body }));
    });
    if (!well) return;
    tell({ words: `${told} taken in from ${name}.`, undo: putBack, link });
    router.push('/shelves');
  };
  const discard = async () => {
    if (!(await action.runAndRefresh(() => call('DELETE /api/arrivals/:id', { id })))) return;
    tell({
      words: `${name} is discarded; it is kept for 30 days.`,
      undo: () => call('POST /api/arrivals/:id/back', { id }),
    });
    router.push('/intake');
  };
  const undo = async () => {
    if (await action.runAndRefresh(putBack)) tell({ words: `${name} waits to be settled again.` });
  };
  return {
    accept: (body: Acceptance) => void accept(body),
    discard: () => void discard(),
    undo: () => void undo(),
  };
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
