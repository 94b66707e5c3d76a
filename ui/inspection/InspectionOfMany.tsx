'use client';
/** Many items inspected side by side: a checklist for a target, their figures as a table, their charts; as CSV and on paper. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { CheckedThing, CureOfMany } from '@/core/editor/checklist';
import { saveFile } from '../kit/save-file';
import { counted } from '../kit/words';
import { PageHead } from '../shell/Shell';
import { SectionHead } from '../kit/Section';
import { Charts } from './Charts';
import { Checklist } from './Checklist';
import { Cures, type MayCure } from './Cures';
import { FiguresTable } from './FiguresTable';
import { useInspections } from './hooks/inspections';
import type { InspectedItem } from './model/item';
import { inspectionCsv, sorted, type Order } from './model/table';

interface Target {
  key: string;
  title: string;
  isCard: boolean;
}
interface Props {
  items: InspectedItem[];
  /** the list was cut at so many */ cutAt: number | null;
  /** what the items are of, as in "the shelf Portraits"; '' where they were chosen */ of: string;
  /** of this page without a target */ address: string;
  targets: Target[];
  checked: { target: Target; things: CheckedThing[]; cures: CureOfMany[] } | null;
  may: MayCure;
}

const saveCsv = (csv: string): void => saveFile(new Blob([csv], { type: 'text/csv;charset=utf-8' }), 'inspection.csv');

export function InspectionOfMany({ items, cutAt, of, address, targets, checked, may }: Props) {
  const [order, setOrder] = useState<Order>({ by: 'verdict', turned: false });
  const { foundOf, answered, failed, again } = useInspections(items);
  const shown = sorted(items, foundOf, order);
  const complete = answered === items.length;
  return (
    <>
      <PageHead title="Inspection" note={`${counted(items.length, 'item')}${of && ` of ${of}`}`}>
        <button className="button" disabled={!complete} onClick={() => saveCsv(inspectionCsv(shown, foundOf))}>
          CSV
        </button>
        <button className="button" disabled={!complete} onClick={() => window.print()}>
          Print
        </button>
      </PageHead>
      {cutAt !== null && <p className="mb-3 text-ochre">Only the first {cutAt} are inspected at once.</p>}
      <TargetChoice targets={targets} address={address} chosen={checked?.target.key ?? ''} />
      {checked && (
        <section aria-label={`Checklist for ${checked.target.title}`} className="mb-6">
          <SectionHead>
            For {checked.target.isCard ? 'the card of the ' : ''}
            {checked.target.title}
          </SectionHead>
          <p className="mb-2 text-soft">{sumOf(checked.things)}</p>
          <Cures cures={checked.cures} target={checked.target} items={items.map(({ id }) => id)} may={may} />
          <Checklist things={checked.things} target={checked.target.title} />
        </section>
      )}
      <SectionHead>Figures</SectionHead>
      <p role="status" className="mb-2 text-soft print:hidden">
        {complete ? '' : `${answered} of ${items.length} inspected`}
        {failed && (
          <>
            {complete && 'Some could not be asked for. '}
            <button className="button" onClick={again}>
              Ask again
            </button>
          </>
        )}
      </p>
      <FiguresTable items={shown} foundOf={foundOf} order={order} onOrder={setOrder} />
      <SectionHead>Neutral scales</SectionHead>
      <Charts items={shown} foundOf={foundOf} />
    </>
  );
}

/** How many can go as they are, how many on their way, and how many not yet. */
function sumOf(things: readonly CheckedThing[]): string {
  const has = (thing: CheckedThing, is: string): boolean =>
    Object.values(thing.checks).some((checked) => checked?.is === is);
  const toChange = things.filter((thing) => has(thing, 'to-change')).length;
  const onTheWay = things.filter((thing) => !has(thing, 'to-change') && has(thing, 'on-the-way')).length;
  const passed = things.length - toChange - onTheWay;
  return `${passed} passed as they are, ${onTheWay} are made to fit on the way, ${toChange} to change first.`;
}

function TargetChoice({ targets, address, chosen }: { targets: Target[]; address: string; chosen: string }) {
  const router = useRouter();
  return (
    <label className="mb-4 flex items-center gap-2 print:hidden">
      Check for
      <select
        className="field"
        value={chosen}
        onChange={({ target: { value } }) =>
          router.push(value ? `${address}&target=${encodeURIComponent(value)}` : address, { scroll: false })
        }
      >
        <option value="">no target</option>
        {targets.map(({ key, title, isCard }) => (
          <option key={key} value={key}>
            {isCard ? `card of the ${title}` : title}
          </option>
        ))}
      </select>
    </label>
  );
}
