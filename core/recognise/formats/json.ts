/** JSON of ours: descriptors of editors, and common settings. */
import { editorKey, parseDescriptor } from '../../editor/descriptor';
import type { Settings } from '../../preset/kinds';
import { faults } from '../../preset/settings';
import { headingsIn, recognised, type Format, type Recognised, type SeenFile } from '../recognised';

const SETTINGS = 'etagere@1';

function objectIn(file: SeenFile): Record<string, unknown> | null {
  if (!/^\s*(?:\u00ef\u00bb\u00bf)?\{/.test(file.start)) return null;
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
    evidence: ['JSON with editor, version and what it accepts', 'every rule of descriptors holds'],
    facts: { editor: descriptor.editor, version: descriptor.version },
  });
}

function settingsIn(file: SeenFile, value: Record<string, unknown>): Recognised | null {
  if (!value.settings || typeof value.settings !== 'object') return null;
  const settings = value.settings as Settings;
  const count = Object.keys(settings).length;
  if (!count || faults(settings).length) return null;
  const name = typeof value.name === 'string' ? value.name : '';
  return recognised(file, 'preset', SETTINGS, 'common settings as JSON', {
    ...(name ? { title: name } : {}),
    headings: headingsIn(value.headings),
    evidence: [`JSON with ${count} common settings`],
    facts: { language: SETTINGS, fileTitle: value.name ?? '', settings, classes: {}, references: [], unknown: {} },
  });
}

export const json: Format = {
  id: 'json',
  find: (file) => {
    const value = objectIn(file);
    return value && (descriptorIn(file, value) ?? settingsIn(file, value));
  },
};
