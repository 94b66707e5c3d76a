'use client';
/** The figures of many items, sorted by any of them; what needs a look stands first. */
import Link from 'next/link';
import { figureText, findingWords, inspectionFigures, type FigureName } from '@/core/look/inspection-figures';
import type { Inspection } from '@/core/look/inspect';
import { verdictStates } from '../item/model/verdict-states';
import { State } from '../kit/State';
import type { Found, FoundOf, InspectedItem } from './model/item';
import { orderedBy, type Column, type Order } from './model/table';

interface Props {
  /** in their order */ items: readonly InspectedItem[];
  foundOf: FoundOf;
  order: Order;
  onOrder: (order: Order) => void;
}

/** Which figure a finding is about; it is marked in the table. */
const figureOf: Readonly<Record<Inspection['findings'][number]['code'], FigureName>> = {
  banding: 'banding',
  'crushed-shadows': 'shadowLevels',
  'clipped-highlights': 'clippedHighlights',
  'clipped-shadows': 'clippedShadows',
  'non-monotone-neutral': 'largestFall',
  'neutral-tint': 'neutralTint',
  fold: 'folds',
  'out-of-range': 'outOfRange',
  'hue-swing': 'hueSwing',
};

function sortOf(order: Order, by: Column): 'none' | 'ascending' | 'descending' {
  if (order.by !== by) return 'none';
  return order.turned ? 'descending' : 'ascending';
}

export function FiguresTable({ items, foundOf, order, onOrder }: Props) {
  const head = (by: Column, words: string, title?: string) => (
    <th key={by} className={by === 'title' || by === 'verdict' ? '' : 'text-right'} aria-sort={sortOf(order, by)}>
      <button className="text-inherit hover:underline" title={title} onClick={() => onOrder(orderedBy(order, by))}>
        {words}
        {order.by === by && <span aria-hidden>{order.turned ? ' ↑' : ' ↓'}</span>}
      </button>
    </th>
  );
  return (
    <div className="relative overflow-x-auto">
      <table className="list" aria-label="Figures">
        <thead>
          <tr>
            {head('title', 'Item')}
            {head('verdict', 'Verdict')}
            {inspectionFigures.map(({ name, short, words, unit }) =>
              head(name, short, `${words}${unit && `, ${unit}`}`),
            )}
          </tr>
        </thead>
        <tbody>
          {items.map((item) => (
            <tr key={item.id} data-row={item.title}>
              <th
                scope="row"
                className="!border-line !py-2 align-top !text-[13.5px] !text-ink [overflow-wrap:anywhere]"
              >
                <Link prefetch={false} className="font-serif text-[15px] hover:underline" href={`/items/${item.id}`}>
                  {item.title}
                </Link>
                <span className="block text-[12px] font-normal text-soft">{item.about}</span>
              </th>
              <Figures found={foundOf(item)} />
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const nothing: Readonly<Record<Exclude<Found['is'], 'found'>, string>> = {
  waiting: 'being inspected',
  none: 'no table: nothing to be inspected',
  failed: 'could not be asked for',
};

const toneOf = (severity: 'caution' | 'poor' | undefined): string =>
  severity ? { caution: 'text-ochre', poor: 'text-madder' }[severity] : '';

function Figures({ found }: { found: Found }) {
  if (found.is !== 'found')
    return (
      <td colSpan={inspectionFigures.length + 1} className="text-soft">
        {nothing[found.is]}
      </td>
    );
  const { verdict, findings, figures } = found.inspection;
  const told = new Map(findings.map((finding) => [figureOf[finding.code], finding]));
  return (
    <>
      <td className="whitespace-nowrap">
        <State of={verdictStates[verdict]} word={verdict} />
        {findings.length > 0 && (
          <span className="block max-w-[180px] whitespace-normal text-[12px] text-soft">
            {findings.map(({ code }) => findingWords[code].toLowerCase()).join(', ')}
          </span>
        )}
      </td>
      {inspectionFigures.map(({ name }) => (
        <td
          key={name}
          className={`text-right tabular-nums ${toneOf(told.get(name)?.severity)}`}
          title={told.get(name)?.message}
        >
          {figureText(figures[name])}
        </td>
      ))}
    </>
  );
}
