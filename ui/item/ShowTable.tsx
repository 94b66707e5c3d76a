'use client';
/** Where an item shows for a photo, and what stands in its way elsewhere, each with what does away with it. */
import Link from 'next/link';
import type { AnswerOf } from '@/core/api';
import type { ForetoldAt } from '@/core/api/items';
import { State } from '../kit/State';
import { CureButton, type MayCure } from './CureButton';

interface Props {
  itemId: string;
  found: AnswerOf<'GET /api/items/:id/foretell'>;
  /** another answer is on its way */ late: boolean;
  may: MayCure;
  onDone: () => void;
}

export function ShowTable({ itemId, found, late, may, onDone }: Props) {
  return (
    <table className="list" aria-label="Will it show" aria-busy={late}>
      <thead>
        <tr>
          <th className="w-[190px]">Editor and station</th>
          <th className="w-[104px]">Shows</th>
          <th>Because</th>
        </tr>
      </thead>
      <tbody>
        {found.at.length === 0 && (
          <tr>
            <td colSpan={3} className="text-soft">
              No editor is described yet: bring a descriptor in at{' '}
              <Link className="underline" href="/studio">
                Studio
              </Link>
              .
            </td>
          </tr>
        )}
        {found.at.map((row) => (
          <tr key={row.editor + (row.station?.id ?? '')}>
            <td>
              <Where row={row} />
            </td>
            <td>
              <State of={row.answer === 'unknown' ? 'not-said' : row.answer} />
            </td>
            <td>
              {row.findings.length === 0 && <span className="text-soft">nothing stands in its way</span>}
              {row.findings.map((finding) => (
                <span key={finding.code} className="block">
                  {finding.hides === false && <span className="text-ochre">But: </span>}
                  {finding.words}. <span className="text-soft">{finding.remedy}</span>{' '}
                  {finding.cure && <CureButton cure={finding.cure} at={{ itemId, found, row, may, onDone }} />}
                </span>
              ))}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Where({ row }: { row: ForetoldAt }) {
  return (
    <>
      {row.title}
      {row.variant && <span className="block text-[12px] text-soft">its form {row.variant}</span>}
      <span className="block text-[12px] text-soft">
        {row.station ? (
          <Link className="underline" href={`/stations/${row.station.id}`}>
            {row.station.name}
          </Link>
        ) : (
          'on no station; once it is placed'
        )}
      </span>
    </>
  );
}
