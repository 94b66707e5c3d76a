'use client';
import Link from 'next/link';
import { useState } from 'react';
import { errorWords, type Thresholds } from '@/core/conversion/outcome';
import { Selvedge } from '../kit/Selvedge';
import { State } from '../kit/State';
import { kindWords } from '../shelves/model/spine';
import { settingTitle } from '@/core/preset/settings';
import { proofOfRow, type Row } from './model/row';

interface Props {
  row: Row;
  within: Thresholds;
  open: boolean;
  onTake: (on: boolean) => void;
  onName: (title: string) => void;
  onOtherwise: () => void;
}

export function PlanRow({ row, within, open, onTake, onName, onOtherwise }: Props) {
  const { source } = row;
  const mayTake = open && row.status !== 'refused';
  return (
    <tr data-row={source.title} className={row.excluded ? 'text-soft' : ''}>
      <td>
        {mayTake && (
          <input
            type="checkbox"
            aria-label={`Make ${source.title}`}
            checked={!row.excluded}
            onChange={(event) => onTake(event.target.checked)}
          />
        )}
      </td>
      <td className="[overflow-wrap:anywhere]">
        <Selvedge threads={source.selvedge} className="float-left mr-2.5 h-[34px] w-[26px]" />
        <Link prefetch={false} className="font-serif text-[15px] hover:underline" href={`/items/${source.itemId}`}>
          {source.title}
        </Link>
        <span className="block text-[12px] text-soft">
          {kindWords[source.kind] ?? source.kind}, version {source.number}
        </span>
      </td>
      <td className="[overflow-wrap:anywhere]">
        <Becomes row={row} mayName={mayTake && !row.named} onName={onName} />
      </td>
      <td>
        <Settings row={row} onOtherwise={mayTake && row.recipe.tool === 'bake' ? onOtherwise : null} />
      </td>
      <td>
        <ErrorCell row={row} within={within} />
      </td>
      <td>
        <Came row={row} />
      </td>
    </tr>
  );
}

function Becomes({ row, mayName, onName }: { row: Row; mayName: boolean; onName: (title: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const settle = () => {
    if (typed !== null && typed.trim() !== row.name) onName(typed.trim());
    setTyped(null);
  };
  return (
    <>
      {mayName ? (
        <input
          className="field !h-[26px] w-full text-[13.5px]"
          aria-label={`Title of what ${row.source.title} becomes`}
          value={typed ?? row.name}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={settle}
          onKeyDown={(event) => {
            if (event.key === 'Enter') settle();
          }}
        />
      ) : (
        row.name
      )}
      <span className="block text-[12px] text-soft">
        {row.outcome?.said ?? 'not worked out yet'}; on {row.shelf}
        {row.own && '; otherwise than the rest'}
      </span>
      {row.clashes && !row.excluded && <span className="block text-[12px] text-ochre">that name is borne already</span>}
    </>
  );
}

function Settings({ row, onOtherwise }: { row: Row; onOtherwise: (() => void) | null }) {
  const { outcome } = row;
  if (!outcome) return null;
  const { carried, approximated, left, unknown, changes } = outcome;
  const hasSettings = carried.length + approximated.length + left.length > 0;
  return (
    <>
      {hasSettings && (
        <details>
          <summary className="cursor-pointer">
            {carried.length} carried
            {approximated.length > 0 && `, ${approximated.length} approximated`}
            {left.length > 0 && (
              <>
                , <span className="text-ochre">{left.length} left out</span>
              </>
            )}
          </summary>
          <dl className="mt-1 text-[12.5px]">
            <Listed word="Carried" lines={carried.map(settingTitle)} />
            <Listed
              word="Approximated"
              lines={approximated.map(
                ({ setting, figure, reason }) =>
                  `${settingTitle(setting)}${figure === null ? '' : `, up to ${figure.toFixed(2)} ΔE00`}: ${reason}`,
              )}
            />
            <Listed word="Left out" lines={left.map(({ setting, reason }) => `${settingTitle(setting)}: ${reason}`)} />
            <Listed word="Unknown, stays in the source" lines={unknown} />
          </dl>
        </details>
      )}
      {changes && <Changed changes={changes} />}
      {onOtherwise && (
        <button className="text-[12.5px] text-soft underline hover:text-ink" onClick={onOtherwise}>
          make it otherwise
        </button>
      )}
    </>
  );
}

const Listed = ({ word, lines }: { word: string; lines: readonly string[] }) =>
  lines.length > 0 && (
    <>
      <dt className="text-soft">{word}</dt>
      {lines.map((line) => (
        <dd key={line} className="pl-3 [overflow-wrap:anywhere]">
          {line}
        </dd>
      ))}
    </>
  );

function Changed({ changes }: { changes: NonNullable<NonNullable<Row['outcome']>['changes']> }) {
  const { color, settings } = changes;
  return (
    <span className="block text-[12.5px]">
      {settings.length ? `changed: ${settings.map(settingTitle).join(', ')}` : 'the same settings'}
      {color && (
        <span className="block text-soft">
          against what stands: mean {color.mean.toFixed(2)}, largest {color.max.toFixed(2)} ΔE00
        </span>
      )}
    </span>
  );
}

function ErrorCell({ row, within }: { row: Row; within: Thresholds }) {
  const proof = proofOfRow(row, within);
  if (!proof || !row.outcome) return null;
  if (proof === 'exact' || !row.outcome.error) return <span className="text-soft">nothing is approximated</span>;
  return (
    <span className={proof === 'failed' ? 'text-madder' : ''}>
      {errorWords(row.outcome.error)}
      <span className="block text-[12px]">
        {proof === 'failed' ? (
          'more than the studio takes'
        ) : (
          <span className="text-soft">within the studio’s limits</span>
        )}
      </span>
    </span>
  );
}

function Came({ row }: { row: Row }) {
  const { status, made, problem, excluded } = row;
  if (made)
    return (
      <>
        <State of="done" word="made" />
        <Link
          prefetch={false}
          className="block text-[12.5px] underline"
          href={`/items/${made.itemId}?form=${made.versionId}`}
        >
          open the {made.status}
        </Link>
      </>
    );
  if (problem)
    return (
      <>
        <State
          of={status === 'refused' ? 'refused' : 'failed'}
          word={status === 'refused' ? 'cannot be made' : 'failed'}
        />
        <span className="block text-[12.5px]">
          {problem.message} <span className="text-soft">{problem.remedy}</span>
        </span>
      </>
    );
  if (excluded) return <State of="left" />;
  if (status === 'made') return <State of="done" word="made, and gone since" />;
  return <State of={status === 'unplanned' ? 'waiting' : 'planned'} />;
}
