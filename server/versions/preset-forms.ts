/** Presets written for editors: a preset in another language, as a form of its item; and a companion, which calls a look alone. */
import type { AnswerOf, BodyOf } from '@/core/api';
import { presetFormEndpoints } from '@/core/api/preset-forms';
import { editorKey, type Descriptor } from '@/core/editor/descriptor';
import { settingTitle } from '@/core/preset/settings';
import type { Kept } from '../conversions/keep';
import { editorFor } from '../conversions/makers/made';
import { writtenFor } from '../conversions/makers/write';
import { convertOne, sourceFor } from '../conversions/one';
import { pool } from '../db/pool';
import { descriptors } from '../editors/service';
import { checked } from '../input';
import { allow, type Person } from '../people/roles';

const isWritten = ({ presets }: Descriptor): boolean => !!presets?.template;
const calls = ({ presets }: Descriptor): boolean =>
  !!presets && presets.mapping.entries.some(({ to }) => to === 'look' || to.startsWith('look.'));

/** Editors whose presets can be written, and whether these can call a look. */
export async function presetLanguages(person: Person): Promise<AnswerOf<'GET /api/preset-languages'>['languages']> {
  allow(person, 'view');
  return (await descriptors())
    .filter(isWritten)
    .map((one) => ({ id: editorKey(one), title: one.title, calls: calls(one) }));
}

/** What would become of each setting of a preset in an editor's language. */
export async function previewPreset(
  person: Person,
  versionId: string,
  to: string,
): Promise<AnswerOf<'GET /api/versions/:id/preset'>> {
  allow(person, 'item.convert');
  const [source, editor] = await Promise.all([sourceFor(person, versionId, 'preset'), editorFor(to, pool())]);
  const made = await writtenFor(source, editor);
  return {
    editor: editor.title,
    carried: made.carried.map((setting) => ({ setting, title: settingTitle(setting) })),
    approximated: made.approximated.map((one) => ({ ...one, title: settingTitle(one.setting) })),
    left: made.left.map((one) => ({ ...one, title: settingTitle(one.setting) })),
    rendering: made.rendering,
    refersTo: made.written.read.references.map(({ name }) => name),
  };
}

/** Writes a preset in an editor's language: a form of its item, as a draft that knows its source. */
export async function convertToPreset(
  person: Person,
  versionId: string,
  input: BodyOf<'POST /api/versions/:id/preset'>,
): Promise<Kept> {
  allow(person, 'item.convert');
  const { to } = checked(presetFormEndpoints['POST /api/versions/:id/preset'].body, input);
  const source = await sourceFor(person, versionId);
  return convertOne(person, { tool: 'preset', to }, source, source.version.title);
}

/** A preset that calls a look at a strength and touches nothing else: an item of its own, beside the look. */
export async function makeCompanion(
  person: Person,
  versionId: string,
  input: BodyOf<'POST /api/versions/:id/companion'>,
): Promise<Kept> {
  allow(person, 'item.convert');
  const { to, title, strength } = checked(presetFormEndpoints['POST /api/versions/:id/companion'].body, input);
  return convertOne(person, { tool: 'companion', to, strength }, await sourceFor(person, versionId), title);
}
