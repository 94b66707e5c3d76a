/** What should lie at a station by the orders that it follows, and does not. */
import Link from 'next/link';
import { State } from '../kit/State';
import { counted } from '../kit/words';
import { PlanDue } from './PlanDue';

export interface Due {
  key: string;
  item: string;
  title: string;
  editor: string;
  is: 'missing' | 'update-due';
  number: number;
  there: number | null;
}
export interface DueByOrder {
  id: string;
  name: string;
  due: readonly Due[];
  inStep: number;
}

/** Of more than these the first are shown; the plan has them all. */
const MOST_SHOWN = 40;

const words = ({ is, number, there }: Due): string =>
  is === 'missing'
    ? `version ${number} should lie there`
    : `version ${number} is approved; version ${there ?? 0} lies there`;

interface Props {
  orders: readonly DueByOrder[];
  /** where that is; left out for those who plan nothing */ station?: { id: string; name: string };
}

export function DueThere({ orders, station }: Props) {
  return (
    <>
      <h2 className="mb-1 text-[17px]">Should be there</h2>
      {orders.map(({ id, name, due, inStep }) => (
        <section key={id} aria-label={name} className="mb-8">
          <div className="mb-1 flex flex-wrap items-center justify-between gap-2">
            <p className="text-soft">
              By the standing order{' '}
              <Link className="underline" href="/stations/orders">
                {name}
              </Link>
              : {due.length ? `${counted(due.length, 'file')} due, ` : ''}
              {inStep} put there.
            </p>
            {station && due.length > 0 && <PlanDue order={{ id, name }} station={station} due={due.length} />}
          </div>
          {due.length > 0 && (
            <table className="list">
              <thead>
                <tr>
                  <th>Item</th>
                  <th>For</th>
                  <th>State</th>
                </tr>
              </thead>
              <tbody>
                {due.slice(0, MOST_SHOWN).map((one) => (
                  <tr key={one.key}>
                    <td className="font-serif text-[15px]">
                      <Link className="hover:underline" href={`/items/${one.item}`}>
                        {one.title}
                      </Link>
                    </td>
                    <td>{one.editor}</td>
                    <td>
                      <State of={one.is} />
                      <span className="block text-[12px] text-soft">{words(one)}</span>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {due.length > MOST_SHOWN && <p className="text-soft">and {due.length - MOST_SHOWN} more</p>}
        </section>
      ))}
    </>
  );
}
