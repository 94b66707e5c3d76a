/** Preset → preset of another editor: a form of the same item. */
import type { Write } from '@/core/conversion/recipe';
import type { Descriptor } from '@/core/editor/descriptor';
import { identityOfItem } from '@/core/item/identity';
import type { ClassOverrides } from '@/core/preset/bake';
import type { PresetConversion } from '@/core/preset/convert';
import type { Settings } from '@/core/preset/kinds';
import { Problem } from '@/core/problem';
import { recognise } from '@/core/recognise';
import { getBlob } from '../../blobs/service';
import { descriptors } from '../../editors/service';
import { compute } from '../../threads/computing';
import { editorFor, presetFileName, type Maker, type Source } from './made';

/** What becomes of each setting in an editor's language, and the file. */
export async function writtenFor({ version, item }: Source, to: Descriptor): Promise<PresetConversion> {
  const { settings, classes, unknown } = version.facts as {
    settings: Settings;
    classes: ClassOverrides;
    unknown: Record<string, string>;
  };
  const about = { title: version.title, headings: version.headings, identity: identityOfItem(item) };
  const bytes = new Uint8Array(await getBlob(version.sha256));
  return compute('writtenPreset', {
    source: { settings, classes, unknown, about, language: version.format, bytes },
    to,
  });
}

/** Two renderings that are so near, in ΔE00, are one: what is between them is rounding. */
const UNSEEN = 0.005;

export const writePresetFor: Maker<Write> = async ({ to }, source, _, sql) => {
  const { version } = source;
  const editor = await editorFor(to, sql);
  if (version.format === to)
    throw new Problem(
      'convert-same',
      `${version.title} is a preset of ${editor.title} already.`,
      version.title,
      'Choose another editor.',
    );
  const { written, carried, approximated, left, rendering } = await writtenFor(source, editor);
  if (!written.written.length)
    throw new Problem(
      'convert-empty',
      `${editor.title} can say nothing of this preset.`,
      version.title,
      'Choose another editor, or make a look of it.',
    );
  const fileName = presetFileName(version.title, editor);
  return {
    kind: 'preset',
    bytes: written.bytes,
    fileName,
    format: to,
    facts: recognise(fileName, written.bytes, await descriptors(sql)).facts,
    selvedge: null,
    notes: `written for ${editor.title} from version ${version.number}`,
    outcome: {
      said: `preset of ${editor.title}`,
      carried,
      approximated,
      left,
      unknown: [],
      error: rendering.maxDeltaE < UNSEEN ? null : rendering,
    },
    figures: { carried, approximated, left, rendering },
    variant: editor.title,
    told: { action: 'written for an editor', after: { editor: editor.title, left: left.length } },
  };
};
