'use client';
/** The versions of an item; two are chosen to be compared, and the choice is in the address. */
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { State } from '../kit/State';
import { Ago } from '../kit/time';

interface Version {
  id: string;
  number: number;
  variant: string;
  status: string;
  file: string;
  size: number;
  notes: string;
  author: string | null;
  at: string;
  format: string;
}

export function VersionTable({ versions }: { versions: Version[] }) {
  const router = useRouter();
  const path = usePathname();
  const params = useSearchParams();
  const [pair, setPair] = useState({ older: params.get('older'), newer: params.get('newer') });
  const set = (k: 'older' | 'newer', id: string) => {
    const chosen = { ...pair, [k]: id };
    const next = new URLSearchParams(location.search);
    setPair(chosen);
    for (const [n, v] of Object.entries(chosen)) if (v) next.set(n, v);
    router.replace(`${path}?${next}`, { scroll: false });
  };
  const many = versions.length > 1;
  return (
    <table className="list">
      <thead>
        <tr>
          <th>Version</th>
          <th>Status</th>
          <th>File</th>
          <th>By</th>
          <th>When</th>
          {many && <th>Compare</th>}
        </tr>
      </thead>
      <tbody>
        {versions.map((v) => (
          <tr key={v.id} data-version={v.number}>
            <td className="whitespace-nowrap">
              {v.number}
              {v.variant && <span className="block text-[12px] text-soft">{v.variant}</span>}
            </td>
            <td>
              <State of={v.status} />
            </td>
            <td className="[overflow-wrap:anywhere]">
              <a className="underline" href={`/api/versions/${v.id}/file`} download>
                {v.file}
              </a>
              <span className="block text-[12px] text-soft">
                {(v.size / 1000).toFixed(1)} kB, {v.format.replace('@', ' ')}
                {v.notes ? `, ${v.notes}` : ''}
              </span>
            </td>
            <td>{v.author ?? 'set-up'}</td>
            <td className="whitespace-nowrap text-soft">
              <Ago at={v.at} />
            </td>
            {many && (
              <td className="whitespace-nowrap">
                <label className="mr-2">
                  <input
                    type="radio"
                    name="older"
                    aria-label={`Compare from version ${v.number}`}
                    checked={pair.older === v.id}
                    onChange={() => set('older', v.id)}
                  />{' '}
                  from
                </label>
                <label>
                  <input
                    type="radio"
                    name="newer"
                    aria-label={`Compare to version ${v.number}`}
                    checked={pair.newer === v.id}
                    onChange={() => set('newer', v.id)}
                  />{' '}
                  to
                </label>
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
