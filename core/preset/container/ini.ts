/**
 * INI text, and plain `key = value` text: sections are steps, keys their attributes; what stands before any section
 * belongs to the document. `;` and `#` begin a comment. What is not changed stays as it came: spaces, line ends, encoding.
 */
import { Problem } from '../../problem';
import { decodeText, encodeText } from '../../text';
import { emptyAbout, MAX_STEPS, tooManySteps, WHOLE, type OpenPreset, type OpenStep } from './open-preset';

/** A key with its value, and what stands around that on its line. */
interface KeyLine {
  key: string;
  value: string;
  before: string;
  after: string;
}
/** A line of a section; comments and empty lines are kept. */
type Line = KeyLine | { kept: string };

const isKey = (line: Line): line is KeyLine => 'key' in line;

/** What stands before a value: behind a sign with a space before it there is one too, which an empty value does not show. */
const beforeValue = ({ before, value }: KeyLine): string => (!value && /[ \t]=$/.test(before) ? `${before} ` : before);

/** Where a section stands in the text: its first line as it is there, and how that ends a line. */
interface Place {
  where: string;
  head: string;
  lineEnd: string;
}

class Section implements OpenStep {
  readonly lines: Line[] = [];
  readonly source = this;
  readonly where: string;
  constructor(
    readonly name: string,
    readonly place: Place,
  ) {
    this.where = place.where;
  }
  attributes(): Record<string, string> {
    return Object.fromEntries(this.lines.filter(isKey).map(({ key, value }) => [key, value]));
  }
  set(key: string, value: { text: string }): void {
    // a value is one line, or it would begin others
    const text = value.text.replace(/\s*[\r\n]+\s*/g, ' ');
    const there = this.lines.filter(isKey).find((line) => line.key === key);
    if (there) {
      there.before = beforeValue(there);
      there.value = text;
    } else this.lines.splice(this.#endOfKeys(), 0, this.#likeTheLast(key, text));
  }
  remove(key: string): void {
    const at = this.lines.findIndex((line) => isKey(line) && line.key === key);
    if (at >= 0) this.lines.splice(at, 1);
  }
  /** A new line that is set in and spaced as the one before it. */
  #likeTheLast(key: string, value: string): KeyLine {
    const last = this.lines.findLast(isKey);
    const before = last ? beforeValue(last) : '';
    const [, indentation = '', equals = '='] = /^([ \t]*)[^=]*?([ \t]*=[ \t]*)$/.exec(before) ?? [];
    return { key, value, before: indentation + key + equals, after: this.place.lineEnd };
  }
  /** Behind the last key, so that empty lines stay at a section's end. */
  #endOfKeys(): number {
    return this.lines.findLastIndex(isKey) + 1;
  }
  text(): string[] {
    const lines = this.lines.map((line) => (isKey(line) ? line.before + line.value + line.after : line.kept));
    return this.name === WHOLE ? lines : [this.place.head, ...lines];
  }
}

const badLine = (line: string, where: string): Problem =>
  new Problem(
    'ini-line',
    `"${line.slice(0, 40)}" is neither a section nor a key with a value.`,
    where,
    'Ask the supplier for the file again, or export it anew from the editor that made it.',
  );

const lineEndOf = (text: string): string => (text.includes('\r\n') ? '\r\n' : '\n');

/** Each line with its own end; the last may have none. */
const linesOf = (text: string): string[] => text.match(/[^\n]*\n|[^\n]+$/g) ?? [];

function keyOf(raw: string, equals: number): KeyLine {
  const behind = raw.slice(equals + 1);
  const value = behind.trim();
  const spaces = /^[ \t]*/.exec(behind)![0].length;
  const from = equals + 1 + (value ? behind.indexOf(value) : spaces);
  return {
    key: raw.slice(0, equals).trim(),
    value,
    before: raw.slice(0, from),
    after: raw.slice(from + value.length),
  };
}

/** Line and reason on what is neither section, key nor comment. */
function sectionsOf(text: string): Section[] {
  const lineEnd = lineEndOf(text);
  const sections = [new Section(WHOLE, { where: 'line 1', head: '', lineEnd })];
  linesOf(text).forEach((raw, index) => {
    const line = raw.trim();
    const where = `line ${index + 1}`;
    const name = /^\[([^\]]+)\]$/.exec(line)?.[1];
    if (name !== undefined) {
      if (sections.push(new Section(name.trim(), { where, head: raw, lineEnd })) > MAX_STEPS) throw tooManySteps(where);
      return;
    }
    const { lines: own } = sections.at(-1)!;
    if (!line || line.startsWith(';') || line.startsWith('#')) {
      own.push({ kept: raw });
      return;
    }
    if (line.indexOf('=') < 1) throw badLine(line, where);
    own.push(keyOf(raw, raw.indexOf('=')));
  });
  return sections;
}

/** A line that came last and without an end has one where another follows it. */
const joined = (lines: readonly string[], lineEnd: string): string =>
  lines.map((line, at) => (at < lines.length - 1 && !line.endsWith('\n') ? line + lineEnd : line)).join('');

export function openIni(bytes: Uint8Array): OpenPreset {
  const text = decodeText(bytes, 'INI file');
  const sections = sectionsOf(text);
  const lineEnd = lineEndOf(text);
  return {
    container: 'ini',
    namespaces: [],
    about: emptyAbout(),
    steps: () => [...sections],
    add(name) {
      const section = new Section(name, { where: 'written', head: `[${name}]${lineEnd}`, lineEnd });
      sections.push(section);
      return section;
    },
    drop(step) {
      sections.splice(sections.indexOf(step as Section), 1);
    },
    say() {
      // the language itself says where titles stand
    },
    bytes: () =>
      encodeText(
        joined(
          sections.flatMap((section) => section.text()),
          lineEnd,
        ),
        bytes,
      ),
  };
}
