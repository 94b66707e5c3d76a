'use client';
/** One file of an arrival: what it is, and what becomes of it. */
import type { AS_PROPOSED, EntryOutcome } from '@/core/api/arrivals';
import Link from 'next/link';
import { State } from '../kit/State';
import { EntryPicture } from './EntryPicture';
import { EntryTitle } from './EntryTitle';
import { ReadChart } from './ReadChart';
import { isReadable, type Decisions } from './model/decisions';
import {
  becomes,
  differenceWords,
  frameBecomes,
  isChartBack,
  isTaken,
  isUnread,
  kindOfUnread,
  supportBecomes,
  type Entry,
} from './model/entry';

interface Props {
  entry: Entry;
  /** within its folder */ name: string;
  /** null where nothing is to be taken */ taken: boolean | null;
  correctable: boolean;
  onTake: (on: boolean) => void;
  decisions: Decisions;
}

export function EntryRow({ entry, name, taken, correctable, onTake, decisions }: Props) {
  const { arrival, frame, open, settled, onRead } = decisions;
  return (
    <tr data-entry={entry.path}>
      {taken !== null && (
        <td>
          {isTaken(entry) && (
            <input
              type="checkbox"
              aria-label={`Take ${entry.title}`}
              checked={taken}
              onChange={(event) => onTake(event.target.checked)}
            />
          )}
        </td>
      )}
      <td>
        <EntryPicture arrival={arrival} entry={entry} frame={frame} />
      </td>
      <td className="[overflow-wrap:anywhere]">
        <b className="font-medium">{name}</b>
        <span className="block text-[12px] text-soft">{(entry.size / 1000).toFixed(1)} kB</span>
        {entry.mismatches.map((mismatch) => (
          <span key={mismatch} className="block text-[12px] text-ochre">
            {mismatch}
          </span>
        ))}
      </td>
      <td>
        <WhatItIs
          entry={entry}
          onTitle={open && isTaken(entry) ? (title) => decisions.onTitle(entry.id, title) : null}
        />
      </td>
      <td>
        <State of={stateOf(entry, settled)} />
        {entry.corrected && <span className="text-[12px] text-soft"> as you said</span>}
        <Because entry={entry} />
        {entry.caution && <span className="block text-[12px] text-ochre">{entry.caution}</span>}
        {entry.needs.map((need) => (
          <span
            key={need.name}
            className={`block text-[12px] ${need.where === 'missing' ? 'text-ochre' : 'text-soft'}`}
          >
            needs the {need.kind.replace('-', ' ')} {need.name}, {need.where}
          </span>
        ))}
        {isReadable(entry) && (
          <button type="button" className="block text-[12px] underline" onClick={() => onRead(entry.id)}>
            Read {name}
          </button>
        )}
        {isChartBack(entry) && <ReadChart arrival={arrival} entry={entry.id} name={name} />}
        {correctable && <Becomes entry={entry} decisions={decisions} />}
      </td>
    </tr>
  );
}

function WhatItIs({ entry, onTitle }: { entry: Entry; onTitle: ((title: string) => void) | null }) {
  const { kind, note, headings, evidence } = entry;
  if (!kind || kind === 'unknown' || kind === 'document')
    return <span className="text-soft">{kind || entry.outcome}</span>;
  return (
    <>
      <EntryTitle title={entry.title} onTitle={onTitle} />
      <span className="block text-[12px] text-soft">
        {kind === 'preset' ? note : `${kind.replace('-', ' ')}: ${note}`}
        {headings.length ? `, under ${headings.join(' / ')}` : ''}
      </span>
      <details className="text-[12px] text-soft">
        <summary className="cursor-pointer">{certainty(entry.confidence)}</summary>
        {evidence.map((one) => (
          <span key={one} className="block pl-3">
            {one}
          </span>
        ))}
      </details>
    </>
  );
}

function certainty(confidence: number): string {
  if (confidence >= 0.99) return 'Recognized with certainty';
  return `Recognized, ${Math.round(confidence * 100)} % certain`;
}

/** @param settled the arrival has been taken in: what is no item or frame of it was left out */
function stateOf(entry: Entry, settled: boolean): string {
  if (entry.itemId || entry.frameId) return 'accepted';
  if (settled && isTaken(entry) && entry.outcome !== 'descriptor') return 'left';
  return entry.outcome === 'duplicate' && entry.likeness?.by === 'effect' ? 'same-effect' : entry.outcome;
}

/** What its outcome follows from: the item that it became or is like, what is wrong with it, or what it is. */
function Because({ entry }: { entry: Entry }) {
  const { likeness, problem, itemId, targetItem, targetTitle, targetPath, outcome, note } = entry;
  const words = likeness ? `${likeness.words}${differenceWords(likeness)}` : '';
  if (entry.frameId)
    return (
      <Link className="block text-[12px] underline" href={`/bench?rows=${entry.frameId}`}>
        the frame {entry.title}
      </Link>
    );
  if (itemId)
    return (
      <Link className="block text-[12px] underline" href={`/items/${itemId}`}>
        {targetTitle ?? entry.title}
      </Link>
    );
  if (targetItem)
    return (
      <span className="block text-[12px] text-soft">
        {outcome === 'duplicate' ? 'the same as ' : 'of '}
        <Link className="underline" href={`/items/${targetItem}`}>
          {targetTitle}
        </Link>
        {words && `: ${words}`}
      </span>
    );
  if (targetPath) return <span className="block text-[12px] text-soft">{words}</span>;
  if (problem)
    return (
      <span className="block text-[12px]">
        <span className="text-ink">{problem.message}</span>{' '}
        <span className="text-soft">
          {problem.where}. {problem.remedy}
        </span>
      </span>
    );
  const saysItself = ['document', 'unknown', 'ignored'].includes(outcome);
  return saysItself ? <span className="block text-[12px] text-soft">{note}</span> : null;
}

function choicesFor(entry: Entry) {
  if (isUnread(entry)) return supportBecomes;
  return entry.kind === 'frame' ? frameBecomes : becomes;
}

function Becomes({ entry, decisions: { busy, onCorrect } }: Pick<Props, 'entry' | 'decisions'>) {
  const choices = choicesFor(entry);
  return (
    <select
      aria-label={`${entry.title} becomes`}
      className="field mt-1 block h-[26px] max-w-full text-[12.5px]"
      value={entry.outcome}
      disabled={busy}
      onChange={(event) => {
        const outcome = event.target.value as EntryOutcome | typeof AS_PROPOSED;
        onCorrect({
          entries: [entry.id],
          kind: entry.kind,
          ...(isUnread(entry) ? kindOfUnread(outcome) : {}),
          outcome,
        });
      }}
    >
      {choices.map(({ outcome, words }) => (
        <option key={outcome} value={outcome} hidden={outcome === 'proposed' && !entry.corrected}>
          {words}
        </option>
      ))}
    </select>
  );
}
