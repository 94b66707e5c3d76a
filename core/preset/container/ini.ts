/**
 * INI text, and plain `key = value` text: sections are steps, keys their attributes; what stands before any section
 * belongs to the document. `;` and `#` begin a comment. Lines that are not changed stay as they are.
 */
import { Problem } from '../../problem';
import { decodeText } from '../../text';
import { emptyAbout, MAX_STEPS, tooManySteps, WHOLE, type OpenPreset, type OpenStep } from './open-preset';

/** A line of a section: a key with its value, or a comment or empty line that is kept. */
type Line = { key: string; value: string } | { kept: string };

const isKey = (line: Line): line is { key: string; value: string } => 'key' in line;

class Section implements OpenStep {
  readonly lines: Line[] = [];
  readonly source = this;
  constructor(
    readonly name: string,
    readonly where: string,
  ) {}
  attributes(): Record<string, string> {
    return Object.fromEntries(this.lines.filter(isKey).map(({ key, value }) => [key, value]));
  }
  set(key: string, value: { text: string }): void {
    // a value is one line, or it would begin others
    const text = value.text.replace(/\s*[\r\n]+\s*/g, ' ');
    const there = this.lines.filter(isKey).find((line) => line.key === key);
    if (there) there.value = text;
    else this.lines.splice(this.#endOfKeys(), 0, { key, value: text });
  }
  remove(key: string): void {
    const at = this.lines.findIndex((line) => isKey(line) && line.key === key);
    if (at >= 0) this.lines.splice(at, 1);
  }
  /** Behind the last key, so that empty lines stay at a section's end. */
  #endOfKeys(): number {
    return this.lines.findLastIndex(isKey) + 1;
  }
  text(): string[] {
    const lines = this.lines.map((line) => (isKey(line) ? `${line.key}=${line.value}` : line.kept));
    return this.name === WHOLE ? lines : [`[${this.name}]`, ...lines];
  }
}

const badLine = (line: string, where: string): Problem =>
  new Problem(
    'ini-line',
    `"${line.slice(0, 40)}" is neither a section nor a key with a value.`,
    where,
    'Ask the supplier for the file again, or export it anew from the editor that made it.',
  );

/** Line and reason on what is neither section, key nor comment. */
function sectionsOf(text: string): Section[] {
  const sections = [new Section(WHOLE, 'line 1')];
  const lines = text.split(/\r?\n/);
  if (lines.at(-1) === '') lines.pop();
  lines.forEach((raw, index) => {
    const line = raw.trim();
    const where = `line ${index + 1}`;
    const name = /^\[([^\]]+)\]$/.exec(line)?.[1];
    if (name !== undefined) {
      if (sections.push(new Section(name.trim(), where)) > MAX_STEPS) throw tooManySteps(where);
      return;
    }
    const { lines: own } = sections.at(-1)!;
    if (!line || line.startsWith(';') || line.startsWith('#')) {
      own.push({ kept: raw });
      return;
    }
    const equals = line.indexOf('=');
    if (equals < 1) throw badLine(line, where);
    own.push({ key: line.slice(0, equals).trim(), value: line.slice(equals + 1).trim() });
  });
  return sections;
}

export function openIni(bytes: Uint8Array): OpenPreset {
  const sections = sectionsOf(decodeText(bytes, 'INI file'));
  return {
    container: 'ini',
    namespaces: [],
    about: emptyAbout(),
    steps: () => [...sections],
    add(name) {
      const section = new Section(name, 'written');
      sections.push(section);
      return section;
    },
    drop(step) {
      sections.splice(sections.indexOf(step as Section), 1);
    },
    say() {
      // the language itself says where titles stand
    },
    bytes: () => new TextEncoder().encode(`${sections.flatMap((section) => section.text()).join('\n')}\n`),
  };
}
