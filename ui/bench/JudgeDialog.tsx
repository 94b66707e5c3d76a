'use client';
/** What was found: a verdict on the frames of the bench, and what follows from it. */
import { useEffect, useReducer, useState, type ReactNode } from 'react';
import { isProvisional } from '@/core/bench/display';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';
import { displayGamut, gamutWords } from './hooks/display';
import { profileOf, topLayer, type Column } from './model/column';
import { beginning, casesOf, decisionOf, judge, type Judgement, type JudgedFrame } from './model/judgement';
import type { Candidates } from './model/names';

interface Props {
  column: Column;
  name: string;
  candidates: Candidates;
  frames: JudgedFrame[];
  may: { choice: boolean; edit: boolean };
  onClose: () => void;
  onDone: (words: string) => void;
}
interface Part {
  judgement: Judgement;
  change: (change: Partial<Judgement>) => void;
}

const CALIBRATED = 'etagere-calibrated';

export function JudgeDialog({ column, name, candidates, frames, may, onClose, onDone }: Props) {
  const profile = candidates.get(profileOf(column) ?? '') ?? null;
  const top = topLayer(column);
  const look = (top && candidates.get(top.version)) ?? null;
  const intention = look?.intention || profile?.intention || '';
  const [judgement, change] = useReducer(judge, beginning);
  const { busy, problem, run } = useAction();
  // what only the browser knows is told once the dialog is there
  useEffect(() => {
    queueMicrotask(() => change({ gamut: displayGamut(), calibrated: localStorage.getItem(CALIBRATED) ?? '' }));
  }, []);
  const cases = casesOf(judgement, frames);
  const makesChoice = judgement.house && judgement.chosen;

  const send = async () => {
    const decision = decisionOf(judgement, { column, profile, look, frames });
    const made = await call('POST /api/bench/verdict', { body: decision });
    if (judgement.calibrated) localStorage.setItem(CALIBRATED, judgement.calibrated);
    const choices = made.choices ? `, ${counted(made.choices, 'house choice')} made` : '';
    onDone(`${counted(made.verdicts, 'verdict')} saved${choices}`);
  };
  return (
    <Modal title={name} width={560} top="8vh" onClose={onClose}>
      <p className="mb-3 text-soft">
        {look && top ? `at ${top.strength} %, ` : ''}on {counted(frames.length, 'frame')}:{' '}
        {frames.map((frame) => frame.name).join('; ')}
      </p>
      <Notice problem={problem} className="mb-3" />
      <Chosen judgement={judgement} change={change} />
      {intention && <AsMeant intention={intention} judgement={judgement} change={change} />}
      <Words judgement={judgement} change={change} />
      <Ticks
        judgement={judgement}
        change={change}
        strength={look && top && may.edit ? top.strength : null}
        trim={Boolean(profile && column.trim && may.edit)}
        choice={may.choice}
      />
      {judgement.house && <HouseChoice judgement={judgement} change={change} cases={cases} />}
      <Display judgement={judgement} change={change} />
      <ModalFoot>
        <button className="button main" disabled={busy} onClick={() => void run(send)}>
          {makesChoice ? `Choose for ${counted(cases.length, 'case')}` : 'Save the verdict'}
        </button>
      </ModalFoot>
    </Modal>
  );
}

interface TicksProps extends Part {
  /** of a look whose usual strength may be advised, in percent; null where it may not */ strength: number | null;
  /** whether there is a trim that may be kept */ trim: boolean;
  /** whether the house choice may be made */ choice: boolean;
}

/** What comes of the verdict beside its own record. */
function Ticks({ judgement, change, strength, trim, choice }: TicksProps) {
  return (
    <>
      <Tick on={judgement.ribbon} onTick={(ribbon) => change({ ribbon })}>
        put my ribbon on it
      </Tick>
      {strength !== null && (
        <Tick on={judgement.advise} onTick={(advise) => change({ advise })}>
          advise {strength} % as its usual strength
        </Tick>
      )}
      {trim && (
        <Tick on={judgement.keepTrim} onTick={(keepTrim) => change({ keepTrim })}>
          keep the trim with the profile as its compensation
        </Tick>
      )}
      {choice && (
        <Tick on={judgement.house} off={!judgement.chosen} onTick={(house) => change({ house })}>
          make it the house choice
        </Tick>
      )}
    </>
  );
}

