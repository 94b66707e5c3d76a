/** Presets written for editors: a preset in another language, as a form of its item; and a companion, which calls a look alone. */
import type { AnswerOf, BodyOf } from '@/core/api';
import { presetFormEndpoints } from '@/core/api/preset-forms';
import { editorKey, type Descriptor } from '@/core/editor/descriptor';
import { identityOfItem } from '@/core/item/identity';
import { convertPreset as convert, languageIn, type PresetConversion } from '@/core/preset/convert';
import type { ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { settingById } from '@/core/preset/settings';
import { writePreset } from '@/core/preset/write';
import { Problem } from '@/core/problem';
import { recognise } from '@/core/recognise';
import { must } from '@/core/must';
import { record } from '../activity/queries';
import { getBlob, putBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { descriptors } from '../editors/service';
import { checked } from '../input';
import { addVersion, createItem, takenOver } from '../items/create';
import * as q from '../items/queries';
import { versionFor } from '../items/service';
import { allowUnderLicence } from '../licences/service';
import { actorOf, allow, type Person } from '../people/roles';
import { bindTo } from '../references/queries';

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

async function editorFor(key: string, sql: Sql = pool()): Promise<Descriptor> {
  const found = (await descriptors(sql)).find((one) => editorKey(one) === key);
  if (found) return found;
  throw new Problem(
    'editor-unknown',
    'There is no such editor.',
    key,
    'Choose one of those that are listed in Studio.',
  );
}

/** What a file of a preset is called: by its title, and as its editor knows it. */
function fileNameFor(title: string, { accepts, presets }: Descriptor): string {
  const extension = accepts.find(({ kind }) => kind === 'preset')?.extension ?? `.${presets?.container ?? 'preset'}`;
  return `${title.replace(/[^\p{L}\p{N} ()-]+/gu, '-')}${extension}`;
}

type Version = Awaited<ReturnType<typeof versionFor>>;

async function presetVersion(person: Person, id: string): Promise<Version> {
  const version = await versionFor(person, id);
  if (version.kind === 'preset') return version;
  throw new Problem('convert-kind', `${version.title} is no preset.`, version.title, 'Choose a preset.');
}

async function converted(person: Person, version: Version, to: Descriptor): Promise<PresetConversion> {
  const item = must(await q.itemById(pool(), version.item_id, person.id));
  const { settings, classes, unknown } = version.facts as {
    settings: Settings;
    classes: ClassOverrides;
    unknown: Record<string, string>;
  };
  const about = { title: version.title, headings: version.headings, identity: identityOfItem(item) };
  const bytes = new Uint8Array(await getBlob(version.sha256));
  return convert({ settings, classes, unknown, about, language: version.format, bytes }, to);
}

const titleOf = (setting: string): string => settingById.get(setting)?.title ?? setting;

/** What would become of each setting of a preset in an editor's language. */
export async function previewPreset(
  person: Person,
  versionId: string,
  to: string,
): Promise<AnswerOf<'GET /api/versions/:id/preset'>> {
  allow(person, 'item.convert');
  const [version, editor] = await Promise.all([presetVersion(person, versionId), editorFor(to)]);
  const made = await converted(person, version, editor);
  return {
    editor: editor.title,
    carried: made.carried.map((setting) => ({ setting, title: titleOf(setting) })),
    approximated: made.approximated.map((one) => ({ ...one, title: titleOf(one.setting) })),
    left: made.left.map((one) => ({ ...one, title: titleOf(one.setting) })),
    rendering: made.rendering,
    refersTo: made.written.read.references.map(({ name }) => name),
  };
}

/** Writes a preset in an editor's language: a form of its item, as a draft that knows its source. */
export async function convertToPreset(
  person: Person,
  versionId: string,
  input: BodyOf<'POST /api/versions/:id/preset'>,
): Promise<{ itemId: string; versionId: string }> {
  allow(person, 'item.convert');
  const { to } = checked(presetFormEndpoints['POST /api/versions/:id/preset'].body, input);
  const [version, editor] = await Promise.all([presetVersion(person, versionId), editorFor(to)]);
  if (version.format === to)
    throw new Problem(
      'convert-same',
      `${version.title} is a preset of ${editor.title} already.`,
      version.title,
      'Choose another editor.',
    );
  const { written, carried, approximated, left, rendering } = await converted(person, version, editor);
  if (!written.written.length)
    throw new Problem(
      'convert-empty',
      `${editor.title} can say nothing of this preset.`,
      version.title,
      'Choose another editor, or make a look of it.',
    );
  await allowUnderLicence(person, must(await q.itemById(pool(), version.item_id, person.id)), 'convert');
  const known = await descriptors();
  return transaction(async (sql) => {
    const fileName = fileNameFor(version.title, editor);
    const id = await addVersion(sql, actorOf(person), version.item_id, {
      kind: 'preset',
      sha: await putBlob(sql, Buffer.from(written.bytes)),
      fileName,
      format: to,
      facts: recognise(fileName, written.bytes, known).facts,
      selvedge: null,
      notes: `written for ${editor.title} from version ${version.number}`,
      variant: editor.title,
    });
    await q.insertLineage(sql, id, version.id, { tool: 'preset', to, carried, approximated, left, rendering });
    await record(sql, actorOf(person), 'item', version.item_id, 'written for an editor', null, {
      editor: editor.title,
      left: left.length,
    });
    return { itemId: version.item_id, versionId: id };
  });
}

/** A preset that calls a look at a strength and touches nothing else: an item of its own, beside the look. */
export async function makeCompanion(
  person: Person,
  versionId: string,
  input: BodyOf<'POST /api/versions/:id/companion'>,
): Promise<{ itemId: string; versionId: string }> {
  allow(person, 'item.convert');
  const { to, title, strength } = checked(presetFormEndpoints['POST /api/versions/:id/companion'].body, input);
  const [version, editor] = await Promise.all([versionFor(person, versionId), editorFor(to)]);
  if (version.kind !== 'look')
    throw new Problem('convert-kind', `${version.title} is no look.`, version.title, 'Choose a look.');
  const settings: Settings = { look: { name: version.title, strength } };
  const written = writePreset(languageIn(editor), settings, { title, headings: version.headings }, editor.title);
  const [not] = written.left;
  if (not)
    throw new Problem(
      'companion-language',
      `A preset of ${editor.title} cannot call a look: ${not.reason}.`,
      editor.title,
      'Choose an editor whose presets can.',
    );
  const look = must(await q.itemById(pool(), version.item_id, person.id));
  await allowUnderLicence(person, look, 'convert');
  const known = await descriptors();
  return transaction(async (sql) => {
    const fileName = fileNameFor(title, editor);
    const made = await createItem(sql, actorOf(person), {
      kind: 'preset',
      title,
      headings: look.headings,
      ...takenOver(look),
      sha: await putBlob(sql, Buffer.from(written.bytes)),
      fileName,
      format: to,
      facts: recognise(fileName, written.bytes, known).facts,
      selvedge: null,
      notes: `calls ${look.title} at ${strength} % and touches nothing else`,
    });
    // others may bear the look's title: this one is meant
    await bindTo(sql, made.versionId, 'look', look.id, person.id);
    await q.insertLineage(sql, made.versionId, version.id, { tool: 'companion', to, strength });
    await record(sql, actorOf(person), 'item', made.itemId, 'made as a companion', null, {
      look: look.title,
      strength,
    });
    return made;
  });
}
