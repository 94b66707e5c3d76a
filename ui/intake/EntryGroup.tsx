'use client';
/** The files of one group, by folder. */
import Link from 'next/link';
import { Fragment } from 'react';
import { groupBy } from '@/core/lists';
import { EntryRow } from './EntryRow';
import type { Correction, Decisions } from './model/decisions';
import { isLeft, isWhole, takeEntries, takeGroup, type Choice } from './model/choice';
import {
  becomes,
  folderOf,
  groupWords,
  isCorrectable,
  isTaken,
  isUnread,
  kindOfUnread,
  supportBecomes,
  type Entry,
  type GroupOfEntries,
} from './model/entry';

interface Props {
  group: GroupOfEntries;
  choice: Choice;
  onChoice: (choice: Choice) => void;
  decisions: Decisions;
}

const idsOf = (rows: readonly Entry[]): number[] => rows.map((entry) => entry.id);

export function EntryGroup({ group: given, choice, onChoice, decisions }: Props) {
  const { arrival, open, busy, words: searched, onCorrect } = decisions;
  const { group, count, takeable, rows } = given;
  const { title, note } = groupWords[group] ?? { title: group, note: '' };
  const takes = open && rows.some(isTaken);
  const correctable = open && rows.some(isCorrectable);
  const isTakenAll = (list: readonly Entry[]): boolean => list.every((entry) => !isLeft(choice, group, entry.id));
  const take = (ids: readonly number[], on: boolean) => onChoice(takeEntries(choice, group, ids, on));
  // a search shows a part of the group, and no more than that is meant
  const takeAll = (on: boolean) => {
    if (searched) take(idsOf(rows.filter(isTaken)), on);
    else onChoice(takeGroup(choice, group, takeable, on));
  };
  const folders = [...groupBy(rows, (entry) => folderOf(entry.path))];
  return (
    <section
      className="mb-7 max-w-[1180px]"
      aria-label={title}
      style={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 300px' }}
    >
      <h2 className="mb-1 flex items-baseline gap-2.5 text-[17px]">
        {title}
        <span className="font-sans text-[12.5px] font-normal tracking-normal text-soft">
          {count}, {note}
        </span>
        {correctable && rows.length > 1 && (
          <AllBecome
            title={title}
            busy={busy}
            unread={rows.every(isUnread)}
            onOutcome={(outcome, as) => onCorrect({ group, outcome, ...as })}
          />
        )}
      </h2>
      <table className="list table-fixed">
        <Columns takes={takes} />
        <thead>
          <tr>
            {takes && (
              <th>
                <input
                  type="checkbox"
                  aria-label={`All of ${title}`}
                  checked={searched ? isTakenAll(rows.filter(isTaken)) : isWhole(choice, group)}
                  onChange={(event) => takeAll(event.target.checked)}
                />
              </th>
            )}
            <th>
              <span className="sr-only">On a frame</span>
            </th>
            <th>File</th>
            <th>What it is</th>
            <th>What becomes of it</th>
          </tr>
        </thead>
        <tbody>
          {folders.map(([folder, list]) => (
            <Fragment key={folder}>
              {folder && (
                <FolderLine
                  folder={folder}
                  count={list.length}
                  whole={takes ? isTakenAll(list) : null}
                  onTake={(on) => take(idsOf(list), on)}
                />
              )}
              {list.map((entry) => (
                <EntryRow
                  key={entry.id}
                  entry={entry}
                  name={entry.path.slice(folder ? folder.length + 1 : 0)}
                  taken={takes ? !isLeft(choice, group, entry.id) : null}
                  correctable={open && isCorrectable(entry)}
                  onTake={(on) => take([entry.id], on)}
                  decisions={decisions}
                />
              ))}
            </Fragment>
          ))}
        </tbody>
      </table>
      {count > rows.length && (
        <p className="mt-2">
          <Link
            className="button quiet"
            href={`/intake/${arrival}?${new URLSearchParams({ group, ...(searched ? { words: searched } : {}) })}`}
            scroll={false}
          >
            Show all {count.toLocaleString('en')}
          </Link>
        </p>
      )}
    </section>
  );
}

const Columns = ({ takes }: { takes: boolean }) => (
  <colgroup>
    {takes && <col className="w-[34px]" />}
    <col className="w-[80px]" />
    <col />
    <col className="w-[270px]" />
    <col className="w-[320px]" />
  </colgroup>
);

interface AllProps {
  title: string;
  busy: boolean;
  /** all of them are files of which nothing is read */ unread: boolean;
  /** with the kind that they are taken as, where it is not what each is */
  onOutcome: (outcome: Correction['outcome'], as: { kind?: string }) => void;
}

function AllBecome({ title, busy, unread, onOutcome }: AllProps) {
  return (
    <label className="ml-auto font-sans text-[12.5px] font-normal tracking-normal text-soft">
      all of these become{' '}
      <select
        aria-label={`All of ${title} become`}
        className="field ml-1 h-[26px] text-ink"
        value=""
        disabled={busy}
        onChange={(event) => {
          const outcome = event.target.value as Correction['outcome'];
          onOutcome(outcome, unread ? kindOfUnread(outcome) : {});
        }}
      >
        <option value="">choose</option>
        {(unread ? supportBecomes : becomes).map(({ outcome, words }) => (
          <option key={outcome} value={outcome}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

interface FolderProps {
  folder: string;
  count: number;
  /** whether all of it is taken; null where nothing is to be taken */ whole: boolean | null;
  onTake: (on: boolean) => void;
}

function FolderLine({ folder, count, whole, onTake }: FolderProps) {
  return (
    <tr>
      <td colSpan={whole === null ? 4 : 5} className="!border-b-0 !pb-0 !pt-3 text-[12px] text-soft">
        <span className="flex items-center gap-2 [overflow-wrap:anywhere]">
          {whole !== null && count > 1 && (
            <input
              type="checkbox"
              aria-label={`All of the folder ${folder}`}
              checked={whole}
              onChange={(event) => onTake(event.target.checked)}
            />
          )}
          {folder}
          {count > 1 && `, ${count} files`}
        </span>
      </td>
    </tr>
  );
}
