'use client';
/** What each licence allows, and until when; changed in place. */
import { useState } from 'react';
import { LicenceForm } from './LicenceForm';
import { says, type Licence } from './model/licence';

export function Licences({ licences, may }: { licences: Licence[]; may: boolean }) {
  const [open, setOpen] = useState<Licence | 'new' | null>(null);
  return (
    <>
      {licences.length ? (
        <LicenceTable licences={licences} onChange={may ? setOpen : null} />
      ) : (
        <p className="border-t border-line py-3 text-soft">
          No licence is noted yet. One can be made when an arrival is accepted, or here.
        </p>
      )}
      {may && !open && (
        <button className="button mt-2" onClick={() => setOpen('new')}>
          New licence
        </button>
      )}
      {open && (
        <LicenceForm
          key={open === 'new' ? 'new' : open.id}
          licence={open === 'new' ? null : open}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}

interface TableProps {
  licences: Licence[];
  /** null where the person may not */ onChange: ((licence: Licence) => void) | null;
}

function LicenceTable({ licences, onChange }: TableProps) {
  return (
    <table className="list" aria-label="Licences">
      <thead>
        <tr>
          <th>Licence</th>
          <th>May be converted</th>
          <th>May be distributed</th>
          <th>Seats</th>
          <th>Ends</th>
          <th className="text-right">Items</th>
          {onChange && (
            <th>
              <span className="sr-only">Change</span>
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {licences.map((licence) => (
          <tr key={licence.id}>
            <td className="[overflow-wrap:anywhere]">
              <b className="font-serif text-[15px] font-medium">{licence.name}</b>
              <span className="block text-[12px] text-soft">
                {[licence.owner, licence.terms].filter(Boolean).join(': ')}
              </span>
            </td>
            <td className={licence.may_convert === 'unknown' ? 'text-ochre' : ''}>{says[licence.may_convert]}</td>
            <td className={licence.may_spread === 'unknown' ? 'text-ochre' : ''}>{says[licence.may_spread]}</td>
            <td>{licence.seats ? `${licence.seats}, by ${licence.seats_by}` : '–'}</td>
            <td className="whitespace-nowrap">
              {licence.ends_on ?? '–'}
              {licence.ends_on && <span className="block text-[12px] text-soft">then {licence.at_end}</span>}
            </td>
            <td className="text-right">{licence.items}</td>
            {onChange && (
              <td>
                <button className="button" aria-label={`Change ${licence.name}`} onClick={() => onChange(licence)}>
                  Change
                </button>
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
