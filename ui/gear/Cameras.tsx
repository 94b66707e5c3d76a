'use client';
import Link from 'next/link';
import { State } from '../kit/State';
import { counted } from '../kit/words';
import type { GearActions } from './Coverage';
import { GearHead, GearName, GearRequests } from './GearCells';
import type { Gear } from './GearForm';
import { nameOf, stateOf, wantedFor, type CameraRow, type Covered, type ReadingEditor } from './model';

interface Props extends GearActions {
  rows: CameraRow[];
  editors: ReadingEditor[];
  /** what stands there when there is no row */ none: string;
}

const profileWords: Record<Covered, string> = { none: 'none held', partly: 'drafts only', covered: 'covered' };

export function Cameras({ rows, editors, none, onEdit, onAsk }: Props) {
  return (
    <>
      <GearHead title="Cameras" add="Add a camera" onAdd={onEdit && (() => onEdit(null))} />
      {rows.length ? (
        <table className="list" aria-label="Cameras">
          <Head editors={editors} />
          <tbody>
            {rows.map((row) => (
              <Camera key={row.gear.id} row={row} onEdit={onEdit} onAsk={onAsk} />
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-3 text-soft">{none}</p>
      )}
    </>
  );
}

function Head({ editors }: { editors: ReadingEditor[] }) {
  return (
    <thead>
      {editors.length > 0 && (
        <tr>
          <td colSpan={2} className="!border-0 !p-0" />
          <th colSpan={editors.length} scope="colgroup" className="!border-0 !pb-0">
            Its camera data is read by
          </th>
          <td className="!border-0 !p-0" />
        </tr>
      )}
      <tr>
        <th className="align-bottom">Camera</th>
        <th className="w-[210px] align-bottom">Profiles</th>
        {editors.map(({ key, title, stations }) => (
          <th key={key} className="w-[112px]">
            {title}
            <span className="block font-normal">
              {stations === 0 ? 'on no station' : `on ${counted(stations, 'station')}`}
            </span>
          </th>
        ))}
        <th className="w-[170px] align-bottom">Asked for</th>
      </tr>
    </thead>
  );
}

function aboutCamera({ serials, mount, sensor_width: width, sensor_height: height }: Gear): string {
  const parts = [
    serials?.length && `serial ${serials.join(', ')}`,
    mount && `mount ${mount}`,
    width && height && `${width} × ${height} mm`,
  ];
  return parts.filter(Boolean).join('; ');
}

function Camera({ row, onEdit, onAsk }: GearActions & { row: CameraRow }) {
  const { gear, state, sources, find, reads, requests } = row;
  const ask = () => onAsk?.({ camera: gear.id, lens: null, about: nameOf(gear), wanted: wantedFor(row), askedOf: '' });
  return (
    <tr>
      <GearName gear={gear} more={aboutCamera(gear)} onEdit={onEdit && (() => onEdit(gear))} />
      <td>
        <State of={stateOf(state)} word={profileWords[state]} />
        {sources.map(({ source, held, approved }) => (
          <span key={source} className="block text-[12px] text-soft">
            {source}: {held}, {approved} approved
          </span>
        ))}
        {find && (
          <Link className="text-[12px] underline" href={find}>
            on the shelves
          </Link>
        )}
      </td>
      {reads.map(({ key, answer }) => (
        <td key={key}>
          <State of={answer === 'unknown' ? 'not-said' : answer} />
        </td>
      ))}
      <GearRequests gear={gear} requests={requests} onAsk={onAsk && ask} />
    </tr>
  );
}
