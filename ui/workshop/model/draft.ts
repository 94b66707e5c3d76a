/** A mapping that is being worked on: its samples, its descriptor, and all that follows from both. */
import { parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import { checkSample, type CheckedSample } from '@/core/preset/workshop/check';
import { meaningOf } from '@/core/preset/workshop/describe';
import {
  emptyPresetOf,
  marksOf,
  readSamples,
  type ReadSample,
  type Recognise,
  type Sample,
} from '@/core/preset/workshop/samples';
import { surveyOf, type Property } from '@/core/preset/workshop/survey';
import { Problem, type ToldProblem } from '@/core/problem';

export interface Draft {
  samples: readonly Sample[];
  /** null until the editor is said */ descriptor: Descriptor | null;
  /** the sample of which the empty preset is made; '' for the one that the descriptor has */ emptyOf: string;
  /** the editor's descriptor as it stood when the draft was begun; null where there was none */ base: Descriptor | null;
}

/** Before anything is changed. */
export const draftOf = (known: Descriptor | null): Draft => ({
  samples: [],
  descriptor: known,
  emptyOf: '',
  base: known,
});

export interface Worked {
  read: readonly ReadSample[];
  properties: readonly Property[];
  marks: readonly Recognise[];
  /** with its empty preset; null until the editor is said */ descriptor: Descriptor | null;
  checked: readonly CheckedSample[];
  /** properties that stand for nothing */ unmapped: readonly Property[];
  /** why the samples cannot be read, or no empty preset can be made */ problem: ToldProblem | null;
}

/** What a work comes to, or the problem that it tells. */
function told<T>(work: () => T): { value: T; problem: null } | { value: null; problem: ToldProblem } {
  try {
    return { value: work(), problem: null };
  } catch (error) {
    if (error instanceof Problem) return { value: null, problem: error.toJSON() };
    throw error;
  }
}

/** The descriptor with the empty preset that is made of the chosen sample. */
function withTemplate({ descriptor, emptyOf, samples }: Draft): Descriptor | null {
  const sample = samples.find(({ name }) => name === emptyOf);
  if (!descriptor?.presets || !sample) return descriptor;
  const template = emptyPresetOf(sample, descriptor.presets, descriptor.title);
  return { ...descriptor, presets: { ...descriptor.presets, template } };
}

export function workedOut(draft: Draft): Worked {
  const presets = draft.descriptor?.presets;
  const reading = told(() => readSamples(draft.samples, presets?.form));
  const read = reading.value ?? [];
  const docs = read.map(({ doc }) => doc);
  const making = told(() => withTemplate(draft));
  const descriptor = making.value ?? draft.descriptor;
  const language = descriptor?.presets;
  const properties = surveyOf(docs, presets?.mapping.entries);
  return {
    read,
    properties,
    marks: marksOf(docs),
    descriptor,
    checked: language ? read.map((sample) => checkSample(language, sample, descriptor.title)) : [],
    unmapped: descriptor ? properties.filter((one) => meaningOf(descriptor, one).is === 'unknown') : [],
    problem: reading.problem ?? making.problem,
  };
}

/** The descriptor as it is proposed; throws a Problem where it breaks a rule. */
export const toPropose = (descriptor: Descriptor): string =>
  `${JSON.stringify(parseDescriptor(JSON.parse(JSON.stringify(descriptor))), null, 2)}\n`;

const isSame = (one: Uint8Array, other: Uint8Array): boolean =>
  one.length === other.length && one.every((byte, index) => byte === other[index]);

/** Samples with others added: the same file counts once, another one of a name that is there gets a number. */
export function withSamples(samples: readonly Sample[], more: readonly Sample[]): Sample[] {
  const all = [...samples];
  for (const { name, bytes } of more) {
    if (all.some((one) => isSame(one.bytes, bytes))) continue;
    const isTaken = (wanted: string): boolean => all.some((one) => one.name === wanted);
    let free = name;
    for (let number = 2; isTaken(free); number++) free = `${name} (${number})`;
    all.push({ name: free, bytes });
  }
  return all;
}

/** A mark in words, and as the value of a choice. */
export function markWords({ namespace, section, key, value }: Recognise): string {
  if (namespace) return `the namespace ${namespace}`;
  const place = section === '.' ? '' : `${section} `;
  return key ? `${place}${key} is “${value}”` : `a step ${section}`;
}
