'use client';
/** How a property's values become those of its setting. What is put together from several properties is told, and changed as JSON. */
import { useState } from 'react';
import type { MappingEntry } from '@/core/preset/mapping';
import { faultOfRule, through } from '@/core/preset/number-rule';
import { settingById } from '@/core/preset/settings';
import type { SettingClass } from '@/core/preset/kinds';
import type { Property } from '@/core/preset/workshop/survey';
import { NumberField } from '../kit/NumberField';
import { goingBy, tableFrom, tableText, wayOf, ways, wayWords, type Way } from './model/rule';

interface Props {
  property: Property;
  entry: MappingEntry;
  onEntry: (entry: MappingEntry) => void;
}

export function EntryFields(props: Props) {
  const { entry } = props;
  if (entry.fields || entry.sum || entry.constant !== undefined)
    return <p className="mt-1 text-[12px] text-soft">put together from several properties; see the mapping as JSON</p>;
  return (
    <div className="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1 text-[12px] text-soft">
      {entry.names ? <Words {...props} /> : entry.as !== 'text' && <Numbers {...props} />}
      <Acts {...props} />
    </div>
  );
}

const wide = { min: -1e6, max: 1e6 };

function Numbers({ property, entry, onEntry }: Props) {
  const way = wayOf(entry);
  const isOne = (entry.as ?? 'number') === 'number';
  const fault = faultOfRule(entry);
  const number = (label: string, value: number, set: (value: number) => MappingEntry) => (
    <label className="flex items-center gap-1">
      {label}
      <NumberField
        label={`${label}, of ${property.key}`}
        className="field w-[84px]"
        value={value}
        step={0.1}
        {...wide}
        onValue={(next) => onEntry(set(next))}
      />
    </label>
  );
  return (
    <>
      {isOne && (
        <select
          className="field"
          aria-label={`How ${property.key} becomes its setting`}
          value={way}
          onChange={(event) => onEntry(goingBy(entry, event.target.value as Way, property))}
        >
          {ways.map((one) => (
            <option key={one} value={one}>
              {wayWords[one]}
            </option>
          ))}
        </select>
      )}
      {way === 'table' ? (
        <Table property={property} entry={entry} onEntry={onEntry} />
      ) : (
        <>
          {number('times', entry.scale ?? 1, (scale) => ({ ...entry, scale }))}
          {number('plus', entry.offset ?? 0, (offset) => ({ ...entry, offset }))}
        </>
      )}
      {isOne && (
        <label className="flex items-center gap-1">
          <input
            type="checkbox"
            checked={entry.multipleOf === 1}
            onChange={(event) => onEntry(wholeSteps(entry, event.target.checked))}
          />
          whole numbers
        </label>
      )}
      {fault ? (
        <span role="alert" className="text-madder">
          {fault}
        </span>
      ) : (
        <Reach property={property} entry={entry} />
      )}
    </>
  );
}

function wholeSteps({ multipleOf: _multipleOf, ...entry }: MappingEntry, on: boolean): MappingEntry {
  return on ? { ...entry, multipleOf: 1 } : entry;
}

/** What the ends of the samples come to, in the setting's unit. */
function Reach({ property: { low, high }, entry }: Pick<Props, 'property' | 'entry'>) {
  const setting = settingById.get(entry.to);
  if (low === null || high === null || !setting) return null;
  const ends = [low, high].map((x) => Number(through(entry, x).toPrecision(4)));
  const isNumber = (entry.as ?? 'number') === 'number';
  const bad = isNumber ? ends.map((x) => setting.check(x)).find(Boolean) : null;
  return (
    <span className={bad ? 'text-madder' : ''} role={bad ? 'alert' : undefined}>
      {ends.join(' to ')} {setting.unit}
      {bad && `: ${bad}`}
    </span>
  );
}

function Table({ property, entry, onEntry }: Props) {
  const [text, setText] = useState(tableText(entry.table ?? []));
  const read = tableFrom(text);
  return (
    <label className="flex items-center gap-1">
      table
      <input
        className="field w-[220px]"
        aria-label={`Table of ${property.key}`}
        aria-invalid={!read}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => read && onEntry({ ...entry, table: read })}
      />
      {!read && (
        <span role="alert" className="text-madder">
          as -100: 0.5, 0: 1, 100: 2
        </span>
      )}
    </label>
  );
}

/** What each word stands for, where the setting is a number. */
function Words({ property, entry, onEntry }: Props) {
  return (
    <>
      {Object.entries(entry.names ?? {}).map(([word, value]) => (
        <label key={word} className="flex items-center gap-1">
          {word} is
          {typeof value === 'number' ? (
            <NumberField
              label={`What ${word} stands for, of ${property.key}`}
              className="field w-[72px]"
              value={value}
              step={0.1}
              {...wide}
              onValue={(next) => onEntry({ ...entry, names: { ...entry.names, [word]: next } })}
            />
          ) : (
            JSON.stringify(value)
          )}
        </label>
      ))}
    </>
  );
}

/** Where an editor acts with a setting, if it does so otherwise than others. */
const classes: readonly { value: SettingClass; words: string }[] = [
  { value: 'point', words: 'on each pixel by itself' },
  { value: 'local', words: 'by the pixels around' },
  { value: 'position', words: 'by the place in the picture' },
  { value: 'raw', words: 'on camera data' },
];

function Acts({ property, entry, onEntry }: Props) {
  const usual = settingById.get(entry.to)?.class;
  const set = (value: string) => {
    const { class: _class, ...rest } = entry;
    onEntry(value === usual ? rest : { ...rest, class: value as SettingClass });
  };
  if (usual === 'geometry' || usual === 'reference') return null;
  return (
    <label className="flex items-center gap-1">
      acts
      <select
        className="field"
        aria-label={`Where ${property.key} acts`}
        value={entry.class ?? usual}
        onChange={(event) => set(event.target.value)}
      >
        {classes.map(({ value, words }) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
