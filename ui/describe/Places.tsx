'use client';
/** Where an editor keeps things, by system, and where it tells what it lists. */
import { useState } from 'react';
import type { Descriptor } from '@/core/editor/descriptor';
import { withoutPlace, withPlace, withPlaceAt, withPlaceCalled } from './model/draft';
import { Paths } from './Parts';

interface Props {
  draft: Descriptor;
  onChange: (draft: Descriptor) => void;
}

export function Places({ draft, onChange }: Props) {
  const names = Object.keys(draft.places);
  return (
    <>
      <p className="mb-2 max-w-[760px] text-soft">
        A path begins with {'{home}'}, {'{config}'} (where programs of this system keep what is theirs) or {'{media}'},
        and names folders below it: {'{home}'}/Editor/Looks. A list inside a JSON file of the editor is named after it:{' '}
        {'{config}'}/Editor/all.json#looks. Left empty where it has no such place.
      </p>
      <table className="list max-w-[980px] table-fixed">
        <colgroup>
          <col className="w-[28%]" />
          <col />
          <col className="w-[16%]" />
        </colgroup>
        <thead>
          <tr>
            <th>Place</th>
            <th>Path</th>
            <th>
              <span className="sr-only">Take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>
              its own list
              <span className="block text-[12px] text-soft">a file by which it tells what it lists and refuses</span>
            </td>
            <td>
              <Paths
                of="Its own list"
                shown={draft.systems}
                templates={draft.listing}
                onChange={(listing) => onChange({ ...draft, listing })}
              />
            </td>
            <td />
          </tr>
          {names.map((name, n) => {
            const used = draft.accepts.some(({ place }) => place === name);
            return (
              // by its number: while its name is typed it stays the same row
              <tr key={n}>
                <td>
                  <PlaceName name={name} onName={(to) => onChange(withPlaceCalled(draft, name, to))} />
                </td>
                <td>
                  <Paths
                    of={name}
                    shown={draft.systems}
                    templates={draft.places[name] ?? {}}
                    onChange={(templates) => onChange(withPlaceAt(draft, name, templates))}
                  />
                </td>
                <td>
                  {used ? (
                    <span className="text-[12px] text-soft">something goes there</span>
                  ) : (
                    <button
                      type="button"
                      className="underline"
                      aria-label={`Take the place ${name} out`}
                      onClick={() => onChange(withoutPlace(draft, name))}
                    >
                      Take out
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <button type="button" className="button mt-2" onClick={() => onChange(withPlace(draft))}>
        Add a place
      </button>
    </>
  );
}

/** Typed whole before it counts: half a name may be another place's. */
function PlaceName({ name, onName }: { name: string; onName: (name: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const settle = () => {
    const to = typed?.trim();
    if (to) onName(to);
    setTyped(null);
  };
  return (
    <input
      aria-label={`Name of the place ${name}`}
      className="field w-full"
      spellCheck={false}
      value={typed ?? name}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={settle}
      onKeyDown={(event) => {
        if (event.key === 'Enter') settle();
      }}
    />
  );
}
