'use client';
import Link from 'next/link';
import { State } from '../kit/State';
import type { GearActions } from './Coverage';
import { GearHead, GearName, GearRequests } from './GearCells';
import { focalWords, stateOf, type Calibration, type LensRow } from './model';

interface Props extends GearActions {
  rows: LensRow[];
  /** what stands there when there is no row */ none: string;
}

export function Lenses({ rows, none, onEdit, onAsk }: Props) {
  return (
    <>
      <GearHead title="Lenses" add="Add a lens" onAdd={onEdit && (() => onEdit(null))} />
      {rows.length ? (
        <table className="list" aria-label="Lenses">
          <thead>
            <tr>
              <th>Lens</th>
              <th className="w-[130px]">Calibrated</th>
              <th className="w-[330px]">By</th>
              <th className="w-[150px]">Missing</th>
              <th className="w-[170px]">Asked for</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <Lens key={row.gear.id} row={row} onEdit={onEdit} onAsk={onAsk} />
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-3 text-soft">{none}</p>
      )}
    </>
  );
}

function Lens({ row: { gear, state, found, missing, requests }, onEdit, onAsk }: GearActions & { row: LensRow }) {
  const ask = () =>
    onAsk?.({ camera: null, lens: gear.id, about: gear.model, wanted: 'lens calibration', askedOf: '' });
  return (
    <tr>
      <GearName gear={gear} more={gear.mount && `mount ${gear.mount}`} onEdit={onEdit && (() => onEdit(gear))} />
      <td>
        <State of={stateOf(state)} {...(state === 'none' ? { word: 'in no database' } : {})} />
      </td>
      <td>
        {found.map((calibration) => (
          <CalibratedBy
            key={calibration.item + calibration.as + calibration.but}
            calibration={calibration}
            model={gear.model}
          />
        ))}
      </td>
      <td>{missing.join(', ')}</td>
      <GearRequests gear={gear} requests={requests} onAsk={onAsk && ask} />
    </tr>
  );
}

function CalibratedBy({ calibration, model }: { calibration: Calibration; model: string }) {
  const { item, title, release, as, quantities, focal, but } = calibration;
  return (
    <span className="block">
      <Link className="underline" href={`/items/${item}`}>
        {title}
      </Link>
      {release && ` ${release}`}
      <span className="block text-[12px] text-soft">
        {quantities.join(', ') || 'nothing measured'}
        {focalWords(focal)}
        {as !== model && `; as “${as}”`}
      </span>
      {but && <span className="block text-[12px] text-ochre">{but}</span>}
    </span>
  );
}
