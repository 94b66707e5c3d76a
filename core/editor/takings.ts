/** Which editor takes which kind of item: as it is, after a conversion that Etagere can make, or not at all. */
import { acceptance } from './acceptance';
import { editorKey, type Descriptor } from './descriptor';

export interface ThingToPlace {
  kind: string;
  /** of a preset the editor whose language it is; of the others the form of the file, '' where it does not matter */ language: string;
  name: string;
}
export interface Taking {
  editor: string;
  how: 'accepted' | 'after conversion' | 'impossible';
  words: string;
}

/** What can be made of a kind here, the nearest first, with what is said of it. */
const becomes: Readonly<Record<string, readonly { kind: string; format?: string; into: string }[]>> = {
  preset: [{ kind: 'look', into: 'a look, of what a table can carry' }],
  look: [{ kind: 'icc-profile', format: 'icc', into: 'an ICC device link or abstract profile' }],
  'camera-profile': [{ kind: 'camera-profile', format: 'icc', into: 'an ICC input profile, for one light' }],
  'icc-profile': [{ kind: 'look', into: 'a look: only for device links and abstract profiles' }],
};

/** The kinds, presets by each language that some descriptor tells. */
export function thingsToPlace(all: readonly Descriptor[]): ThingToPlace[] {
  const languages = all
    .filter((d) => d.presets)
    .map((d) => ({ kind: 'preset', language: editorKey(d), name: `preset of ${d.title}` }));
  return [
    { kind: 'look', language: '', name: 'look' },
    ...languages,
    { kind: 'camera-profile', language: 'dcp', name: 'camera profile (DCP)' },
    { kind: 'camera-profile', language: 'icc', name: 'camera profile (ICC)' },
    { kind: 'icc-profile', language: 'icc', name: 'ICC profile' },
    { kind: 'lens-database', language: 'lens-xml', name: 'lens database' },
    { kind: 'add-on', language: '', name: 'add-on' },
    { kind: 'support-file', language: '', name: 'support file' },
  ];
}

export function taking(descriptor: Descriptor, thing: ThingToPlace): Taking {
  const editor = editorKey(descriptor);
  const answer = acceptance(descriptor, { kind: thing.kind, format: thing.language });
  if ('accepts' in answer)
    return {
      editor,
      how: 'accepted',
      words: `${answer.accepts.writer.asIs ? 'as it is' : 'written'}, ${answer.accepts.extension}`,
    };
  const by = (becomes[thing.kind] ?? []).find(
    ({ kind, format = '' }) => 'accepts' in acceptance(descriptor, { kind, format }),
  );
  return by ? { editor, how: 'after conversion', words: `into ${by.into}` } : { editor, how: 'impossible', words: '' };
}
