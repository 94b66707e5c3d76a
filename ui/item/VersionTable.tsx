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
  const set = (side: 'older' | 'newer', id: string) => {
    const chosen = { ...pair, [side]: id };
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
        {versions.map((version) => (
          <tr key={version.id} data-version={version.number}>
            <td className="whitespace-nowrap">
              {version.number}
              {version.variant && <span className="block text-[12px] text-soft">{version.variant}</span>}
            </td>
            <td>
              <State of={version.status} />
            </td>
            <td className="[overflow-wrap:anywhere]">
              <a className="underline" href={`/api/versions/${version.id}/file`} download>
                {version.file}
              </a>
              <span className="block text-[12px] text-soft">
                {(version.size / 1000).toFixed(1)} kB, {version.format.replace('@', ' ')}
                {version.notes ? `, ${version.notes}` : ''}
              </span>
            </td>
            <td>{version.author ?? 'set-up'}</td>
            <td className="whitespace-nowrap text-soft">
              <Ago at={version.at} />
            </td>
            {many && (
              <td className="whitespace-nowrap">
                <label className="mr-2">
                  <input
                    type="radio"
                    name="older"
                    aria-label={`Compare from version ${version.number}`}
                    checked={pair.older === version.id}
                    onChange={() => set('older', version.id)}
                  />{' '}
                  from
                </label>
                <label>
                  <input
                    type="radio"
                    name="newer"
                    aria-label={`Compare to version ${version.number}`}
                    checked={pair.newer === version.id}
                    onChange={() => set('newer', version.id)}
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
