/** Sample presets of a language that nobody has described yet: in which container they are, how they are known, how one is emptied. */
import { looksLikeJson, looksLikeXml, looksLikeXmp } from '../../recognise/starts';
import { Problem } from '../../problem';
import { formOfPacket, readSteps, WHOLE, type Container, type Form, type StepDocument } from '../container';
import { writePreset, type Language } from '../write';

export interface Sample {
  name: string;
  bytes: Uint8Array;
}
export interface ReadSample extends Sample {
  doc: StepDocument;
}

/** How files of a language are told from all others. */
export interface Recognise {
  namespace?: string;
  section?: string;
  key?: string;
  value?: string;
}

const HEAD_BYTES = 8192;

/** By how a file begins. */
export function containerOf(bytes: Uint8Array): Container {
  const start = new TextDecoder('latin1').decode(bytes.subarray(0, HEAD_BYTES));
  if (looksLikeJson(start)) return 'json';
  if (!looksLikeXml(start)) return 'ini';
  return looksLikeXmp(start) ? 'xmp' : 'xml';
}

/** Throws a Problem where a file cannot be read, or is in another container than the first. */
export function readSamples(samples: readonly Sample[], form?: Form): ReadSample[] {
  const [first] = samples;
  if (!first) return [];
  const container = containerOf(first.bytes);
  const used = form ?? formOf(first, container);
  return samples.map((sample) => {
    const own = containerOf(sample.bytes);
    if (own !== container)
      throw new Problem(
        'sample-container',
        `${sample.name} is ${own.toUpperCase()}, and ${first.name} is ${container.toUpperCase()}: they are not of one language.`,
        sample.name,
        'Take the samples of one version of one editor.',
      );
    return { ...sample, doc: readSteps(container, sample.bytes, used) };
  });
}

/** Namespaces that packets of any program hold. */
const isCommonNamespace = (uri: string): boolean => /\/xap\/|purl\.org|w3\.org/.test(uri);

/** What all lists have, once each, in the order of the first. */
function shared(lists: readonly (readonly string[])[]): string[] {
  const sets = lists.map((list) => new Set(list));
  return [...(sets[0] ?? [])].filter((one) => sets.every((set) => set.has(one)));
}

/** Names under which files say which program, or which edition of their language, wrote them. */
const tellsVersion = /version|edition|format|schema|app|program|software|creator|type|kind/i;

/** What all samples say alike: the likeliest mark of their language first. */
export function marksOf(docs: readonly StepDocument[]): Recognise[] {
  const namespaces = shared(docs.map((doc) => doc.namespaces))
    .filter((uri) => !isCommonNamespace(uri))
    .map((namespace) => ({ namespace }));
  const pairs = docs.map((doc) =>
    doc.steps.flatMap(({ name, attributes }) =>
      Object.entries(attributes).map(([key, value]) => JSON.stringify({ section: name, key, value })),
    ),
  );
  const alike = shared(pairs).map((one) => JSON.parse(one) as Required<Omit<Recognise, 'namespace'>>);
  const likely = ({ section, key }: Recognise): number =>
    (tellsVersion.test(key ?? '') ? 2 : 0) + (section === WHOLE || section === docs[0]?.steps[0]?.name ? 1 : 0);
  const said = alike.filter(({ value }) => value !== '' && value.length <= 80).sort((a, b) => likely(b) - likely(a));
  const sections = shared(docs.map((doc) => doc.steps.map(({ name }) => name)))
    .filter((name) => name !== WHOLE)
    .map((section) => ({ section }));
  return [...namespaces, ...said, ...sections];
}

/** What a container leaves open, as a sample has it: for reading others, and for writing them. */
export function formOf(sample: Sample, container: Container): Form | undefined {
  if (container !== 'xmp') return undefined;
  const form = formOfPacket(sample.bytes);
  return Object.keys(form).length ? form : undefined;
}

/**
 * The text of a preset that changes nothing, made from a sample: what the mapping reads is taken out, what it does not know
 * stays. Throws a Problem where settings are read all the same.
 */
export function emptyPresetOf(sample: Sample, language: Omit<Language, 'template'>, editor: string): string {
  const { bytes } = writePreset(language, {}, { title: '' }, editor, sample.bytes);
  return new TextDecoder().decode(bytes);
}
