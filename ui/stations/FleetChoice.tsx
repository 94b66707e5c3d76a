'use client';
/** Which stations are shown, and in which order: kept in the address, so that a list can be sent to somebody. */
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import {
  fleetAddress,
  fleetOrders,
  fleetShows,
  wholeFleet,
  type FleetFilter,
  type FleetOrder,
  type FleetShow,
} from '@/core/records/fleet';
import { systemNames } from './model/systems';

const showWords: Record<FleetShow, string> = {
  all: 'whatever they need',
  somebody: 'to see to',
  due: 'something due',
  start: 'editor to be started',
  silent: 'silent for a day',
};
const orderWords: Record<FleetOrder, string> = {
  place: 'as they stand',
  need: 'those that need most first',
  report: 'silent for longest first',
};

interface Props {
  filter: FleetFilter;
  editors: readonly { id: string; title: string }[];
  groups: readonly string[];
}

export function FleetChoice({ filter, editors, groups }: Props) {
  const router = useRouter();
  const [words, setWords] = useState(filter.words);
  const show = (part: Partial<FleetFilter>) => router.push(fleetAddress({ ...filter, words: words.trim(), ...part }));
  const choice = (
    label: string,
    name: Exclude<keyof FleetFilter, 'words'>,
    options: readonly (readonly [value: string, words: string])[],
  ) => (
    <select
      className="field"
      aria-label={label}
      value={filter[name]}
      onChange={(event) => show({ [name]: event.target.value })}
    >
      {options.map(([value, said]) => (
        <option key={value} value={value}>
          {said}
        </option>
      ))}
    </select>
  );
  const submit = (event: FormEvent) => {
    event.preventDefault();
    show({});
  };
  return (
    <form role="search" aria-label="Stations" className="mb-3 flex flex-wrap items-center gap-2" onSubmit={submit}>
      <input
        className="field w-[190px]"
        aria-label="Name of a station or a person"
        placeholder="Name or person"
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      {choice('With which system', 'system', [['', 'any system'], ...Object.entries(systemNames)])}
      {choice('With which editor', 'editor', [
        ['', 'any editor'],
        ...editors.map(({ id, title }) => [id, title] as const),
      ])}
      {groups.length > 0 &&
        choice('In which group', 'group', [['', 'any group'], ...groups.map((name) => [name, name] as const)])}
      {choice(
        'What they need',
        'show',
        fleetShows.map((one) => [one, showWords[one]] as const),
      )}
      {choice(
        'In which order',
        'order',
        fleetOrders.map((one) => [one, orderWords[one]] as const),
      )}
      <button className="button">Show</button>
      {fleetAddress(filter) !== fleetAddress(wholeFleet) && (
        <button
          type="button"
          className="button"
          onClick={() => {
            setWords('');
            router.push(fleetAddress(wholeFleet));
          }}
        >
          Show all
        </button>
      )}
    </form>
  );
}
