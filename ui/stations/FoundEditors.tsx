'use client';
/** Editors that the agent has found on the machine, and that nobody has said to be there. */
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

interface Props {
  station: { id: string; name: string; person: string };
  /** by "editor@version" */ found: readonly { id: string; title: string }[];
  /** whether whoever looks may add them */ may: boolean;
}

export function FoundEditors({ station, found, may }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  if (!found.length) return null;
  const { id, name, person } = station;
  const add = (editor: string) =>
    void runAndRefresh(() => call('PATCH /api/stations/:id', { id, body: { name, person, came: [editor] } }));
  return (
    <section aria-label="Found on the machine" className="mb-6 border-l-[3px] border-ochre pl-3">
      <p className="text-soft">
        Its agent has found {found.length === 1 ? 'an editor' : 'editors'} there that Etagere does not look after yet.
      </p>
      <ul>
        {found.map((one) => (
          <li key={one.id} className="flex flex-wrap items-baseline gap-x-3">
            <span className="font-serif text-[15px]">{one.title}</span>
            {may && (
              <button className="underline" disabled={busy} onClick={() => add(one.id)}>
                Add {one.title}
              </button>
            )}
          </li>
        ))}
      </ul>
      <Notice problem={problem} className="mt-2" />
    </section>
  );
}
