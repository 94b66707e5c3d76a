'use client';
/** Ribbons in their order, moved by drag or by key, and cleared many at once; those long unused are found in one step. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { moved } from './model/order';
import { RibbonRow, type Ribbon } from './RibbonRow';

export type { Ribbon };

interface Props {
  ribbons: Ribbon[];
  whose: 'mine' | 'house';
  may: boolean;
}

export function RibbonList({ ribbons, whose, may }: Props) {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const { problem, runAndRefresh } = useAction();
  const act = async (work: () => Promise<unknown>) => {
    if (await runAndRefresh(work)) setChosen(new Set());
  };
  const move = (from: number, to: number) => {
    const ids = ribbons.map((ribbon) => ribbon.id);
    return act(() => call('POST /api/ribbons', { body: { whose, ribbons: moved(ids, from, to) } }));
  };
  const takeOff = () => act(() => call('DELETE /api/ribbons', { body: { whose, ribbons: [...chosen] } }));
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
      {may && <TakeOff ribbons={ribbons} chosen={chosen.size} onChoose={setChosen} onTakeOff={() => void takeOff()} />}
      <table className="list" aria-label={whose === 'mine' ? 'My ribbons' : 'Ribbons of the house'}>
        <Head may={may} />
        <tbody>
          {ribbons.map((ribbon, place) => (
            <RibbonRow
              key={ribbon.id}
              ribbon={ribbon}
              place={place}
              last={ribbons.length - 1}
              chosen={may ? chosen.has(ribbon.id) : null}
              onChoose={() => flip(ribbon.id)}
              onMove={(from, to) => void move(from, to)}
            />
          ))}
        </tbody>
      </table>
      <Notice problem={problem} className="mt-2" />
    </>
  );
}

interface TakeOffProps {
  ribbons: readonly Ribbon[];
  /** how many are chosen */ chosen: number;
  onChoose: (ids: ReadonlySet<number>) => void;
  onTakeOff: () => void;
}

function TakeOff({ ribbons, chosen, onChoose, onTakeOff }: TakeOffProps) {
  const forgotten = ribbons.filter((ribbon) => ribbon.forgotten).map((ribbon) => ribbon.id);
  return (
    <div className="mb-1 flex flex-wrap items-center gap-2">
      {forgotten.length > 0 && (
        <button className="button quiet" onClick={() => onChoose(new Set(forgotten))}>
          Choose the {forgotten.length} that nobody used for half a year
        </button>
      )}
      <button className="button danger" disabled={!chosen} onClick={onTakeOff}>
        Take {chosen || 'the chosen'} off
      </button>
    </div>
  );
}

function Head({ may }: { may: boolean }) {
  return (
    <thead>
      <tr>
        {may && <Unseen words="Chosen" />}
        <Unseen words="Selvedge" />
        <th>Item</th>
        <th>Set</th>
        <th>Last used</th>
        <th className="text-right">Stations</th>
        {may && <Unseen words="Order" />}
      </tr>
    </thead>
  );
}

const Unseen = ({ words }: { words: string }) => (
  <th>
    <span className="sr-only">{words}</span>
  </th>
);
