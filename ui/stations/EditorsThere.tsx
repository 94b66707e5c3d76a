/** Which editors a station has: those of its system, each with a tick. */
import { Ticks } from './Ticks';

export interface EditorChoice {
  /** "editor@version" */ id: string;
  title: string;
  systems: readonly string[];
}

interface Described {
  id: string;
  version: string;
  descriptor: { kind: 'editor' | 'card'; title: string; systems: readonly string[] };
}

/** What the studio knows, be it editors or cameras that read cards. */
export const choicesOf = (known: readonly Described[], kind: Described['descriptor']['kind']): EditorChoice[] =>
  known
    .filter(({ descriptor }) => descriptor.kind === kind)
    .map(({ id, version, descriptor: { title, systems } }) => ({ id: `${id}@${version}`, title, systems }));

/** Of those that there are for a system, in the order of their titles. */
export const choicesFor = (editors: readonly EditorChoice[], system: string): EditorChoice[] =>
  editors.filter(({ systems }) => systems.includes(system)).sort((a, b) => a.title.localeCompare(b.title));

interface Props {
  choices: readonly EditorChoice[];
  ticked: readonly string[];
  onTick: (ticked: string[]) => void;
}

export function EditorsThere({ choices, ticked, onTick }: Props) {
  if (!choices.length) return <p className="text-soft">The studio knows no editor for this system yet.</p>;
  return <Ticks legend="Editors there" choices={choices} ticked={ticked} onTick={onTick} />;
}
