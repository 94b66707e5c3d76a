'use client';
/** Where a file lies at a station: its path, to be copied, or to be shown in the file manager there. */
import { Check, Copy, FolderOpen } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { System } from '@/core/editor/place-schema';
import { nativePath } from '@/core/sheets/places';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { useLive } from '../kit/live';
import { Notice } from '../kit/Notice';

export interface Where {
  station: string;
  /** the station whose agent looks after it: of a card, that of its reader */ agent: string;
  system: System;
  /** whether an agent is there that shows files */ shows: boolean;
}
interface Props {
  where: Where;
  /** below the station's root, or of an entry of a bundle */ path: string;
  /** what is said behind it */ children?: ReactNode;
}

/** Of an entry of a bundle, the bundle. */
const fileOf = (path: string): string => path.split('#')[0] ?? path;

const ANSWERS = ['shown there', 'not shown there'];

const ICON = 'inline-flex p-1.5 align-middle text-soft hover:text-ink disabled:opacity-50';

export function PathThere({ where, path, children }: Props) {
  const { busy, problem, run, report } = useAction();
  const [copied, setCopied] = useState(false);
  const [shown, setShown] = useState<'asked' | 'yes' | { fault: string } | null>(null);
  const copy = async () => {
    await navigator.clipboard.writeText(nativePath(fileOf(path), where.system));
    setCopied(true);
  };
  const ask = async () => {
    // before it is asked: the agent may be quicker than the answer
    setShown('asked');
    const went = await run(() => call('POST /api/stations/:id/show', { id: where.station, body: { path } }));
    if (!went) setShown(null);
  };
  const look = async () => {
    const last = await call('GET /api/stations/:id/show', { id: where.station });
    if (last.path === path && last.told) setShown(last.fault ? { fault: last.fault } : 'yes');
  };
  useLive(
    (message) =>
      shown === 'asked' &&
      message.type === 'event' &&
      message.event.subject === 'station' &&
      message.event.subject_id === where.agent &&
      ANSWERS.includes(message.event.action),
    () => void look().catch(report),
  );
  return (
    <>
      {path}
      {children}{' '}
      <span className="whitespace-nowrap">
        <button className={ICON} aria-label={`Copy the path of ${path}`} onClick={() => void copy()}>
          {copied ? <Check size={13} aria-hidden /> : <Copy size={13} aria-hidden />}
        </button>
        {where.shows && (
          <button
            className={ICON}
            disabled={busy}
            aria-label={`Show ${path} in the file manager there`}
            title="Show it in the file manager of that workstation"
            onClick={() => void ask()}
          >
            <FolderOpen size={13} aria-hidden />
          </button>
        )}
      </span>
      <span role="status" className={shown ? 'block text-soft' : 'sr-only'}>
        {shown === 'asked' && 'its window opens there when the agent looks next'}
        {shown === 'yes' && 'shown there'}
        {shown && typeof shown === 'object' && `not shown: ${shown.fault}`}
      </span>
      <Notice problem={problem} className="mt-1" />
    </>
  );
}
