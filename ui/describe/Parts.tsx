'use client';
/** Small controls of which the form of a descriptor is made. */
import { systems, type System } from '@/core/editor/place-schema';
import { Field } from '../kit/Field';
import type { Templates } from './model/draft';

interface TextProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  mono?: boolean;
  placeholder?: string;
  className?: string;
}

export const TextLine = ({ label, value, onChange, mono = false, placeholder, className }: TextProps) => (
  <Field label={label} className={className}>
    {(attributes) => (
      <input
        {...attributes}
        className={`${attributes.className} ${mono ? 'font-mono text-[12.5px]' : ''}`}
        value={value}
        placeholder={placeholder}
        spellCheck={false}
        onChange={(event) => onChange(event.target.value)}
      />
    )}
  </Field>
);

export const TextLines = ({ label, value, onChange, className }: Omit<TextProps, 'mono' | 'placeholder'>) => (
  <Field label={label} className={className}>
    {(attributes) => (
      <textarea
        {...attributes}
        className={`${attributes.className} min-h-[64px] py-1.5`}
        rows={3}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    )}
  </Field>
);

interface ChoiceProps<Value extends string> {
  label: string;
  value: Value;
  choices: readonly (readonly [Value, string])[];
  onChange: (value: Value) => void;
  className?: string;
}

export const Choice = <Value extends string>({ label, value, choices, onChange, className }: ChoiceProps<Value>) => (
  <Field label={label} className={className}>
    {(attributes) => (
      <select {...attributes} value={value} onChange={(event) => onChange(event.target.value as Value)}>
        {choices.map(([one, words]) => (
          <option key={one} value={one}>
            {words}
          </option>
        ))}
      </select>
    )}
  </Field>
);

interface TickProps {
  words: string;
  on: boolean;
  onChange: (on: boolean) => void;
}

export const Tick = ({ words, on, onChange }: TickProps) => (
  <label className="flex items-center gap-1.5">
    <input type="checkbox" checked={on} onChange={(event) => onChange(event.target.checked)} />
    {words}
  </label>
);

/** Ticks of one list, in the order in which they are offered. */
export const toggled = <One extends string>(
  offered: readonly One[],
  list: readonly One[],
  one: One,
  on: boolean,
): One[] => offered.filter((each) => (each === one ? on : list.includes(each)));

export const systemWords: Readonly<Record<System, string>> = { macos: 'macOS', windows: 'Windows', linux: 'Linux' };

interface PathsProps {
  /** of what, for those who hear the fields one by one */ of: string;
  shown: readonly System[];
  templates: Templates;
  onChange: (templates: Templates) => void;
}

/** A path for each system on which the editor runs. */
export const Paths = ({ of, shown, templates, onChange }: PathsProps) => (
  <>
    {systems
      .filter((system) => shown.includes(system))
      .map((system) => (
        <label key={system} className="mb-1 grid grid-cols-[70px_1fr] items-center text-[12px] text-soft">
          {systemWords[system]}
          <input
            aria-label={`${of}, ${systemWords[system]}`}
            className="field w-full font-mono text-[12.5px] text-ink"
            placeholder="{home}/…"
            spellCheck={false}
            value={templates[system] ?? ''}
            onChange={(event) => onChange({ ...templates, [system]: event.target.value })}
          />
        </label>
      ))}
  </>
);
