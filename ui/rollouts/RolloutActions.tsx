'use client';
/** Confirm, drop, undo; each names in numbers what will happen. */
import type { RolloutVerb } from '@/core/api/rollouts';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';

interface Props {
  id: string;
  status: string;
  files: number;
  stations: number;
  isUndo: boolean;
  /** it takes files away, and writes none but lists of them */ removes: boolean;
  /** its plan can be worked out anew */ again: boolean;
  /** where something is written: one of these can go before the rest */ places: readonly {
    id: string;
    name: string;
  }[];
  /** another person has to confirm it */ review: boolean;
  may: boolean;
}

export function RolloutActions({ id, status, files, stations, isUndo, removes, again, places, review, may }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const [undoing, setUndoing] = useState(false);
  const [first, setFirst] = useState('');
  const [begins, setBegins] = useState('');
  const act = (verb: RolloutVerb) =>
    void run(async () => {
      const isConfirmed = verb === 'confirm';
      const at = isConfirmed && begins ? new Date(begins) : null;
      const body = { verb, ...firstBody(isConfirmed ? first : ''), at };
      const next = await call('POST /api/rollouts/:id', { id, body });
      setUndoing(false);
      if (verb === 'drop') router.push('/rollouts');
      else if (next.id !== id) router.push(`/rollouts/${next.id}`);
      else router.refresh();
    });
  const sentence = `${counted(files, 'file')} on ${counted(stations, 'station')}`;
  if (!may) return null;
  return (
    <>
      {(status === 'planned' || status === 'planning') && (
        <button className="button quiet danger" disabled={busy} onClick={() => act('drop')}>
          Drop the plan
        </button>
      )}
      {status === 'planned' && again && (
        <button className="button quiet" disabled={busy} onClick={() => act('again')}>
          Plan it again
        </button>
      )}
      {status === 'planned' && !review && places.length > 1 && (
        <FirstChoice places={places} first={first} onFirst={setFirst} />
      )}
      {status === 'planned' && !review && <StartChoice begins={begins} onBegins={setBegins} />}
      {status === 'planned' && (
        <ConfirmOrAsk review={review} disabled={busy || !files} onConfirm={() => act('confirm')}>
          Confirm: {removes ? 'take away' : 'write'} {sentence}
        </ConfirmOrAsk>
      )}
      {(status === 'done' || status === 'confirmed') && !isUndo && (
        <button className="button" disabled={busy || status === 'confirmed'} onClick={() => setUndoing(true)}>
          Undo the rollout
        </button>
      )}
      {undoing && (
        <Modal title="Undo this rollout?" width={420} top="30vh" onClose={() => setUndoing(false)}>
          <p>
            It takes back {sentence}: what was not there before is removed, what was overwritten comes back. A file
            changed there since is left alone.
          </p>
          <Notice problem={problem} className="mt-3" />
          <ModalFoot>
            <button className="button main" disabled={busy} onClick={() => act('undo')}>
              Take back {sentence}
            </button>
          </ModalFoot>
        </Modal>
      )}
      {!undoing && <Notice problem={problem} className="basis-full" />}
    </>
  );
}

/** Before the station's id: the rest waits for a word. */
const BY_WORD = 'word ';

/** What the choice stands for. */
const firstBody = (choice: string): { first: string | null; goesOn: boolean } => ({
  first: choice ? choice.replace(BY_WORD, '') : null,
  goesOn: choice !== '' && !choice.startsWith(BY_WORD),
});

interface FirstChoiceProps {
  places: Props['places'];
  first: string;
  onFirst: (first: string) => void;
}

function FirstChoice({ places, first, onFirst }: FirstChoiceProps) {
  return (
    <select
      className="field max-w-[240px]"
      aria-label="To which station it goes first"
      value={first}
      onChange={(event) => onFirst(event.target.value)}
    >
      <option value="">all at once</option>
      <optgroup label="then the rest by a word">
        {places.map((place) => (
          <option key={place.id} value={BY_WORD + place.id}>
            {place.name} first
          </option>
        ))}
      </optgroup>
      <optgroup label="then the rest by itself, once all is listed there">
        {places.map((place) => (
          <option key={place.id} value={place.id}>
            {place.name} first, then by itself
          </option>
        ))}
      </optgroup>
    </select>
  );
}

interface StartProps {
  /** as a field of a form has it, in the time of whoever looks; '' for at once */ begins: string;
  onBegins: (begins: string) => void;
}

/** A night, when nobody works there. */
function StartChoice({ begins, onBegins }: StartProps) {
  return (
    <label className="flex items-center gap-1.5 text-[12px] text-soft">
      {begins ? 'begins' : 'begins at once, or on'}
      <input
        type="datetime-local"
        className="field text-ink"
        aria-label="When it begins, if not at once"
        value={begins}
        onChange={(event) => onBegins(event.target.value)}
      />
    </label>
  );
}

interface ConfirmProps {
  review: boolean;
  disabled: boolean;
  onConfirm: () => void;
  children: ReactNode;
}

/** Who planned it is told that somebody else confirms it, where the studio asks for that. */
function ConfirmOrAsk({ review, disabled, onConfirm, children }: ConfirmProps) {
  if (review)
    return (
      <span className="text-ochre" role="status">
        Another person has to confirm this
      </span>
    );
  return (
    <button className="button main" disabled={disabled} onClick={onConfirm}>
      {children}
    </button>
  );
}
