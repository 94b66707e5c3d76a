'use client';
/** The studio's cameras and lenses, each beside what is held for it, which editors read it, and what was asked for. */
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';
import { State } from '../kit/State';
import { Ask, type Asking } from './RequestDialog';
import { GearForm, type Gear } from './GearForm';

type Covered = 'covered' | 'partly' | 'none';
export interface CameraRow {
  gear: Gear;
  state: Covered;
  sources: { source: string; held: number; approved: number }[];
  /** a search that shows them */ find: string | null;
  reads: { key: string; title: string; answer: 'yes' | 'no' | 'unknown' }[];
  requests: { wanted: string; state: string }[];
}
export interface LensRow {
  gear: Gear;
  state: Covered;
  missing: string[];
  found: {
    item: string;
    title: string;
    release: string;
    as: string;
    quantities: string[];
    focal: [number, number] | null;
    but: string;
  }[];
  requests: { wanted: string; state: string }[];
}
interface Props {
  cameras: CameraRow[];
  lenses: LensRow[];
  editors: { key: string; title: string; stations: number }[];
  unlisted: { cameras: string[]; lenses: string[] };
  gaps: boolean;
  suppliers: string[];
  may: { edit: boolean; ask: boolean };
}

const span = (f: [number, number] | null): string => (f ? `, ${f[0] === f[1] ? f[0] : `${f[0]}–${f[1]}`}\u00a0mm` : '');
const nameOf = (g: Gear): string => [g.model, g.conversion].filter(Boolean).join(', ');
const stateOf = (s: Covered): string => (s === 'none' ? 'gap' : s);

