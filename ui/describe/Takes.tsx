'use client';
/** What an editor takes: each kind of thing with its place, its form, and what it must meet. */
import type { Accepts } from '@/core/editor/accepts';
import { acceptedKinds, type AcceptedKind } from '@/core/editor/accepted-kinds';
import type { Descriptor } from '@/core/editor/descriptor';
import { kindWords } from '../shelves/model/spine';
import { wayOf, withoutTaking, withPart, withTaking, withTakingAs, writerOf, type Way } from './model/draft';
import { Choice, TextLine, TextLines, Tick } from './Parts';
import { TableForm } from './TableForm';

interface Props {
  draft: Descriptor;
  onChange: (draft: Descriptor) => void;
}

export function Takes({ draft, onChange }: Props) {
  return (
    <>
      {draft.accepts.map((accepts, n) => (
        <Taking
          // by its number: what it is may change while it is described
          key={n}
          n={n}
          accepts={accepts}
          places={Object.keys(draft.places)}
          onChange={(changed) => onChange(withTakingAs(draft, n, changed))}
          onRemove={() => onChange(withoutTaking(draft, n))}
        />
      ))}
      <button type="button" className="button mt-1" onClick={() => onChange(withTaking(draft))}>
        Add what it takes
      </button>
    </>
  );
}

const kinds = acceptedKinds.map((kind) => [kind, kindWords[kind] ?? kind] as const);
const headings: readonly (readonly [Accepts['headings'], string])[] = [
  ['folder', 'become folders'],
  ['inside', 'stand in the file'],
  ['camera', 'do not; the folder is its camera'],
  ['none', 'are not kept'],
];

interface TakingProps {
  n: number;
  accepts: Accepts;
  places: readonly string[];
  onChange: (accepts: Accepts) => void;
  onRemove: () => void;
}

function Taking({ n, accepts, places, onChange, onRemove }: TakingProps) {
  const set = (change: Partial<Accepts>) => onChange({ ...accepts, ...change });
  const words = (kindWords[accepts.kind] ?? accepts.kind).toLowerCase();
  const named = places.includes(accepts.place) ? places : [...places, accepts.place];
  return (
    <fieldset className="mb-3 max-w-[980px] border-t border-line pt-2" aria-label={`${n + 1}: ${words}`}>
      <div className="mb-2 grid grid-cols-2 items-end gap-3 *:min-w-0 lg:grid-cols-[1.2fr_1fr_0.7fr_1.2fr_auto]">
        <Choice
          label="Kind"
          value={accepts.kind}
          choices={kinds}
          onChange={(kind) => onChange(ofKind(accepts, kind))}
        />
        <Choice
          label="Goes into"
          value={accepts.place}
          choices={named.map((place) => [place, place || 'choose'] as const)}
          onChange={(place) => set({ place })}
        />
        <TextLine
          label="Extension"
          mono
          value={accepts.extension}
          onChange={(extension) => set({ extension: extension.trim() })}
        />
        <Choice
          label="Headings"
          value={accepts.headings}
          choices={headings}
          onChange={(one) => set({ headings: one })}
        />
        <button type="button" className="pb-1 underline" aria-label={`Take out ${n + 1}: ${words}`} onClick={onRemove}>
          Take out
        </button>
      </div>
      <Form accepts={accepts} set={set} />
      <details className="mb-1">
        <summary className="cursor-pointer text-[12.5px] text-soft">Conditions and its way in</summary>
        <Conditions accepts={accepts} set={set} onChange={onChange} />
      </details>
    </fieldset>
  );
}

/** Of another kind: presets have a language, and what is no look or preset is taken as it is. */
function ofKind({ language, formats, ...accepts }: Accepts, kind: AcceptedKind): Accepts {
  if (kind === 'preset') return { ...accepts, kind, language: language ?? '', writer: { asIs: true } };
  if (kind === 'look')
    return { ...accepts, kind, writer: accepts.writer.asIs ? writerOf('as a table') : accepts.writer };
  return { ...accepts, kind, formats: formats ?? [], writer: { asIs: true } };
}

interface FormProps {
  accepts: Accepts;
  set: (change: Partial<Accepts>) => void;
}
interface ConditionProps extends FormProps {
  onChange: (accepts: Accepts) => void;
}

/** Of what is typed as a number that counts things; nothing where it is none. */
const wholeNumber = (text: string): number | undefined => (/^\d{1,6}$/.test(text.trim()) ? Number(text) : undefined);

function Form({ accepts, set }: FormProps) {
  const { writer, kind, formats = [], language = '' } = accepts;
  const way = wayOf(writer);
  return (
    <div className="mb-2 grid gap-3 *:min-w-0 lg:grid-cols-[1.2fr_2fr]">
      {kind === 'look' && way !== 'by a form of its own' ? (
        <Choice<Exclude<Way, 'by a form of its own'>>
          label="It is written"
          value={way}
          choices={[
            ['as a table', 'as a table of its own'],
            ['as it is', 'as it is'],
          ]}
          onChange={(one) => set({ writer: writerOf(one) })}
        />
      ) : (
        <p className="self-end pb-1.5 text-[12.5px] text-soft">
          {way === 'as it is' ? 'Written as it is.' : 'Written by a form of its own: see its JSON.'}
        </p>
      )}
      {writer.table && <TableForm table={writer.table} onChange={(table) => set({ writer: { table } })} />}
      {kind === 'preset' && (
        <TextLine
          label="Presets of which editor and version, as editor@2"
          mono
          value={language}
          onChange={(one) => set({ language: one.trim() })}
        />
      )}
      {kind !== 'preset' && way === 'as it is' && (
        <TextLine
          label="Formats, such as dcp, icc, lens-xml, txt; with commas between"
          mono
          value={formats.join(', ')}
          onChange={(text) => set({ formats: text.split(',').map((one) => one.trim()) })}
        />
      )}
    </div>
  );
}

function Conditions({ accepts, set, onChange }: ConditionProps) {
  const { meets = {}, names = {}, most } = accepts;
  const longest = (max: number | undefined) => {
    const { max: _gone, ...rest } = names;
    set({ names: max === undefined ? rest : { ...rest, max } });
  };
  return (
    <div className="grid gap-3 py-2 *:min-w-0 lg:grid-cols-3">
      <div className="flex flex-col gap-1">
        <Tick
          words="It must name the camera that it is for"
          on={meets.camera === true}
          onChange={(on) => {
            const { camera: _gone, ...rest } = meets;
            set({ meets: on ? { ...rest, camera: true } : rest });
          }}
        />
        <Tick
          words="An open photo shows it only when it is opened again"
          on={accepts.sees === 'reopen'}
          onChange={(on) => onChange(withPart(accepts, 'sees', on ? 'reopen' : undefined))}
        />
      </div>
      <TextLine
        label="Most files in the place; empty for any number"
        value={most === undefined ? '' : String(most)}
        onChange={(text) => onChange(withPart(accepts, 'most', wholeNumber(text)))}
      />
      <TextLine
        label="Longest file name; empty for what the system allows"
        value={names.max === undefined ? '' : String(names.max)}
        onChange={(text) => longest(wholeNumber(text))}
      />
      <TextLines
        className="lg:col-span-3"
        label="Where a person has the editor take it in: the steps, one a line. Then its place is a hand-off folder."
        value={(accepts.import ?? []).join('\n')}
        onChange={(text) => set({ import: text.split('\n') })}
      />
    </div>
  );
}
