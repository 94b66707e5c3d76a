'use client';
/** Whether a file of ours was seen working in its editor, with the pictures by which that was told. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { State } from '../kit/State';
import { shownAs, type SightingShown } from './sightings';

interface Props {
  sighting: SightingShown;
  /** of the item and of the editor */ title: string;
  editor: string;
  may: boolean;
}

/** What is seen working is said by the state of its file; here it has its pictures alone. */
export function Sighting({ sighting, title, editor, may }: Props) {
  const { id, state, reason, frame, by } = sighting;
  const isJudged = state === 'seen' || state === 'differs' || state === 'unclear';
  return (
    <span className="block text-[12px]" data-sighting={state}>
      {state !== 'seen' && (
        <span className="mt-1 block">
          <State of={shownAs[state]} />
          <span className="block text-soft">{state === 'asked' ? waiting(by, editor, frame) : reason}</span>
        </span>
      )}
      {isJudged && <Pictures id={id} title={title} editor={editor} frame={frame} />}
      {state === 'asked' && may && <GiveUp id={id} title={title} />}
    </span>
  );
}

const waiting = (by: SightingShown['by'], editor: string, frame: string): string =>
  by === 'editor'
    ? `of ${frame}: ${editor} makes it while it runs there`
    : `of ${frame}: somebody is to export it from ${editor}`;

function GiveUp({ id, title }: { id: string; title: string }) {
  const { busy, problem, runAndRefresh } = useAction();
  return (
    <>
      <button
        className="underline"
        disabled={busy}
        aria-label={`Give up the picture of ${title}`}
        onClick={() => void runAndRefresh(() => call('DELETE /api/sightings/:id', { id }))}
      >
        Give it up
      </button>
      <Notice problem={problem} className="mt-1" />
    </>
  );
}

interface PicturesProps {
  id: string;
  title: string;
  editor: string;
  frame: string;
}

function Pictures({ id, title, editor, frame }: PicturesProps) {
  const [isOpen, setOpen] = useState(false);
  const pictures = [
    ['given', `${frame}, without it`],
    ['back', `As ${editor} shows it`],
    ['ours', 'As it is rendered here'],
    ['difference', 'Where the two differ: white is ΔE00 10 or more'],
  ] as const;
  return (
    <>
      <button className="underline" aria-label={`The pictures of ${title}`} onClick={() => setOpen(true)}>
        The pictures
      </button>
      {isOpen && (
        <Modal title={`${title} in ${editor}`} onClose={() => setOpen(false)} width={940} top="4vh">
          <div className="grid grid-cols-2 gap-3 max-[700px]:grid-cols-1">
            {pictures.map(([of, words]) => (
              <figure key={of} className="m-0">
                {/* eslint-disable-next-line @next/next/no-img-element -- it is shown as it came, pixel by pixel */}
                <img
                  className="block min-h-[200px] w-full bg-sheet"
                  alt={words}
                  src={`/api/sightings/${id}/picture?of=${of}`}
                />
                <figcaption className="mt-0.5 text-[12px] text-soft">{words}</figcaption>
              </figure>
            ))}
          </div>
          <ModalFoot cancel="Close" />
        </Modal>
      )}
    </>
  );
}
