/** Look → companion: a preset that calls it at a strength and touches nothing else. */
import type { Companion } from '@/core/conversion/recipe';
import { languageIn } from '@/core/preset/convert';
import { writePreset } from '@/core/preset/write';
import { Problem } from '@/core/problem';
import { recognise } from '@/core/recognise';
import { descriptors } from '../../editors/service';
import { editorFor, presetFileName, type Maker } from './made';

export const makeCompanionOf: Maker<Companion> = async ({ to, strength }, { version, item }, title, sql) => {
  const editor = await editorFor(to, sql);
  const settings = { look: { name: version.title, strength } };
  const written = writePreset(languageIn(editor), settings, { title, headings: version.headings }, editor.title);
  const [not] = written.left;
  if (not)
    throw new Problem(
      'companion-language',
      `A preset of ${editor.title} cannot call a look: ${not.reason}.`,
      editor.title,
      'Choose an editor whose presets can.',
    );
  const fileName = presetFileName(title, editor);
  return {
    kind: 'preset',
    bytes: written.bytes,
    fileName,
    format: to,
    facts: recognise(fileName, written.bytes, await descriptors(sql)).facts,
    selvedge: null,
    notes: `calls ${item.title} at ${strength} % and touches nothing else`,
    outcome: {
      said: `preset of ${editor.title} that calls the look at ${strength} %`,
      carried: ['look'],
      approximated: [],
      left: [],
      unknown: [],
      error: null,
    },
    figures: {},
    // others may bear the look's title: this one is meant
    calls: item.id,
    told: { action: 'made as a companion', after: { look: item.title, strength } },
  };
};