interface TickProps {
  on: boolean;
  off?: boolean;
  onTick: (on: boolean) => void;
  children: ReactNode;
}

function Tick({ on, off = false, onTick, children }: TickProps) {
  return (
    <label className={`flex items-center gap-2 py-1 ${off ? 'text-soft' : ''}`}>
      <input type="checkbox" checked={on} disabled={off} onChange={(event) => onTick(event.target.checked)} />
      <span>{children}</span>
    </label>
  );
}

function Chosen({ judgement, change }: Part) {
  return (
    <span className="mb-3 inline-flex" role="group" aria-label="The verdict">
      <button className="chip !rounded-r-none" aria-pressed={judgement.chosen} onClick={() => change({ chosen: true })}>
        chosen
      </button>
      <button
        className="chip !rounded-l-none !border-l-0"
        aria-pressed={!judgement.chosen}
        onClick={() => change({ chosen: false, house: false })}
      >
        not chosen
      </button>
    </span>
  );
}

const answers = [
  { value: true, words: 'it does' },
  { value: false, words: 'it does not' },
  { value: null, words: 'not judged' },
];

function AsMeant({ intention, judgement, change }: Part & { intention: string }) {
  return (
    <fieldset className="mb-3 border-l-2 border-line pl-3">
      <legend className="sr-only">Against what it is meant to do</legend>
      <p className="mb-1">
        <span className="text-soft">Meant to:</span> {intention}
      </p>
      {answers.map(({ value, words }) => (
        <label key={words} className="mr-4">
          <input
            type="radio"
            name="as-meant"
            className="mr-1.5"
            checked={judgement.asMeant === value}
            onChange={() => change({ asMeant: value })}
          />
          {words}
        </label>
      ))}
    </fieldset>
  );
}

function Words({ judgement, change }: Part) {
  return (
    <>
      <label className="mb-3 block">
        In words
        <textarea
          className="field !h-[64px] w-full py-1.5"
          value={judgement.words}
          maxLength={2000}
          onChange={(event) => change({ words: event.target.value })}
          placeholder="what was seen, for whoever looks next"
        />
      </label>
      <label className="mb-3 block">
        With or without a step beside it
        <input
          className="field w-full"
          value={judgement.beside}
          maxLength={200}
          onChange={(event) => change({ beside: event.target.value })}
          placeholder="for example: without sharpening"
        />
      </label>
    </>
  );
}

function HouseChoice({ judgement, change, cases }: Part & { cases: string[] }) {
  const any = (wider: Partial<Judgement['any']>) => change({ any: { ...judgement.any, ...wider } });
  return (
    <div className="mb-2 ml-6 border-l border-line pl-3">
      <label className="block">
        Client or job, empty for any
        <input
          className="field w-full"
          value={judgement.client}
          maxLength={120}
          onChange={(event) => change({ client: event.target.value })}
        />
      </label>
      <Tick on={judgement.any.camera} onTick={(camera) => any({ camera })}>
        for any camera
      </Tick>
      <Tick on={judgement.any.light} onTick={(light) => any({ light })}>
        in any light
      </Tick>
      <Tick on={judgement.any.kind} onTick={(kind) => any({ kind })}>
        for camera data and rendered files alike
      </Tick>
      <p className="mt-1 text-soft">Cases: {cases.join('; ')}</p>
    </div>
  );
}

function Display({ judgement, change }: Part) {
  const { gamut, calibrated } = judgement;
  const [now] = useState(() => Date.now());
  const why = gamut ? 'calibrated more than 90 days ago, or nobody knows when' : 'the display is not known';
  return (
    <p className="mt-3 flex flex-wrap items-center gap-2 border-t border-line pt-3 text-[12.5px]">
      <span>Display: {gamut ? `${gamutWords[gamut]} gamut` : 'gamut not known'}</span>
      <label className="flex items-center gap-1.5">
        calibrated on{' '}
        <input
          type="date"
          className="field !h-[26px]"
          value={calibrated}
          onChange={(event) => change({ calibrated: event.target.value })}
        />
      </label>
      {isProvisional({ gamut: gamut ?? '', calibrated }, now) && (
        <span className="text-ochre">The verdict is provisional: {why}.</span>
      )}
    </p>
  );
}
