/**
 * What every preset container comes down to: named steps with attributes, in order. Containers (XMP, INI, XML) are read here
 * into steps; which step means which common setting is data in an editor's descriptor, not code.
 */
import { Problem } from '../problem';
import { decodeText } from '../text';
import { strictParser } from '../xml';

export interface Step {
  name: string;
  attributes: Record<string, string>;
  where: string;
}
export interface StepDocument {
  container: 'xmp' | 'ini' | 'xml';
  title: string;
  headings: string[];
  /** XML namespaces that properties of the packet are in */ namespaces: string[];
  steps: Step[];
}

const RDF = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#';
const DC = 'http://purl.org/dc/elements/1.1/';
const MAX_STEPS = 2000;
const MAX_DEPTH = 40;

/**
 * An XMP packet (ISO 16684-1) that holds an rdf:Seq of steps: each rdf:li carries a `step` property, others are its
 * attributes, as XML attributes or as elements. A DOCTYPE, hence any entity of its own, is refused.
 */
export function readXmp(bytes: Uint8Array): StepDocument {
  const text = decodeText(bytes, 'XMP packet');
  const { parser, fault } = strictParser('XMP packet');
  const doc: StepDocument = { container: 'xmp', title: '', headings: [], namespaces: [], steps: [] };
  const spaces = new Set<string>();
  const path: string[] = [];
  let step: Step | null = null;
  let chars = '';
  parser.on('opentag', (tag) => {
    if (path.length >= MAX_DEPTH)
      throw fault(
        'xml-depth',
        `Elements are nested more than ${MAX_DEPTH} deep.`,
        'Ask the supplier for a plain packet.',
      );
    path.push(`${tag.uri}#${tag.local}`);
    chars = '';
    if (tag.uri && tag.uri !== RDF && tag.uri !== DC) spaces.add(tag.uri);
    const own: Record<string, string> = {};
    for (const saxesAttributeNS of Object.values(tag.attributes)) {
      if (
        saxesAttributeNS.prefix === 'xmlns' ||
        saxesAttributeNS.local === 'xmlns' ||
        saxesAttributeNS.prefix === 'xml' ||
        !saxesAttributeNS.uri ||
        saxesAttributeNS.uri === RDF
      )
        continue;
      spaces.add(saxesAttributeNS.uri);
      own[saxesAttributeNS.local] = saxesAttributeNS.value;
    }
    if (tag.local === 'li' && tag.uri === RDF && !path.some((p) => p.startsWith(DC))) {
      step = { name: own.step ?? '', attributes: {}, where: `line ${parser.line}` };
      for (const [k, v] of Object.entries(own)) if (k !== 'step') step.attributes[k] = v;
      if (doc.steps.push(step) > MAX_STEPS)
        throw fault(
          'preset-steps',
          `There are more than ${MAX_STEPS} steps.`,
          'This is no preset that an editor wrote; leave it out.',
        );
    }
  });
  parser.on('text', (text) => {
    chars += text;
  });
  parser.on('closetag', (tag) => {
    path.pop();
    const value = chars.trim();
    if (tag.uri === RDF && tag.local === 'li') {
      const inside = path[path.length - 2] ?? path[path.length - 1] ?? '';
      if (inside === `${DC}#title`) doc.title ||= value;
      else if (inside === `${DC}#subject`) doc.headings.push(value);
      else step = null;
    } else if (step && value && tag.uri !== RDF) {
      if (tag.local === 'step') step.name = value;
      else step.attributes[tag.local] = value;
    }
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
  decodeText(bytes, 'INI file')
    .split(/\r?\n/)
    .forEach((raw, i) => {
      const line = raw.trim();
      const where = `line ${i + 1}`;
      if (!line || line[0] === ';' || line[0] === '#') return;
      const section = /^\[([^\]]+)\]$/.exec(line);
      if (section) {
        step = { name: section[1]!.trim(), attributes: {}, where };
        if (doc.steps.push(step) > MAX_STEPS)
          throw new Problem(
            'preset-steps',
            `There are more than ${MAX_STEPS} sections.`,
            where,
            'This is no preset that an editor wrote; leave it out.',
          );
        return;
      }
      const eq = line.indexOf('=');
      if (eq < 1 || !step)
        throw new Problem(
          'ini-line',
          `"${line.slice(0, 40)}" is neither a section nor a key with a value.`,
          where,
          'Ask the supplier for the file again, or export it anew from the editor that made it.',
        );
      step.attributes[line.slice(0, eq).trim()] = line.slice(eq + 1).trim();
    });
  return doc;
}

/**
 * A plain XML list of steps: the root's attributes are the first step, under the root's name; each child is a step with
 * its attributes. Deeper elements are kept as steps too, under "parent/child", so that nothing disappears.
 */
export function readXmlSteps(bytes: Uint8Array): StepDocument {
  const { parser, fault } = strictParser('preset');
  const doc: StepDocument = { container: 'xml', title: '', headings: [], namespaces: [], steps: [] };
  const path: string[] = [];
  const spaces = new Set<string>();
  parser.on('opentag', (tag) => {
    if (path.length >= MAX_DEPTH)
      throw fault(
        'xml-depth',
        `Elements are nested more than ${MAX_DEPTH} deep.`,
        'Ask the supplier for a plain file.',
      );
    path.push(tag.local);
    if (tag.uri) spaces.add(tag.uri);
    const attributes = Object.fromEntries(
      Object.values(tag.attributes)
        .filter((a) => a.prefix !== 'xmlns' && a.local !== 'xmlns')
        .map((a) => [a.local, a.value]),
    );
    if (
      doc.steps.push({
        name: path.length <= 2 ? tag.local : path.slice(1).join('/'),
        attributes,
        where: `line ${parser.line}`,
      }) > MAX_STEPS
    )
      throw fault(
        'preset-steps',
        `There are more than ${MAX_STEPS} steps.`,
        'This is no preset that an editor wrote; leave it out.',
      );
  });
  parser.on('closetag', () => {
    path.pop();
  });
  parser.write(decodeText(bytes, 'preset')).close();
  doc.namespaces = [...spaces];
  return doc;
}
