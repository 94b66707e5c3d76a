/**
 * What every preset container comes down to: named steps with attributes, in order. Containers (XMP, INI) are read here
 * into steps; which step means which common setting is data in an editor's descriptor, not code.
 */
import { SaxesParser } from 'saxes';
import { Problem } from '../problem';
import { decodeText } from '../text';

export interface Step { name: string; attributes: Record<string, string>; where: string }
export interface StepDocument { container: 'xmp' | 'ini'; title: string; headings: string[]; /** XML namespaces that properties of the packet are in */ namespaces: string[]; steps: Step[] }

const RDF = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#', DC = 'http://purl.org/dc/elements/1.1/';
const MAX_STEPS = 2000, MAX_DEPTH = 40;

/**
 * An XMP packet (ISO 16684-1) that holds an rdf:Seq of steps: each rdf:li carries a `step` property, others are its
 * attributes, as XML attributes or as elements. A DOCTYPE, hence any entity of its own, is refused.
 */
export function readXmp(bytes: Uint8Array): StepDocument {
  const text = decodeText(bytes, 'XMP packet');
  const parser = new SaxesParser({ xmlns: true, position: true });
  const doc: StepDocument = { container: 'xmp', title: '', headings: [], namespaces: [], steps: [] };
  const spaces = new Set<string>(), path: string[] = [];
  let step: Step | null = null, chars = '';
  const where = (): string => `line ${parser.line}, column ${parser.column}`;
  const refuse = (code: string, message: string, remedy: string): never => { throw new Problem(code, message, where(), remedy); };
  parser.on('doctype', () => refuse('xml-doctype', 'This packet declares a document type, which could define entities; none are read.', 'Remove the DOCTYPE, or ask the supplier for a plain packet.'));
  parser.on('error', (e) => refuse(/entity/i.test(e.message) ? 'xml-entity' : 'xml-malformed', `The XML cannot be read: ${e.message.replace(/^\d+:\d+:\s*/, '').slice(0, 160)}`, 'Ask the supplier for the file again, or export it anew from the editor that made it.'));
  parser.on('opentag', (tag) => {
    if (path.length >= MAX_DEPTH) refuse('xml-depth', `Elements are nested more than ${MAX_DEPTH} deep.`, 'Ask the supplier for a plain packet.');
    path.push(`${tag.uri}#${tag.local}`);
    chars = '';
    if (tag.uri && tag.uri !== RDF && tag.uri !== DC) spaces.add(tag.uri);
    const own: Record<string, string> = {};
    for (const a of Object.values(tag.attributes)) {
      if (a.prefix === 'xmlns' || a.local === 'xmlns' || a.prefix === 'xml' || !a.uri || a.uri === RDF) continue;
      spaces.add(a.uri);
      own[a.local] = a.value;
    }
    if (tag.local === 'li' && tag.uri === RDF && !path.some((p) => p.startsWith(DC))) {
      step = { name: own.step ?? '', attributes: {}, where: `line ${parser.line}` };
      for (const [k, v] of Object.entries(own)) if (k !== 'step') step.attributes[k] = v;
      if (doc.steps.push(step) > MAX_STEPS) refuse('preset-steps', `There are more than ${MAX_STEPS} steps.`, 'This is no preset that an editor wrote; leave it out.');
    }
  });
  parser.on('text', (t) => { chars += t; });
  parser.on('closetag', (tag) => {
    path.pop();
    const value = chars.trim();
    if (tag.uri === RDF && tag.local === 'li') {
      const inside = path[path.length - 2] ?? path[path.length - 1] ?? '';
      if (inside === `${DC}#title`) doc.title ||= value;
      else if (inside === `${DC}#subject`) doc.headings.push(value);
      else step = null;
    } else if (step && value && tag.uri !== RDF) { if (tag.local === 'step') step.name = value; else step.attributes[tag.local] = value; }
    chars = '';
  });
  parser.write(text).close();
  doc.namespaces = [...spaces];
  doc.steps = doc.steps.filter((s) => s.name);
  return doc;
}

/** INI text: sections become steps, keys attributes; `;` and `#` begin a comment. Line and reason on what is neither. */
export function readIni(bytes: Uint8Array): StepDocument {
  const doc: StepDocument = { container: 'ini', title: '', headings: [], namespaces: [], steps: [] };
  let step: Step | null = null;
  decodeText(bytes, 'INI file').split(/\r?\n/).forEach((raw, i) => {
    const line = raw.trim(), where = `line ${i + 1}`;
    if (!line || line[0] === ';' || line[0] === '#') return;
    const section = /^\[([^\]]+)\]$/.exec(line);
    if (section) {
      step = { name: section[1]!.trim(), attributes: {}, where };
      if (doc.steps.push(step) > MAX_STEPS) throw new Problem('preset-steps', `There are more than ${MAX_STEPS} sections.`, where, 'This is no preset that an editor wrote; leave it out.');
      return;
    }
    const eq = line.indexOf('=');
    if (eq < 1 || !step) throw new Problem('ini-line', `"${line.slice(0, 40)}" is neither a section nor a key with a value.`, where, 'Ask the supplier for the file again, or export it anew from the editor that made it.');
    step.attributes[line.slice(0, eq).trim()] = line.slice(eq + 1).trim();
  });
  return doc;
}
