'use client';
/**
 * An editor described: its common parts in a form, all of it as JSON; checked while it is written, and proposed, on which
 * the lead decides.
 */
import Link from 'next/link';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import type { Descriptor } from '@/core/editor/descriptor';
import { same } from '@/core/same';
import { Notice } from '../kit/Notice';
import { SectionHead } from '../kit/Section';
import { Propose } from '../workshop/Propose';
import { AsJson } from './AsJson';
import { Basics } from './Basics';
import { Changes } from './Changes';
import { Places } from './Places';
import { Takes } from './Takes';
import { checked, emptyDescriptor, type Checked } from './model/draft';
import { isDrawable } from './model/drawable';
import { forget, keep, keptIn } from './model/keep';

interface Props {
  /** the id of whoever works here */ person: string;
  /** null for an editor that nobody has described */ known: Descriptor | null;
}

const noChange = () => () => {};

export function Describe(props: Props) {
  // what is kept in the browser is not known to the server
  const isHere = useSyncExternalStore(
    noChange,
    () => true,
    () => false,
  );
  return isHere ? <Form {...props} /> : <p role="status">On its way</p>;
}

function Form({ person, known }: Props) {
  const begun = known ?? emptyDescriptor();
  const key = `etagere-describe ${person} ${known ? `${known.editor}@${known.version}` : 'new'}`;
  const [kept] = useState(() => keptIn(localStorage, key));
  const [base, setBase] = useState(kept?.base ?? JSON.stringify(known));
  const [draft, setDraft] = useState(kept?.draft ?? begun);
  const [asJson, setAsJson] = useState(false);
  const [round, setRound] = useState(0);
  const [proposed, setProposed] = useState('');
  const answer = useMemo(() => checked(draft), [draft]);
  const isChanged = !same(draft, begun);
  useEffect(() => {
    if (isChanged) keep(localStorage, key, { draft, base });
    else forget(localStorage, key);
  }, [draft, base, isChanged, key]);
  const beginAnew = () => {
    setDraft(begun);
    setBase(JSON.stringify(known));
    setRound(round + 1);
  };
  return (
    <>
      {proposed && (
        <p role="status" className="mb-3">
          {proposed} is proposed.{' '}
          <Link className="underline" href="/studio">
            The lead decides on it in Studio
          </Link>
          .
        </p>
      )}
      <div className="mb-2 flex items-center gap-3">
        <button type="button" className="button" aria-pressed={asJson} onClick={() => setAsJson(!asJson)}>
          {asJson ? 'Show the form' : 'Show its JSON'}
        </button>
        {isChanged && (
          <button type="button" className="button" onClick={beginAnew}>
            Begin anew
          </button>
        )}
        {kept && isChanged && <span className="text-soft">What you were working on here is back.</span>}
      </div>
      {isChanged && base !== JSON.stringify(known) && <Overtaken />}
      {asJson || !isDrawable(draft) ? (
        <AsJson key={round} draft={draft} onChange={setDraft} />
      ) : (
        <FormParts key={round} draft={draft} isNew={!known} onChange={setDraft} />
      )}
      <SectionHead>What is proposed</SectionHead>
      <Outcome
        answer={answer}
        known={known}
        onProposed={(title) => {
          setProposed(title);
          beginAnew();
        }}
      />
    </>
  );
}

/** Somebody has described the editor meanwhile. */
const Overtaken = () => (
  <p role="status" className="mb-3 max-w-[760px] border-l-[3px] border-ochre pl-3">
    The editor was described otherwise since you began: what is proposed below would take that back. Begin anew to start
    from what is known now.
  </p>
);

interface OutcomeProps {
  answer: Checked;
  known: Descriptor | null;
  onProposed: (title: string) => void;
}

/** What is wrong with it; or what it says otherwise than what is known, to be proposed. */
function Outcome({ answer: { descriptor, problem }, known, onProposed }: OutcomeProps) {
  if (!descriptor) return <Notice problem={problem} className="mb-3 max-w-[860px]" />;
  if (same(descriptor, known)) return <p className="text-soft">Nothing is changed: this is what is known of it.</p>;
  return (
    <>
      <Changes before={known} after={descriptor} />
      <Propose
        descriptor={descriptor}
        isKnown={!!known?.presets && !same(known.presets, descriptor.presets)}
        onProposed={() => onProposed(descriptor.title)}
      />
    </>
  );
}

interface PartsProps {
  draft: Descriptor;
  isNew: boolean;
  onChange: (draft: Descriptor) => void;
}

function FormParts({ draft, isNew, onChange }: PartsProps) {
  return (
    <>
      <SectionHead>The editor</SectionHead>
      <Basics draft={draft} isNew={isNew} onChange={onChange} />
      <SectionHead>Where it keeps things</SectionHead>
      <Places draft={draft} onChange={onChange} />
      <SectionHead>What it takes</SectionHead>
      <Takes draft={draft} onChange={onChange} />
      <p className="mt-3 max-w-[760px] text-soft">
        Favorites, opening rules, pictures on request and forms of files are in its JSON; its presets are mapped in the{' '}
        <Link
          className="underline"
          prefetch={false}
          href={`/studio/workshop${isNew ? '' : `?editor=${encodeURIComponent(`${draft.editor}@${draft.version}`)}`}`}
        >
          mapping workshop
        </Link>
        .
      </p>
    </>
  );
}
