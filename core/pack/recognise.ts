/** What a file is, told from its content and not from its name: tried against each reader, with the reason. */
import type { Descriptor } from '../editor/descriptor';
import { editorKey } from '../editor/descriptor';
import { readCube } from '../look/cube';
import { rangeOf } from '../look/look';
import { applyMapping, type ReadPreset } from '../preset/mapping';
import { readIni, readXmp, type StepDocument } from '../preset/steps';
import { Problem } from '../problem';

export type Kind = 'look' | 'preset' | 'document' | 'unknown';
export interface Recognised {
  kind: Kind; format: string; title: string; headings: string[]; needs: { kind: string; name: string }[]; note: string;
  /** Facts by kind, kept with the version. */
  facts: Record<string, unknown>;
}

const baseName = (path: string): string => path.split('/').pop()!.replace(/\.[^.]+$/, '');
const extension = (path: string): string => (/\.([^./]+)$/.exec(path)?.[1] ?? '').toLowerCase();
const head = (bytes: Uint8Array): string => new TextDecoder('latin1').decode(bytes.subarray(0, 8192));

/** Which descriptor's preset language a document of steps is in; null where none. */
export function languageOf(doc: StepDocument, descriptors: readonly Descriptor[]): Descriptor | null {
  for (const d of descriptors) {
    if (d.presets?.container !== doc.container) continue;
    const r = d.presets.recognise;
    if (r.namespace && doc.namespaces.includes(r.namespace)) return d;
    if (r.section && doc.steps.some((s) => s.name === r.section && s.attributes[r.key!] === r.value)) return d;
  }
  return null;
}

const preset = (path: string, doc: StepDocument, d: Descriptor): Recognised & { read: ReadPreset } => {
  const read = applyMapping(d.presets!.mapping, doc);
  return {
    kind: 'preset', format: editorKey(d), title: read.name || baseName(path), headings: read.headings, read,
    needs: read.references.map((r) => ({ kind: r.kind, name: r.name })), note: `preset of ${d.title}`,
    facts: { language: editorKey(d), settings: read.settings, classes: read.classes, references: read.references, unknown: read.unknown },
  };
};

/** Reads a preset in any language that a descriptor tells; throws a Problem where the content is none. */
export function readPreset(path: string, bytes: Uint8Array, descriptors: readonly Descriptor[], only?: string): ReturnType<typeof preset> {
  const doc = looksLikeXml(bytes) ? readXmp(bytes) : readIni(bytes), chosen = only ? descriptors.filter((d) => editorKey(d) === only) : descriptors;
  if (only && !chosen.length) throw new Problem('editor-unknown', `No descriptor for ${only}.`, only, `Known are ${descriptors.map(editorKey).join(', ')}.`);
  const d = languageOf(doc, chosen);
  if (!d) throw new Problem('preset-language', 'This is no preset in a language that any descriptor tells.', path, 'Bring in a descriptor with a mapping for the editor that made it.');
  return preset(path, doc, d);
}

const looksLikeXml = (bytes: Uint8Array): boolean => /^\s*(?:\u00ef\u00bb\u00bf)?<[?!a-zA-Z]/.test(head(bytes).slice(0, 200)) || head(bytes).includes('<?xpacket');

const signatures: [RegExp, string, string][] = [
  [/^%PDF-/, 'pdf', 'PDF document'], [/^\u00ff\u00d8\u00ff/, 'jpeg', 'JPEG picture'], [/^\u0089PNG\r\n/, 'png', 'PNG picture'], [/^GIF8/, 'gif', 'GIF picture'],
  [/^(II\*\0|MM\0\*)/, 'tiff', 'TIFF picture'], [/^\{\\rtf/, 'rtf', 'RTF document'], [/^PK\u0003\u0004/, 'zip', 'ZIP archive'],
];

/** Never throws for what it does not know; throws a Problem for a file that says what it is and is broken. */
export function recognise(path: string, bytes: Uint8Array, descriptors: readonly Descriptor[]): Recognised {
  const start = head(bytes), ext = extension(path);
  const plain = (kind: Kind, format: string, note: string): Recognised => ({ kind, format, title: baseName(path), headings: [], needs: [], note, facts: {} });
  if (!bytes.length) return plain('unknown', 'empty', 'the file is empty');
  if (/^\s*(#[^\n]*\n\s*)*(LUT_[13]D_SIZE|TITLE\s+"|DOMAIN_M|LUT_[13]D_INPUT_RANGE)/m.test(start) || ext === 'cube') {
    const look = readCube(bytes);
    return {
      kind: 'look', format: 'cube', title: look.title || baseName(path), headings: [], needs: [], note: `${look.kind.toUpperCase()} table of ${look.size} points`,
      facts: { kind: look.kind, size: look.size, domain: look.domain, range: rangeOf(look), fileTitle: look.title, comments: look.comments.slice(0, 20), warnings: look.warnings },
    };
  }
  for (const [pattern, format, note] of signatures) if (pattern.test(start)) return plain(format === 'zip' ? 'unknown' : 'document', format, note);
  if (looksLikeXml(bytes) && start.includes('http://www.w3.org/1999/02/22-rdf-syntax-ns#')) {
    const doc = readXmp(bytes), d = languageOf(doc, descriptors);
    if (!d) return plain('unknown', 'xmp', `an XMP packet in no preset language that a descriptor tells (${doc.namespaces.slice(0, 2).join(', ') || 'no properties'})`);
    const { kind, format, title, headings, needs, note, facts } = preset(path, doc, d);
    return { kind, format, title, headings, needs, note, facts };
  }
  if (ext === 'xmp') { readXmp(bytes); return plain('unknown', 'xml', 'XML, but no XMP packet'); }
  if (/^\s*(?:[;#][^\n]*\n\s*)*\[[^\]\n]+\]\s*$/m.test(start.slice(0, 2000))) {
    try {
      const doc = readIni(bytes), d = languageOf(doc, descriptors);
      if (d) { const { kind, format, title, headings, needs, note, facts } = preset(path, doc, d); return { kind, format, title, headings, needs, note, facts }; }
    } catch (e) { if (!(e instanceof Problem) || e.code !== 'ini-line') throw e; }
  }
  if (bytes.subarray(0, 4096).includes(0)) return plain('unknown', 'binary', 'binary content in no format that Etagere reads');
  if (['txt', 'md', 'html', 'htm', 'csv', 'rtf', 'json', 'xml'].includes(ext)) return plain('document', ext, ext === 'txt' || ext === 'md' ? 'text' : `${ext.toUpperCase()} text`);
  return plain('unknown', 'text', 'text in no format that Etagere reads');
}

