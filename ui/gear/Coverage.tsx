'use client';
/** The studio's cameras and lenses, each beside what is held for it, which editors read it, and what was asked for. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';
import { Cameras } from './Cameras';
import { GearForm, type Gear } from './GearForm';
import { Lenses } from './Lenses';
import { hasGap, type CameraRow, type LensRow, type ReadingEditor } from './model';
import { RequestDialog, type Asking } from './RequestDialog';

interface Props {
  cameras: CameraRow[];
  lenses: LensRow[];
  editors: ReadingEditor[];
  unlisted: { cameras: string[]; lenses: string[] };
  /** only what has gaps is shown */ gaps: boolean;
  suppliers: string[];
  may: { edit: boolean; ask: boolean };
}
export interface GearActions {
  /** null where it may not be edited */ onEdit: ((gear: Gear | null) => void) | null;
  /** null where nothing may be asked for */ onAsk: ((asking: Asking) => void) | null;
}

export function Coverage({ cameras, lenses, editors, unlisted, gaps, suppliers, may }: Props) {
  const [form, setForm] = useState<{ kind: 'camera' | 'lens'; gear: Gear | null } | null>(null);
  const [asking, setAsking] = useState<Asking | null>(null);
  const actions = (kind: 'camera' | 'lens'): GearActions => ({
    onEdit: may.edit ? (gear) => setForm({ kind, gear }) : null,
    onAsk: may.ask ? setAsking : null,
  });
  return (
    <>
      <Unlisted names={[...unlisted.cameras, ...unlisted.lenses]} mayList={may.edit} />
      <Cameras
        rows={gaps ? cameras.filter(hasGap) : cameras}
        editors={editors}
        none={
          gaps && cameras.length
            ? 'Every camera has an approved profile, and every editor reads it.'
            : 'No camera is listed yet.'
        }
        {...actions('camera')}
      />
      <Lenses
        rows={gaps ? lenses.filter((lens) => lens.state !== 'covered') : lenses}
        none={gaps && lenses.length ? 'Every lens is calibrated in all that is measured.' : 'No lens is listed yet.'}
        {...actions('lens')}
      />
      {may.ask && (
        <button
          className="button quiet mt-2 -ml-2"
          onClick={() => setAsking({ camera: null, lens: null, about: '', wanted: 'camera profile', askedOf: '' })}
        >
          Ask for something that is not listed
        </button>
      )}
      {form && <GearForm kind={form.kind} gear={form.gear} onClose={() => setForm(null)} />}
      {asking && <RequestDialog about={asking} suppliers={suppliers} onClose={() => setAsking(null)} />}
    </>
  );
}

const FEW = 6;

/** Cameras and lenses that frames name and that nobody has listed. */
function Unlisted({ names, mayList }: { names: string[]; mayList: boolean }) {
  const action = useAction();
  const list = () =>
    void action.runAndRefresh(async () => {
      const made = await call('POST /api/gear/seen');
      action.say(`${counted(made.cameras, 'camera')} and ${counted(made.lenses, 'lens', 'lenses')} listed.`);
    });
  return (
    <>
      <p role="status" className="sr-only">
        {action.said}
      </p>
      <Notice problem={action.problem} className="mb-3" />
      {names.length > 0 && (
        <p className="mb-4 flex flex-wrap items-center gap-2 border-l-2 border-verd bg-verd-wash px-3 py-2">
          Frames are taken with what is not listed: {names.slice(0, FEW).join('; ')}
          {names.length > FEW && ` and ${names.length - FEW} more`}.{' '}
          {mayList && (
            <button className="button" disabled={action.busy} onClick={list}>
              List them
            </button>
          )}
        </p>
      )}
    </>
  );
}
