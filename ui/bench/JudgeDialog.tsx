'use client';
/** What was found: a verdict on the frames of the bench, and what follows from it. */
import { useEffect, useState } from 'react';
import { FormProvider, useController, useFormContext, useWatch, type FieldPath } from 'react-hook-form';
import type { BodyOf } from '@/core/api';
import { benchEndpoints } from '@/core/api/bench';
import { isProvisional } from '@/core/bench/display';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { problemWith, useWrittenForm } from '../kit/form';
import { Field } from '../kit/Field';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';
import { displayGamut, gamutWords } from './hooks/display';
import { profileOf, topLayer, type Column } from './model/column';
import { beginning, casesOf, decisionOf, obstacle, type Judgement, type JudgedFrame } from './model/judgement';
import type { Candidates } from './model/names';

interface Props {
  column: Column;
  name: string;
  candidates: Candidates;
  frames: JudgedFrame[];
  /** whoever judges is not to know what it is */ blind: boolean;
  may: { choice: boolean; edit: boolean };
  onClose: () => void;
  onDone: (words: string) => void;
}
type Decision = BodyOf<'POST /api/bench/verdict'>;

const CALIBRATED = 'etagere-calibrated';

/** What there is to say of a column; less of it where whoever judges is not to know what it is. */
function askedOf({ column, candidates, frames, blind, may }: Props) {
  const profile = candidates.get(profileOf(column) ?? '') ?? null;
  const top = topLayer(column);
  const look = (top && candidates.get(top.version)) ?? null;
  const strength = look && top && !blind ? top.strength : null;
  const choice = may.choice && !blind;
  return {
    profile,
    look,
    strength,
    intention: blind ? '' : look?.intention || profile?.intention || '',
    consequences: {
      strength: may.edit ? strength : null,
      trim: Boolean((profile ?? look) && column.trim && may.edit && !blind),
      choice,
      obstacle: choice ? obstacle({ profile, look, frames }) : '',
    },
  };
}

export function JudgeDialog(props: Props) {
  const { column, name, frames, blind, onClose, onDone } = props;
  const { profile, look, strength, intention, consequences } = askedOf(props);
  const form = useWrittenForm<Judgement, Decision>(
    benchEndpoints['POST /api/bench/verdict'].body,
    (judgement) => decisionOf(judgement, { blind, column, profile, look, frames }),
    beginning,
  );
  const { setValue } = form;
  const { busy, problem, run } = useAction();
  // what only the browser knows is told once the dialog is there
  useEffect(() => {
    setValue('gamut', displayGamut());
    setValue('calibrated', localStorage.getItem(CALIBRATED) ?? '');
  }, [setValue]);
  const judgement = useWatch({ control: form.control }) as Judgement;
  const cases = casesOf(judgement, frames);
  const makesChoice = judgement.house && judgement.chosen;

  const send = async (decision: Decision) => {
    const made = await call('POST /api/bench/verdict', { body: decision });
    if (judgement.calibrated) localStorage.setItem(CALIBRATED, judgement.calibrated);
    const choices = made.choices ? `, ${counted(made.choices, 'house choice')} made` : '';
    onDone(`${counted(made.verdicts, 'verdict')} saved${choices}`);
  };
  return (
    <Modal title={name} width={560} top="8vh" onClose={onClose}>
      <p className="mb-3 text-soft">
        {strength === null ? '' : `at ${strength} %, `}on {counted(frames.length, 'frame')}:{' '}
        {frames.map((frame) => frame.name).join('; ')}
      </p>
      <FormProvider {...form}>
        <form noValidate onSubmit={(event) => void form.handleSubmit((decision) => run(() => send(decision)))(event)}>
          <Notice problem={problem} className="mb-3" />
          <Chosen />
          {intention && <AsMeant intention={intention} />}
          <InWords />
          <Consequences chosen={judgement.chosen} {...consequences} />
          {judgement.house && <HouseChoice cases={cases} />}
          <Display gamut={judgement.gamut} calibrated={judgement.calibrated} />
          <ModalFoot>
            <button className="button main" disabled={busy}>
              {makesChoice ? `Choose for ${counted(cases.length, 'case')}` : 'Save the verdict'}
            </button>
          </ModalFoot>
        </form>
      </FormProvider>
    </Modal>
  );
}

