/** JSON: descriptors of editors, common settings, and presets of editors that write it. */
import { editorKey, parseDescriptor } from '../../editor/descriptor';
import { identityIn } from '../../item/identity';
import { readSteps } from '../../preset/container';
import type { Settings } from '../../preset/kinds';
import { oneWayEntries } from '../../preset/mapping-check';
import { faults, OWN_LANGUAGE } from '../../preset/settings';
import { languageOf, presetIn } from '../presets';
import { Problem } from '../../problem';
import { headingsIn, recognised, type Format, type Recognised, type SeenFile } from '../recognised';
import { looksLikeJson } from '../starts';

function objectIn(file: SeenFile): Record<string, unknown> | null {
  if (!looksLikeJson(file.start)) return null;
  try {
    return JSON.parse(new TextDecoder().decode(file.bytes)) as Record<string, unknown>;
  } catch {
    return null;
  }
}

function descriptorIn(file: SeenFile, value: Record<string, unknown>): Recognised | null {
  if (!('editor' in value) || !('version' in value) || !('accepts' in value)) return null;
  const descriptor = parseDescriptor(value);
  return recognised(file, 'descriptor', editorKey(descriptor), `descriptor of ${descriptor.title}`, {
    title: descriptor.title,
    evidence: [
      'JSON with editor, version and what it accepts',
      'every rule of descriptors holds',
      ...(descriptor.presets ? oneWayEntries(descriptor.presets.mapping) : []).map(
        ({ where, message }) => `${where} ${message}`,
      ),
    ],
    facts: { editor: descriptor.editor, version: descriptor.version },
  });
}

function settingsIn(file: SeenFile, value: Record<string, unknown>): Recognised | null {
  if (!value.settings || typeof value.settings !== 'object') return null;
  const settings = value.settings as Settings;
  const count = Object.keys(settings).length;
  if (!count || faults(settings).length) return null;
  const name = typeof value.name === 'string' ? value.name : '';
  return recognised(file, 'preset', OWN_LANGUAGE, 'common settings as JSON', {
    ...(name ? { title: name } : {}),
    headings: headingsIn(value.headings),
    evidence: [`JSON with ${count} common settings`],
    facts: {
      language: OWN_LANGUAGE,
      fileTitle: value.name ?? '',
      settings,
      classes: {},
      references: [],
      unknown: {},
      identity: identityIn({ ...value, webStatement: value.web }),
    },
  });
}

/** A preset of an editor that writes JSON. */
function presetOf(file: SeenFile): Recognised | null {
  if (!file.descriptors.some(({ presets }) => presets?.container === 'json')) return null;
  try {
    const doc = readSteps('json', file.bytes);
    const descriptor = languageOf(doc, file.descriptors);
    return descriptor && presetIn(file, doc, descriptor);
  } catch (error) {
    // JSON holds much else, and what is too large or too deep for a preset is none
    if (error instanceof Problem && ['preset-steps', 'json-depth'].includes(error.code)) return null;
    throw error;
  }
}

export const json: Format = {
  id: 'json',
  find: (file) => {
    const value = objectIn(file);
    return value && (descriptorIn(file, value) ?? settingsIn(file, value) ?? presetOf(file));
  },
};