export function Coverage({ cameras, lenses, editors, unlisted, gaps, suppliers, may }: Props) {
  const router = useRouter();
  const [form, setForm] = useState<{ kind: 'camera' | 'lens'; gear: Gear | null } | null>(null);
  const [asking, setAsking] = useState<Asking | null>(null);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [said, setSaid] = useState('');
  const seen = [...unlisted.cameras, ...unlisted.lenses];
  const shownCameras = gaps
    ? cameras.filter((c) => c.state !== 'covered' || c.reads.some((r) => r.answer === 'no'))
    : cameras;
  const shownLenses = gaps ? lenses.filter((l) => l.state !== 'covered') : lenses;
  const listSeen = async () => {
    setProblem(null);
    try {
      const r = await call<{ cameras: number; lenses: number }>('/api/gear/seen', 'POST');
      setSaid(
        `${r.cameras} ${r.cameras === 1 ? 'camera' : 'cameras'} and ${r.lenses} ${r.lenses === 1 ? 'lens' : 'lenses'} listed.`,
      );
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const name = (kind: 'camera' | 'lens', gear: Gear, more: ReactNode) => (
    <td>
      {may.edit ? (
        <button
          className="text-left font-serif text-[15px] underline [overflow-wrap:anywhere]"
          onClick={() => setForm({ kind, gear })}
        >
          {nameOf(gear)}
        </button>
      ) : (
        <span className="font-serif text-[15px] [overflow-wrap:anywhere]">{nameOf(gear)}</span>
      )}
      <span className="block text-[12px] text-soft [overflow-wrap:anywhere]">{more}</span>
    </td>
  );
  const requests = (gear: Gear, list: { wanted: string; state: string }[], asks: Asking) => (
    <td>
      {list.map((r, i) => (
        <span key={i} className="block text-[12px]">
          <State of={r.state} word={`${r.wanted} ${r.state}`} />
        </span>
      ))}
      {may.ask && (
        <button
          className="button quiet -ml-2 !h-[22px]"
          aria-label={`Ask for something for the ${nameOf(gear)}`}
          onClick={() => setAsking(asks)}
        >
          Ask
        </button>
      )}
    </td>
  );
  return (
    <>
      <p role="status" className="sr-only">
        {said}
      </p>
      <Notice problem={problem} className="mb-3" />
      {seen.length > 0 && (
        <p className="mb-4 flex flex-wrap items-center gap-2 border-l-2 border-verd bg-verd-wash px-3 py-2">
          Frames are taken with what is not listed: {seen.slice(0, 6).join('; ')}
          {seen.length > 6 && ` and ${seen.length - 6} more`}.{' '}
          {may.edit && (
            <button className="button" onClick={() => void listSeen()}>
              List them
            </button>
          )}
        </p>
      )}
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h2 className="mr-auto text-[17px]">Cameras</h2>
        {may.edit && (
          <button className="button" onClick={() => setForm({ kind: 'camera', gear: null })}>
            Add a camera
          </button>
        )}
      </div>
      {shownCameras.length ? (
        <table className="list" aria-label="Cameras">
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
              {editors.map((e) => (
                <th key={e.key} className="w-[112px]">
                  {e.title}
                  <span className="block font-normal">
                    {e.stations === 0
                      ? 'on no station'
                      : `on ${e.stations} ${e.stations === 1 ? 'station' : 'stations'}`}
                  </span>
                </th>
              ))}
              <th className="w-[170px] align-bottom">Asked for</th>
            </tr>
          </thead>
          <tbody>
            {shownCameras.map((camera) => (
              <tr key={camera.gear.id}>
                {name(
                  'camera',
                  camera.gear,
                  [
                    camera.gear.serials!.length > 0 && `serial ${camera.gear.serials!.join(', ')}`,
                    camera.gear.mount && `mount ${camera.gear.mount}`,
                    camera.gear.sensor_width &&
                      camera.gear.sensor_height &&
                      `${camera.gear.sensor_width} × ${camera.gear.sensor_height} mm`,
                  ]
                    .filter(Boolean)
                    .join('; '),
                )}
                <td>
                  <State
                    of={stateOf(camera.state)}
                    word={camera.state === 'none' ? 'none held' : camera.state === 'partly' ? 'drafts only' : 'covered'}
                  />
                  {camera.sources.map((s) => (
                    <span key={s.source} className="block text-[12px] text-soft">
                      {s.source}: {s.held}, {s.approved} approved
                    </span>
                  ))}
                  {camera.find && (
                    <Link className="text-[12px] underline" href={camera.find}>
                      on the shelves
                    </Link>
                  )}
                </td>
                {camera.reads.map((r) => (
                  <td key={r.key}>
                    <State of={r.answer === 'unknown' ? 'not-said' : r.answer} />
                  </td>
                ))}
                {requests(camera.gear, camera.requests, {
                  camera: camera.gear.id,
                  lens: null,
                  about: nameOf(camera.gear),
                  wanted:
                    camera.state === 'none'
                      ? 'camera profile'
                      : camera.reads.some((r) => r.answer === 'no')
                        ? 'support in an editor'
                        : 'camera profile',
                  askedOf: '',
                })}
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-3 text-soft">
          {gaps && cameras.length
            ? 'Every camera has an approved profile, and every editor reads it.'
            : 'No camera is listed yet.'}
        </p>
      )}
      <div className="mb-2 mt-8 flex flex-wrap items-center gap-2">
        <h2 className="mr-auto text-[17px]">Lenses</h2>
        {may.edit && (
          <button className="button" onClick={() => setForm({ kind: 'lens', gear: null })}>
            Add a lens
          </button>
        )}
      </div>
      {shownLenses.length ? (
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
            {shownLenses.map((lens) => (
              <tr key={lens.gear.id}>
                {name('lens', lens.gear, lens.gear.mount && `mount ${lens.gear.mount}`)}
                <td>
                  <State of={stateOf(lens.state)} word={lens.state === 'none' ? 'in no database' : undefined} />
                </td>
                <td>
                  {lens.found.map((f) => (
                    <span key={f.item + f.as + f.but} className="block">
                      <Link className="underline" href={`/items/${f.item}`}>
                        {f.title}
                      </Link>
                      {f.release && ` ${f.release}`}
                      <span className="block text-[12px] text-soft">
                        {f.quantities.join(', ') || 'nothing measured'}
                        {span(f.focal)}
                        {f.as !== lens.gear.model && `; as “${f.as}”`}
                      </span>
                      {f.but && <span className="block text-[12px] text-ochre">{f.but}</span>}
                    </span>
                  ))}
                </td>
                <td>{lens.missing.join(', ')}</td>
                {requests(lens.gear, lens.requests, {
                  camera: null,
                  lens: lens.gear.id,
                  about: lens.gear.model,
                  wanted: 'lens calibration',
                  askedOf: '',
                })}
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="border-t border-line py-3 text-soft">
          {gaps && lenses.length ? 'Every lens is calibrated in all that is measured.' : 'No lens is listed yet.'}
        </p>
      )}
      {may.ask && (
        <button
          className="button quiet mt-2 -ml-2"
          onClick={() => setAsking({ camera: null, lens: null, about: '', wanted: 'camera profile', askedOf: '' })}
        >
          Ask for something that is not listed
        </button>
      )}
      {form && <GearForm kind={form.kind} gear={form.gear} onClose={() => setForm(null)} />}
      {asking && <Ask about={asking} suppliers={suppliers} onClose={() => setAsking(null)} />}
    </>
  );
}
