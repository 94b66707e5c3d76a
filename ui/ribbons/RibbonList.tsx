'use client';
/** Ribbons in their order, moved by drag or by key, and cleared many at once; those long unused are found in one step. */
import { must } from '@/core/must';
import { ArrowDown, ArrowUp } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';
import { Selvedge } from '../kit/Selvedge';
import { Ago } from '../kit/time';

export interface Ribbon {
  id: number;
  itemId: string;
  title: string;
  shelf: string;
  kind: string;
  selvedge: [string, string][] | null;
  by: string;
  at: string;
  used: string | null;
  stations: number;
  forgotten: boolean;
}

export function RibbonList({ ribbons, whose, may }: { ribbons: Ribbon[]; whose: 'mine' | 'house'; may: boolean }) {
  const router = useRouter();
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const old = ribbons.filter((r) => r.forgotten).map((r) => r.id);
  const act = async (work: () => Promise<unknown>) => {
    setProblem(null);
    try {
      await work();
      setChosen(new Set());
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const order = (ids: number[]) => act(() => call('POST /api/ribbons', { body: { whose, ribbons: ids } }));
  const shift = (i: number, by: -1 | 1) => {
    const ids = ribbons.map((r) => r.id);
    const [x] = ids.splice(i, 1);
    ids.splice(i + by, 0, must(x));
    void order(ids);
  };
  const flip = (id: number) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  if (!ribbons.length)
    return (
      <p className="border-t border-line py-3 text-soft">
        {whose === 'mine' ? 'You have set no ribbon yet. R on a spine sets one.' : 'The house has set no ribbon yet.'}
      </p>
    );
  return (
    <>
      {may && (
        <div className="mb-1 flex flex-wrap items-center gap-2">
          {old.length > 0 && (
            <button className="button quiet" onClick={() => setChosen(new Set(old))}>
              Choose the {old.length} that nobody used for half a year
            </button>
          )}
          <button
            className="button danger"
            disabled={!chosen.size}
            onClick={() => void act(() => call('DELETE /api/ribbons', { body: { whose, ribbons: [...chosen] } }))}
          >
            Take {chosen.size || 'the chosen'} off
          </button>
        </div>
      )}
      <table className="list" aria-label={whose === 'mine' ? 'My ribbons' : 'Ribbons of the house'}>
        <thead>
          <tr>
            {may && (
              <th>
                <span className="sr-only">Chosen</span>
              </th>
            )}
            <th>
              <span className="sr-only">Selvedge</span>
            </th>
            <th>Item</th>
            <th>Set</th>
            <th>Last used</th>
            <th className="text-right">Stations</th>
            {may && (
              <th>
                <span className="sr-only">Order</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {ribbons.map((ribbon, i) => (
            <tr
              key={ribbon.id}
              draggable={may}
              onDragStart={(e) => e.dataTransfer.setData('text/plain', String(i))}
              onDragOver={(e) => may && e.preventDefault()}
              onDrop={(event) => {
                const from = Number(event.dataTransfer.getData('text/plain'));
                if (Number.isInteger(from) && from !== i) {
                  const ids = ribbons.map((x) => x.id);
                  const [x] = ids.splice(from, 1);
                  ids.splice(i, 0, must(x));
                  void order(ids);
                }
              }}
            >
              {may && (
                <td className="w-[30px]">
                  <input
                    type="checkbox"
                    aria-label={`Choose the ribbon on ${ribbon.title}`}
                    checked={chosen.has(ribbon.id)}
                    onChange={() => flip(ribbon.id)}
                  />
                </td>
              )}
              <td className="w-[54px]">
                <Selvedge threads={ribbon.selvedge} className="h-[30px] w-[38px]" />
              </td>
              <td>
                <Link
                  className="font-serif text-[15px] underline [overflow-wrap:anywhere]"
                  href={`/items/${ribbon.itemId}`}
                >
                  {ribbon.title}
                </Link>
                <span className="block text-[12px] text-soft">
                  {ribbon.kind.replace('-', ' ')} on {ribbon.shelf}
                </span>
              </td>
              <td className="whitespace-nowrap text-soft">
                <Ago at={ribbon.at} />, by {ribbon.by}
              </td>
              <td className={`whitespace-nowrap ${ribbon.forgotten ? 'text-ochre' : 'text-soft'}`}>
                <Ago at={ribbon.used} />
              </td>
              <td className="text-right">{ribbon.stations}</td>
              {may && (
                <td className="w-[76px] whitespace-nowrap">
                  <button
                    className="button quiet !h-6 !px-1"
                    aria-label={`${ribbon.title} up`}
                    disabled={i === 0}
                    onClick={() => shift(i, -1)}
                  >
                    <ArrowUp aria-hidden size={13} />
                  </button>
                  <button
                    className="button quiet !h-6 !px-1"
                    aria-label={`${ribbon.title} down`}
                    disabled={i === ribbons.length - 1}
                    onClick={() => shift(i, 1)}
                  >
                    <ArrowDown aria-hidden size={13} />
                  </button>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      <Notice problem={problem} className="mt-2" />
    </>
  );
}