interface ConsequencesProps {
  chosen: boolean;
  /** of a look whose usual strength may be advised, in percent; null where it may not */ strength: number | null;
  /** whether there is a trim that may be kept */ trim: boolean;
  /** whether the house choice may be made */ choice: boolean;
  /** why not, as things are; '' where nothing is in the way */ obstacle: string;
}

/** What comes of the verdict beside its own record. */
function Consequences({ chosen, strength, trim, choice, obstacle: why }: ConsequencesProps) {
  return (
    <>
      <Tick name="ribbon" words="put my ribbon on it" />
      {strength !== null && <Tick name="advise" words={`advise ${strength} % as its usual strength`} />}
      {trim && <Tick name="keepTrim" words="keep the trim with it, to be laid with it from now on" />}
      {choice && <Tick name="house" off={!chosen || why !== ''} words="make it the house choice" />}
      {choice && why && <p className="ml-6 text-[12px] text-ochre">Not yet: {why}.</p>}
    </>
  );
}

interface TickProps {
  name: FieldPath<Judgement>;
  words: string;
  off?: boolean;
}

function Tick({ name, words, off = false }: TickProps) {
  const { field } = useController<Judgement>({ name });
  return (
    <label className={`flex items-center gap-2 py-1 ${off ? 'text-soft' : ''}`}>
      <input
        type="checkbox"
        checked={Boolean(field.value)}
        disabled={off}
        onChange={(event) => field.onChange(event.target.checked)}
      />
      <span>{words}</span>
    </label>
  );
}

function Chosen() {
  const { setValue } = useFormContext<Judgement>();
  const { field } = useController<Judgement, 'chosen'>({ name: 'chosen' });
  const refuse = () => {
    field.onChange(false);
    setValue('house', false);
  };
  return (
    <span className="mb-3 inline-flex" role="group" aria-label="The verdict">
      <button
        type="button"
        className="chip !rounded-r-none"
        aria-pressed={field.value}
        onClick={() => field.onChange(true)}
      >
        chosen
      </button>
      <button type="button" className="chip !rounded-l-none !border-l-0" aria-pressed={!field.value} onClick={refuse}>
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

function AsMeant({ intention }: { intention: string }) {
  const { field } = useController<Judgement, 'asMeant'>({ name: 'asMeant' });
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
            checked={field.value === value}
            onChange={() => field.onChange(value)}
          />
          {words}
        </label>
      ))}
    </fieldset>
  );
}

function InWords() {
  const form = useFormContext<Judgement>();
  return (
    <div className="mb-3 flex flex-col gap-3">
      <Field label="In words" problem={problemWith(form, 'words')}>
        {(attributes) => (
          <textarea
            placeholder="what was seen, for whoever looks next"
            {...attributes}
            className={`${attributes.className} !h-[64px] py-1.5`}
            {...form.register('words')}
          />
        )}
      </Field>
      <Field label="With or without a step beside it" problem={problemWith(form, 'beside')}>
        {(attributes) => (
          <input placeholder="for example: without sharpening" {...attributes} {...form.register('beside')} />
        )}
      </Field>
    </div>
  );
}

function HouseChoice({ cases }: { cases: string[] }) {
  const form = useFormContext<Judgement>();
  return (
    <div className="mb-2 ml-6 border-l border-line pl-3">
      <Field label="Client or job, empty for any">
        {(attributes) => <input maxLength={120} {...attributes} {...form.register('client')} />}
      </Field>
      <Tick name="any.camera" words="for any camera" />
      <Tick name="any.light" words="in any light" />
      <Tick name="any.kind" words="for camera data and rendered files alike" />
      <p className="mt-1 text-soft">Cases: {cases.join('; ')}</p>
    </div>
  );
}

function Display({ gamut, calibrated }: Pick<Judgement, 'gamut' | 'calibrated'>) {
  const { register } = useFormContext<Judgement>();
  const [now] = useState(() => Date.now());
  const why = gamut ? 'calibrated more than 90 days ago, or nobody knows when' : 'the display is not known';
  return (
    <p className="mt-3 flex flex-wrap items-center gap-2 border-t border-line pt-3 text-[12.5px]">
      <span>Display: {gamut ? `${gamutWords[gamut]} gamut` : 'gamut not known'}</span>
      <label className="flex items-center gap-1.5">
        calibrated on <input type="date" className="field !h-[26px]" {...register('calibrated')} />
      </label>
      {isProvisional({ gamut: gamut ?? '', calibrated }, now) && (
        <span className="text-ochre">The verdict is provisional: {why}.</span>
      )}
    </p>
  );
}
