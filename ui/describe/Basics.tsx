'use client';
/** What an editor is, what it reads, and what it does with what is new. */
import type { Descriptor, ScopeCondition } from '@/core/editor/descriptor';
import { systems } from '@/core/editor/place-schema';
import { editorIdFrom } from './model/draft';
import { Choice, systemWords, TextLine, TextLines, Tick, toggled } from './Parts';

interface Props {
  draft: Descriptor;
  /** nobody has described it yet: its short name follows its title */ isNew: boolean;
  onChange: (draft: Descriptor) => void;
}

const conditions: readonly (readonly [ScopeCondition, string])[] = [
  ['camera', 'the camera'],
  ['input', 'camera data or a rendered file'],
  ['result', 'color or monochrome'],
];

/** Whose camera data it reads, as the form offers it. */
const readsOf = ({ cameras }: Descriptor): 'all' | 'some' | 'unknown' => {
  if (cameras === undefined) return 'unknown';
  return cameras === 'all' ? 'all' : 'some';
};

function withReads(draft: Descriptor, reads: 'all' | 'some' | 'unknown'): Descriptor {
  const { cameras: _gone, ...rest } = draft;
  if (reads === 'unknown') return rest;
  return { ...rest, cameras: reads === 'all' ? 'all' : [] };
}

export function Basics({ draft, isNew, onChange }: Props) {
  const set = (change: Partial<Descriptor>) => onChange({ ...draft, ...change });
  const honours = draft.honours ?? [];
  return (
    <div className="max-w-[860px]">
      <div className="mb-3 grid grid-cols-2 gap-3 *:min-w-0 lg:grid-cols-[2fr_1fr_1fr_1fr]">
        <TextLine
          label="Name"
          value={draft.title}
          onChange={(title) => set({ title, ...(isNew ? { editor: editorIdFrom(title) } : {}) })}
        />
        <TextLine label="Version" value={draft.version} onChange={(version) => set({ version: version.trim() })} />
        <TextLine label="Short name" mono value={draft.editor} onChange={(editor) => set({ editor: editor.trim() })} />
        <Choice
          label="It is"
          value={draft.kind}
          choices={[
            ['editor', 'an editor'],
            ['card', 'a camera with a card'],
          ]}
          onChange={(kind) => set({ kind })}
        />
      </div>
      <fieldset className="mb-3 flex flex-wrap gap-x-5 gap-y-1">
        <legend className="text-[12px] text-soft">It runs on</legend>
        {systems.map((system) => (
          <Tick
            key={system}
            words={systemWords[system]}
            on={draft.systems.includes(system)}
            onChange={(on) => set({ systems: toggled(systems, draft.systems, system, on) })}
          />
        ))}
      </fieldset>
      <div className="mb-3 grid gap-3 *:min-w-0 lg:grid-cols-2">
        <Choice
          label="It sees new files"
          value={draft.sees}
          choices={[
            ['launch', 'when it is started'],
            ['rescan', 'while it runs'],
          ]}
          onChange={(sees) => set({ sees })}
        />
        <Choice
          label="It reads camera data"
          value={readsOf(draft)}
          choices={[
            ['all', 'of all cameras'],
            ['some', 'of these cameras'],
            ['unknown', 'of cameras that nobody has named'],
          ]}
          onChange={(reads) => onChange(withReads(draft, reads))}
        />
      </div>
      {Array.isArray(draft.cameras) && (
        <TextLines
          className="mb-3"
          label="Cameras whose data it reads, one a line"
          value={draft.cameras.join('\n')}
          onChange={(text) => set({ cameras: text.split('\n') })}
        />
      )}
      <fieldset className="mb-3 flex flex-wrap gap-x-5 gap-y-1">
        <legend className="text-[12px] text-soft">It leaves items out for a photo by</legend>
        {conditions.map(([condition, words]) => (
          <Tick
            key={condition}
            words={words}
            on={honours.includes(condition)}
            onChange={(on) =>
              set({
                honours: toggled(
                  conditions.map(([one]) => one),
                  honours,
                  condition,
                  on,
                ),
              })
            }
          />
        ))}
      </fieldset>
      <div className="mb-3">
        <Tick
          words="It writes its own files anew when it quits: nothing is written there while it runs"
          on={draft.writesBack === true}
          onChange={(writesBack) => set({ writesBack })}
        />
      </div>
      <TextLines
        label="Notes: traps, and ways around them, shown where they matter"
        value={draft.notes ?? ''}
        onChange={(notes) => set({ notes })}
      />
    </div>
  );
}
