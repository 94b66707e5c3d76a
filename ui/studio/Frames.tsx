/* eslint-disable @next/next/no-img-element -- our own pictures, at the width that they have */
'use client';
/** The frames that the studio judges on, by what they show; each can be told anew and put away. */
import { useState } from 'react';
import { groupBy } from '@/core/lists';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';
import { FrameForm } from './FrameForm';

export interface FrameInStudio {
  id: string;
  name: string;
  light: string;
  subject: string;
  camera: string;
  width: number;
  height: number;
  archived: boolean;
}

const subjectOf = (frame: FrameInStudio): string => frame.subject || 'Other subjects';

export function Frames({ frames, may }: { frames: readonly FrameInStudio[]; may: boolean }) {
  const [changing, setChanging] = useState<FrameInStudio | null>(null);
  const { busy, problem, runAndRefresh } = useAction();
  const tell = useToast();
  const archive = async ({ id, name }: FrameInStudio, archived: boolean) => {
    const put = (value: boolean) => call('POST /api/frames/:id/archive', { id, body: { archived: value } });
    if (await runAndRefresh(() => put(archived)))
      tell({ words: `${name} is ${archived ? 'put away' : 'back'}.`, undo: () => put(!archived) });
  };
  const acts = may ? { busy, onChange: setChanging, onArchive: archive } : null;
  const away = frames.filter((frame) => frame.archived);
  const groups = groupBy(
    frames.filter((frame) => !frame.archived),
    subjectOf,
  );
  return (
    <>
      <Notice problem={problem} className="mb-2" />
      {[...groups].map(([subject, list]) => (
        <Group key={subject} title={subject} frames={list} acts={acts} />
      ))}
      {away.length > 0 && <Group title="Put away" frames={away} acts={acts} />}
      {changing && <FrameForm frame={changing} onClose={() => setChanging(null)} />}
    </>
  );
}

interface Acts {
  busy: boolean;
  onChange: (frame: FrameInStudio) => void;
  onArchive: (frame: FrameInStudio, archived: boolean) => Promise<void>;
}

interface GroupProps {
  title: string;
  frames: readonly FrameInStudio[];
  /** null where the person may not */ acts: Acts | null;
}

const Group = ({ title, frames, acts }: GroupProps) => (
  <section aria-label={title} className="mb-4">
    <h3 className="mb-1.5 text-[14px] text-soft first-letter:uppercase">{title}</h3>
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-4">
      {frames.map((frame) => (
        <li key={frame.id}>
          <img
            src={`/api/frames/${frame.id}?w=320`}
            alt=""
            width={320}
            height={Math.round((320 * frame.height) / frame.width)}
            loading="lazy"
            className={`h-auto w-full bg-press ${frame.archived ? 'opacity-60' : ''}`}
          />
          <b className="font-medium [overflow-wrap:anywhere]">{frame.name}</b>
          <span className="block text-[12px] text-soft">
            {[frame.light, frame.camera, `${frame.width} × ${frame.height}`].filter(Boolean).join(', ')}
          </span>
          {acts && <FrameActs frame={frame} {...acts} />}
        </li>
      ))}
    </ul>
  </section>
);

const FrameActs = ({ frame, busy, onChange, onArchive }: Acts & { frame: FrameInStudio }) => (
  <span className="flex gap-3 text-[12.5px]">
    {!frame.archived && (
      <button type="button" className="underline" aria-label={`Change ${frame.name}`} onClick={() => onChange(frame)}>
        Change
      </button>
    )}
    <button
      type="button"
      className="underline"
      disabled={busy}
      aria-label={frame.archived ? `Bring ${frame.name} back` : `Put ${frame.name} away`}
      onClick={() => void onArchive(frame, !frame.archived)}
    >
      {frame.archived ? 'Bring back' : 'Put away'}
    </button>
  </span>
);
