'use client';
/** Every property of the samples, with what it stands for. */
import type { Descriptor } from '@/core/editor/descriptor';
import { settingTitle } from '@/core/preset/settings';
import { meaningOf, type Meaning } from '@/core/preset/workshop/describe';
import { suggestionsFor } from '@/core/preset/workshop/suggest';
import type { Property } from '@/core/preset/workshop/survey';
import { EntryFields } from './EntryFields';
import { meaningFrom, meaningValue, settingsFor } from './model/rule';

interface Props {
  properties: readonly Property[];
  /** how many samples there are */ samples: number;
  descriptor: Descriptor;
  onMean: (property: Property, meaning: Meaning) => void;
}

export function Properties({ properties, samples, descriptor, onMean }: Props) {
  return (
    <table className="list" aria-label="Properties">
      <thead>
        <tr>
          <th>Property</th>
          <th>In the samples</th>
          <th>Stands for</th>
        </tr>
      </thead>
      <tbody>
        {properties.map((property) => (
          <tr key={property.key} data-row={property.key}>
            <th scope="row" className="!border-line !py-2 align-top !text-[13.5px] !text-ink [overflow-wrap:anywhere]">
              {property.key}
              <span className="block text-[12px] font-normal text-soft">
                in {property.samples} of {samples}
              </span>
            </th>
            <td className="align-top [overflow-wrap:anywhere]">
              {seenWords(property)}
              <span className="block text-[12px] text-soft">{property.examples.join(' · ')}</span>
            </td>
            <td className="w-[340px] align-top">
              <StandsFor property={property} meaning={meaningOf(descriptor, property)} onMean={onMean} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function seenWords({ type, low, high, whole, words }: Property): string {
  switch (type) {
    case 'number':
      return `${whole ? 'whole numbers' : 'numbers'}, ${low} to ${high}`;
    case 'numbers':
      return `lists of numbers, ${low} to ${high}`;
    case 'points':
      return `points, ${low} to ${high}`;
    case 'word':
      return words.length === 1 ? 'always the same word' : `${words.length} words`;
    case 'text':
      return 'text';
  }
}

interface StandsForProps {
  property: Property;
  meaning: Meaning;
  onMean: Props['onMean'];
}

function StandsFor({ property, meaning, onMean }: StandsForProps) {
  if (meaning.is === 'mark') return <span className="text-soft">tells the language</span>;
  const suggestions = meaning.is === 'unknown' ? suggestionsFor(property).slice(0, 2) : [];
  const mean = (value: string) => onMean(property, meaningFrom(value, property));
  return (
    <>
      <select
        className="field w-full"
        aria-label={`What ${property.key} stands for`}
        value={meaningValue(meaning)}
        onChange={(event) => mean(event.target.value)}
      >
        <option value="unknown">nothing that is known</option>
        {(property.type === 'word' || property.type === 'text') && (
          <>
            <option value="title">the preset’s title</option>
            <option value="headings">its headings</option>
          </>
        )}
        <optgroup label="Settings">
          {settingsFor(property).map(({ id, title, unit }) => (
            <option key={id} value={`setting ${id}`}>
              {title} ({unit})
            </option>
          ))}
          {meaning.is === 'setting' && !settingsFor(property).some(({ id }) => id === meaning.entry.to) && (
            <option value={meaningValue(meaning)}>{settingTitle(meaning.entry.to.split('.')[0] ?? '')}</option>
          )}
        </optgroup>
      </select>
      {suggestions.map(({ to, why }) => (
        <button
          key={to}
          className="mt-1 block text-left text-[12px] text-verd hover:underline"
          onClick={() => mean(`setting ${to}`)}
        >
          {settingTitle(to)}? {why}
        </button>
      ))}
      {meaning.is === 'setting' && (
        <EntryFields
          property={property}
          entry={meaning.entry}
          onEntry={(entry) => onMean(property, { is: 'setting', entry })}
        />
      )}
    </>
  );
}
