/** Presets, in whatever language a descriptor tells of. */
import { editorKey, type Descriptor } from '../editor/descriptor';
import { applyMapping, type ReadPreset } from '../preset/mapping';
import { readSteps, type StepDocument } from '../preset/container';
import { Problem } from '../problem';
import { baseName, recognised, seen, type Recognised, type SeenFile } from './recognised';
import { looksLikeJson, looksLikeXml, looksLikeXmp } from './starts';

export type RecognisedPreset = Recognised & { read: ReadPreset };
type Language = NonNullable<Descriptor['presets']>;
/** A descriptor that tells of a preset language. */
type WithPresets = Descriptor & { presets: Language };

function isIn({ recognise, container }: Language, doc: StepDocument): boolean {
  if (container !== doc.container) return false;
  const { namespace, section, key, value } = recognise;
  if (namespace && doc.namespaces.includes(namespace)) return true;
  return !!section && doc.steps.some((step) => step.name === section && (!key || step.attributes[key] === value));
}

/** Which descriptor's preset language a document of steps is in; null where none. */
export const languageOf = (doc: StepDocument, descriptors: readonly Descriptor[]): WithPresets | null =>
  descriptors.find((one): one is WithPresets => !!one.presets && isIn(one.presets, doc)) ?? null;

function languageEvidence({ recognise }: Language, container: string): string {
  const { namespace, section, key = '', value = '' } = recognise;
  const by = namespace ? `the namespace ${namespace}` : `${section} ${key} ${value}`;
  return `${container.toUpperCase()} with ${by}`.trim();
}

/** @param found the steps as any language of the container writes them */
export function presetIn(file: SeenFile, found: StepDocument, descriptor: WithPresets): RecognisedPreset {
  const { container, form, mapping } = descriptor.presets;
  const doc = form ? readSteps(container, file.bytes, form) : found;
  const read = applyMapping(mapping, doc);
  const language = editorKey(descriptor);
  return {
    ...recognised(file, 'preset', language, `preset of ${descriptor.title}`, {
      title: read.name || baseName(file.path),
      headings: read.headings,
      needs: read.references.map(({ kind, name }) => ({ kind, name })),
      confidence: 0.99,
      evidence: [
        languageEvidence(descriptor.presets, doc.container),
        `${doc.steps.length} steps, ${Object.keys(read.settings).length} settings read`,
      ],
      facts: {
        language,
        fileTitle: read.name,
        fileHeadings: read.headings,
        settings: read.settings,
        classes: read.classes,
        references: read.references,
        unknown: read.unknown,
        identity: read.identity,
      },
    }),
    read,
  };
}

function stepsOf({ bytes, start }: SeenFile): StepDocument {
  if (looksLikeJson(start)) return readSteps('json', bytes);
  if (!looksLikeXml(start)) return readSteps('ini', bytes);
  return readSteps(looksLikeXmp(start) ? 'xmp' : 'xml', bytes);
}

/**
 * Reads a preset in any language that a descriptor tells; throws a Problem where the content is none.
 * @param only the one language that it may be in, as "editor@version"
 */
export function readPreset(
  path: string,
  bytes: Uint8Array,
  descriptors: readonly Descriptor[],
  only?: string,
): RecognisedPreset {
  const chosen = only ? descriptors.filter((one) => editorKey(one) === only) : descriptors;
  if (only && !chosen.length) {
    const known = `Known are ${descriptors.map(editorKey).join(', ')}.`;
    throw new Problem('editor-unknown', `No descriptor for ${only}.`, only, known);
  }
  const file = seen(path, bytes, chosen);
  const doc = stepsOf(file);
  const descriptor = languageOf(doc, chosen);
  if (!descriptor)
    throw new Problem(
      'preset-language',
      'No descriptor describes the language of this preset.',
      path,
      'Bring in a descriptor with a mapping for the editor that made it.',
    );
  return presetIn(file, doc, descriptor);
}
