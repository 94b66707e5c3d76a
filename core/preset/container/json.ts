/**
 * JSON: the object itself is the document's step, objects within it are steps by their path ("tone/curve"), and each
 * object of a list is a step of that list's path. Numbers, texts, lists of numbers, of pairs and of texts are attributes.
 * What is not changed says the same as before, whole numbers of any length too; indentation and line ends stay.
 */
import { Problem } from '../../problem';
import { decodeText, encodeText } from '../../text';
import {
  emptyAbout,
  LIST_SEPARATOR,
  MAX_DEPTH,
  MAX_STEPS,
  tooManySteps,
  WHOLE,
  type OpenPreset,
  type OpenStep,
  type WrittenValue,
} from './open-preset';

type Node = Record<string, unknown>;

/**
 * Marks a whole number that a double cannot hold, such as a moment in ticks or an identifier of 64 bits. It is kept as its
 * digits: read as a number it would be written as another one.
 */
const LONG_INTEGER = '\u0000integer:';
const isLongInteger = (text: string): boolean => /^-?\d{16,}$/.test(text) && !Number.isSafeInteger(Number(text));

/** JSON whose long whole numbers are marked texts. The text has to be JSON: then every quote begins or ends a text. */
const withMarks = (json: string): string =>
  json.replace(/"(?:[^"\\]|\\.)*"|-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?/g, (token) =>
    isLongInteger(token) ? JSON.stringify(LONG_INTEGER + token) : token,
  );
const withoutMarks = (json: string): string => json.replace(/"\\u0000integer:(-?\d+)"(?!\s*:)/g, '$1');

const isNode = (value: unknown): value is Node => !!value && typeof value === 'object' && !Array.isArray(value);
const isNumbers = (value: unknown): value is number[] =>
  Array.isArray(value) && value.every((one) => typeof one === 'number');

/** The text of what one attribute holds; null for what is none: objects, and lists of them. */
function textOf(value: unknown): string | null {
  if (typeof value === 'string') return value.startsWith(LONG_INTEGER) ? value.slice(LONG_INTEGER.length) : value;
  if (typeof value === 'number' || typeof value === 'boolean') return String(value);
  if (!Array.isArray(value) || !value.length) return null;
  if (isNumbers(value)) return value.join(' ');
  if (value.every(isNumbers)) return value.map((pair) => pair.join(',')).join(' ');
  return value.every((one) => typeof one === 'string') ? value.join(LIST_SEPARATOR) : null;
}

class ObjectStep implements OpenStep {
  constructor(
    readonly name: string,
    readonly where: string,
    readonly source: Node,
  ) {}
  attributes(): Record<string, string> {
    return Object.fromEntries(
      Object.entries(this.source).flatMap(([key, value]) => {
        const text = textOf(value);
        return text === null ? [] : [[key, text]];
      }),
    );
  }
  set(key: string, { json }: WrittenValue): void {
    this.source[key] = json;
  }
  remove(key: string): void {
    delete this.source[key];
  }
}

function parsed(text: string): Node {
  let value: unknown;
  let reason = 'It is no object.';
  try {
    value = JSON.parse(text);
    if (/\d{16}/.test(text)) value = JSON.parse(withMarks(text));
  } catch (error) {
    reason = (error as Error).message;
  }
  if (isNode(value)) return value;
  throw new Problem(
    'json-malformed',
    `The JSON cannot be read: ${reason.slice(0, 160)}`,
    'the whole file',
    'Ask the supplier for the file again, or export it anew from the editor that made it.',
  );
}

/** The steps of an object and of all within it, in order. */
function stepsIn(node: Node, path: string, where: string, depth: number, into: ObjectStep[]): ObjectStep[] {
  if (depth > MAX_DEPTH)
    throw new Problem('json-depth', `Objects are nested more than ${MAX_DEPTH} deep.`, where, 'Leave the file out.');
  if (into.push(new ObjectStep(path || WHOLE, where, node)) > MAX_STEPS) throw tooManySteps(where);
  for (const [key, value] of Object.entries(node)) {
    const below = path ? `${path}/${key}` : key;
    if (isNode(value)) stepsIn(value, below, below, depth + 1, into);
    else if (Array.isArray(value))
      value.forEach((one, index) => {
        if (isNode(one)) stepsIn(one, below, `${below}[${index}]`, depth + 1, into);
      });
  }
  return into;
}

/** The object of a path, made where there is none; the last of a list. */
function nodeAt(root: Node, path: string[]): Node {
  let node = root;
  for (const key of path) {
    const there = node[key];
    const next: unknown = Array.isArray(there) ? there.at(-1) : there;
    if (isNode(next)) node = next;
    else {
      const made: Node = {};
      if (Array.isArray(there)) there.push(made);
      else node[key] = made;
      node = made;
    }
  }
  return node;
}

/** A new object of that path: in its list, or beside the one that is there already. */
function addAt(root: Node, name: string): Node {
  const path = name.split('/');
  const key = path.pop()!;
  const parent = nodeAt(root, path);
  const made: Node = {};
  const there = parent[key];
  if (Array.isArray(there)) there.push(made);
  else if (isNode(there) && Object.keys(there).length) parent[key] = [there, made];
  else if (isNode(there)) return there;
  else parent[key] = made;
  return made;
}

/** Takes an object out, wherever it is. */
function removeFrom(node: Node, gone: Node): void {
  for (const [key, value] of Object.entries(node)) {
    if (value === gone) delete node[key];
    else if (Array.isArray(value)) {
      const at = value.indexOf(gone);
      if (at >= 0) value.splice(at, 1);
      else value.filter(isNode).forEach((one) => removeFrom(one, gone));
    } else if (isNode(value)) removeFrom(value, gone);
  }
}

/** As the text of another file was laid out; on one line, that says nothing of how lines would begin. */
function laidOut(root: Node, like: string): string {
  const indentation = /^\s*\{\r?\n([ \t]+)/.exec(like)?.[1] ?? '  ';
  const text = `${withoutMarks(JSON.stringify(root, null, indentation))}\n`;
  return like.includes('\r\n') ? text.replace(/\n/g, '\r\n') : text;
}

export function openJson(bytes: Uint8Array): OpenPreset {
  const text = decodeText(bytes, 'JSON preset');
  const root = parsed(text);
  return {
    container: 'json',
    namespaces: [],
    about: emptyAbout(),
    steps: () => stepsIn(root, '', 'the object itself', 0, []),
    add: (name) => new ObjectStep(name, 'written', name === WHOLE ? root : addAt(root, name)),
    drop: (step) => removeFrom(root, (step as ObjectStep).source),
    say() {
      // the language itself says where titles stand
    },
    bytes: () => encodeText(laidOut(root, text), bytes),
  };
}
