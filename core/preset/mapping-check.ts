/** What is wrong with a mapping before any preset is read through it, with the place of each fault. */
import type { Mapping, MappingEntry } from './mapping';
import { placeOf } from './mapping';
import { faultOfRule, type NumberRule } from './number-rule';
import { settingById } from './settings';

export interface MappingFault {
  /** such as `entry 3 (lamp.stops)` */ where: string;
  message: string;
}

const ways = (entry: MappingEntry): boolean[] => [
  entry.constant !== undefined,
  !!entry.fields,
  !!entry.sum,
  !!entry.attribute && entry.constant === undefined,
];

function faultOf(entry: MappingEntry): string | null {
  const [id = ''] = entry.to.split('.');
  if (!settingById.has(id)) return `names the setting “${id}”, which is none of the common settings`;
  if (ways(entry).filter(Boolean).length !== 1)
    return 'must say one of attribute, fields, sum and constant, so that it is known where the value stands';
  return null;
}

const rulesOf = (entry: MappingEntry): NumberRule[] => {
  if (entry.fields) return Object.values(entry.fields).filter((rule) => rule.as !== 'text');
  return entry.sum ?? (entry.names || entry.as === 'text' || entry.constant !== undefined ? [] : [entry]);
};

const placesOf = (entry: MappingEntry): string => {
  const attribute = entry.attribute ?? Object.values(entry.fields ?? {})[0]?.attribute ?? entry.sum?.[0]?.attribute;
  return attribute ? placeOf(entry.step, attribute) : entry.step;
};

const collect = (mapping: Mapping, of: (entry: MappingEntry) => string | null): MappingFault[] =>
  mapping.entries.flatMap((entry, index) => {
    const message = of(entry);
    return message ? [{ where: `entry ${index + 1} (${placesOf(entry)})`, message }] : [];
  });

/** What makes a mapping useless: a descriptor with one of these is refused. */
export const faultsOfMapping = (mapping: Mapping): MappingFault[] => collect(mapping, faultOf);

/** Entries by which presets can be read but not written. */
export const oneWayEntries = (mapping: Mapping): MappingFault[] =>
  collect(mapping, (entry) => {
    const fault = rulesOf(entry).map(faultOfRule).find(Boolean);
    return fault ? `${fault}; it is read, but never written` : null;
  });
