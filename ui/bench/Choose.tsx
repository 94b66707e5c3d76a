'use client';
/** What was found: a verdict on the frames of the bench, and what follows from it. */
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { isProvisional } from '@/core/bench/display';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';
import type { Candidate } from './candidate';
import { STAGES, type Column } from './state';

interface Props {
  column: Column;
  name: string;
  candidates: ReadonlyMap<string, Candidate>;
  frames: { id: string; name: string; camera: string; light: string }[];
  may: { choice: boolean; edit: boolean };
  onClose: () => void;
  onDone: (words: string) => void;
}

/** What the browser says of the display. */
export const gamutOf = (): string =>
  typeof matchMedia === 'undefined'
    ? ''
    : (['rec2020', 'p3', 'srgb'].find((g) => matchMedia(`(color-gamut: ${g})`).matches) ?? '');

export function Choose({ column, name, candidates, frames, may, onClose, onDone }: Props) {
  const profile = candidates.get(column.profile) ?? null;
  const part = column.parts[column.parts.length - 1];
  const look = (part && candidates.get(part.version)) ?? null;
  const intention = look?.intention || profile?.intention || '';
  const [words, setWords] = useState('');
  const [chosen, setChosen] = useState(true);
  const [asMeant, setAsMeant] = useState<boolean | null>(null);
  const [ribbon, setRibbon] = useState(false);
  const [advise, setAdvise] = useState(false);
  const [keep, setKeep] = useState(false);
  const [house, setHouse] = useState(false);
  const [client, setClient] = useState('');
  const [any, setAny] = useState({ camera: false, light: false, kind: false });
  const [beside, setBeside] = useState('');
  const [calibrated, setCalibrated] = useState('');
  const [gamut, setGamut] = useState('');
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const [now, setNow] = useState(0);
  useEffect(
    () =>
      queueMicrotask(() => {
        setNow(Date.now());
        setGamut(gamutOf());
        setCalibrated(localStorage.getItem('etagere-calibrated') ?? '');
      }),
    [],
  );
  const provisional = isProvisional({ gamut, calibrated }, now);
  const cases = [
    ...new Set(
      frames.map((f) =>
        [any.camera ? 'any camera' : f.camera || 'no camera', any.light ? 'any light' : f.light || 'no light'].join(
          ', ',
        ),
      ),
    ),
  ];
  const send = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const r = await call<{ verdicts: number; choices: number }>('/api/bench/verdict', 'POST', {
        profile: profile?.versionId ?? null,
        look: look?.versionId ?? null,
        strength: part?.strength ?? 100,
        frames: frames.map((f) => f.id),
        stages: profile ? STAGES.filter((_, i) => (column.stages >> i) % 2 === 1) : null,
        beside,
        words,
        asMeant,
        chosen,
        ribbon,
        advise,
        display: { gamut, calibrated },
        compensation: keep && column.trim ? column.trim : null,
        choice: house && chosen ? { client, anyCamera: any.camera, anyLight: any.light, anyKind: any.kind } : null,
      });
      if (calibrated) localStorage.setItem('etagere-calibrated', calibrated);
      onDone(
        `${r.verdicts} ${r.verdicts === 1 ? 'verdict' : 'verdicts'} kept${r.choices ? `, ${r.choices} house ${r.choices === 1 ? 'choice' : 'choices'} made` : ''}`,
      );
    } catch (error) {
      setProblem(problemOf(error));
    } finally {
      setBusy(false);
    }
  };
  const tick = (on: boolean, set: (v: boolean) => void, text: string, off = false) => (
    <label className={`flex items-center gap-2 py-1 ${off ? 'text-soft' : ''}`}>
      <input type="checkbox" checked={on} disabled={off} onChange={(e) => set(e.target.checked)} />
      {text}
    </label>
  );
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[8vh] z-50 max-h-[84vh] w-[560px] max-w-[92vw] -translate-x-1/2 overflow-auto border border-line bg-paper p-5"
          style={{ boxShadow: 'var(--shade)' }}
        >
          <Dialog.Title className="mb-1 text-[20px]">{name}</Dialog.Title>
          <p className="mb-3 text-soft">
            {look ? `at ${part!.strength} %, ` : ''}on {frames.length} {frames.length === 1 ? 'frame' : 'frames'}:{' '}
            {frames.map((f) => f.name).join('; ')}
          </p>
          <Notice problem={problem} className="mb-3" />
          <span className="mb-3 inline-flex" role="group" aria-label="The verdict">
            <button className="chip !rounded-r-none" aria-pressed={chosen} onClick={() => setChosen(true)}>
              chosen
            </button>
            <button
              className="chip !rounded-l-none !border-l-0"
              aria-pressed={!chosen}
              onClick={() => {
                setChosen(false);
                setHouse(false);
              }}
            >
              not chosen
            </button>
          </span>
          {intention && (
            <fieldset className="mb-3 border-l-2 border-line pl-3">
              <legend className="sr-only">Against what it is meant to do</legend>
              <p className="mb-1">
                <span className="text-soft">Meant to:</span> {intention}
              </p>
              {(
                [
                  [true, 'it does'],
                  [false, 'it does not'],
                  [null, 'not judged'],
                ] as const
              ).map(([v, w]) => (
                <label key={w} className="mr-4">
                  <input
                    type="radio"
                    name="as-meant"
                    className="mr-1.5"
                    checked={asMeant === v}
                    onChange={() => setAsMeant(v)}
                  />
                  {w}
                </label>
              ))}
            </fieldset>
          )}
          <label className="mb-3 block">
            In words
            <textarea
              className="field !h-[64px] w-full py-1.5"
              value={words}
              maxLength={2000}
              onChange={(e) => setWords(e.target.value)}
              placeholder="what was seen, for whoever looks next"
            />
          </label>
          <label className="mb-3 block">
            With or without a step beside it
            <input
              className="field w-full"
              value={beside}
              maxLength={200}
              onChange={(e) => setBeside(e.target.value)}
              placeholder="for example: without sharpening"
            />
          </label>
          {tick(ribbon, setRibbon, 'put my ribbon on it')}
          {look && may.edit && tick(advise, setAdvise, `advise ${part!.strength} % as its usual strength`)}
          {profile &&
            column.trim &&
            may.edit &&
            tick(keep, setKeep, 'keep the trim with the profile as its compensation')}
          {may.choice && tick(house, setHouse, 'make it the house choice', !chosen)}
          {house && (
            <div className="mb-2 ml-6 border-l border-line pl-3">
              <label className="block">
                Client or job, empty for any
                <input
                  className="field w-full"
                  value={client}
                  maxLength={120}
                  onChange={(e) => setClient(e.target.value)}
                />
              </label>
              {tick(any.camera, (camera) => setAny({ ...any, camera }), 'for any camera')}
              {tick(any.light, (light) => setAny({ ...any, light }), 'in any light')}
              {tick(any.kind, (kind) => setAny({ ...any, kind }), 'for camera data and rendered files alike')}
              <p className="mt-1 text-soft">Cases: {cases.join('; ')}</p>
            </div>
          )}
          <p className="mt-3 flex flex-wrap items-center gap-2 border-t border-line pt-3 text-[12.5px]">
            <span>
              Display:{' '}
              {gamut
                ? gamut === 'p3'
                  ? 'P3 gamut'
                  : gamut === 'srgb'
                    ? 'sRGB gamut'
                    : 'Rec. 2020 gamut'
                : 'gamut not known'}
            </span>
            <label className="flex items-center gap-1.5">
              calibrated on{' '}
              <input
                type="date"
                className="field !h-[26px]"
                value={calibrated}
                onChange={(e) => setCalibrated(e.target.value)}
              />
            </label>
            {provisional && (
              <span className="text-ochre">
                The verdict is provisional:{' '}
                {gamut ? 'calibrated more than 90 days ago, or nobody knows when' : 'the display is not known'}.
              </span>
            )}
          </p>
          <div className="mt-4 flex justify-end gap-2">
            <Dialog.Close className="button">Not now</Dialog.Close>
            <button className="button main" disabled={busy} onClick={() => void send()}>
              {house && chosen
                ? `Choose for ${cases.length} ${cases.length === 1 ? 'case' : 'cases'}`
                : 'Keep the verdict'}
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
