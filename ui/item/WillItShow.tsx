'use client';
/** Whether the item will show for a photo like one of the frames: in each editor, at each station, and why not. */
import Link from 'next/link';
import { useState } from 'react';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { call, problemOf } from '../kit/call';
import { useLive } from '../kit/live';
import { Notice } from '../kit/Notice';
import { State } from '../kit/State';

export function WillItShow({
  itemId,
  frames,
  frame: first,
}: {
  itemId: string;
  frames: { id: string; name: string; file_kind: string; camera: string }[];
  frame: string;
}) {
  const [frame, setFrame] = useState(first);
  const queries = useQueryClient();
  const {
    data: found,
    error,
    isPlaceholderData: late,
  } = useQuery({
    queryKey: ['foretold', itemId, frame],
    queryFn: ({ signal }) => call('GET /api/items/:id/foretell', { id: itemId, query: { frame }, signal }),
    enabled: frame !== '',
    placeholderData: keepPreviousData,
  });
  useLive(
    (m) => m.type === 'event' && ['item', 'shelf', 'rollout', 'station', 'editor', 'camera'].includes(m.event.subject),
    () => void queries.invalidateQueries({ queryKey: ['foretold', itemId] }),
  );
  const kinds = [...new Set(frames.map((f) => f.file_kind))];
  if (!frames.length) return <p className="border-t border-line py-2 text-soft">There is no frame yet to ask for.</p>;
  return (
    <div>
      <label className="mb-2 flex items-center gap-2">
        For a photo like{' '}
        <select className="field max-w-[340px]" value={frame} onChange={(e) => setFrame(e.target.value)}>
          {kinds.map((kind) => (
            <optgroup key={kind} label={kind}>
              {frames
                .filter((f) => f.file_kind === kind)
                .map((frame) => (
                  <option key={frame.id} value={frame.id}>
                    {frame.name}
                    {frame.camera && !frame.name.includes(frame.camera) ? `, ${frame.camera}` : ''}
                  </option>
                ))}
            </optgroup>
          ))}
        </select>
      </label>
      <Notice problem={error && problemOf(error)} className="mb-2" />
      {found && (
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
                </td>
                <td>
                  <State of={row.answer === 'unknown' ? 'not-said' : row.answer} />
                </td>
                <td>
                  {row.findings.length ? (
                    row.findings.map((finding) => (
                      <span key={finding.code} className="block">
                        {finding.hides === false && <span className="text-ochre">But: </span>}
                        {finding.words}. <span className="text-soft">{finding.remedy}</span>
                      </span>
                    ))
                  ) : (
                    <span className="text-soft">nothing stands in its way</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
