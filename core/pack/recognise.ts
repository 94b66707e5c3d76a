/**
 * What a file is, told from its content and not from its name: tried against each reader, with the evidence and how sure
 * it is. A name alone never makes a kind; it only raises or lowers the confidence, and is said where it contradicts.
 */
import type { Descriptor } from '../editor/descriptor';
import { editorKey, parseDescriptor } from '../editor/descriptor';
import { DCP_MAGIC } from '../camera/dcp';
import { cameraProfileFacts } from '../camera/facts';
import { frameFacts } from '../frame/metadata';
import { iccHeader, isIcc } from '../icc/header';
import { lensFacts, LENS_NAMESPACE, LENS_ROOT } from '../lens/facts';
import { CDL_ROOTS, readCdl } from '../look/cdl';
import { readClf } from '../look/clf';
import { readCube } from '../look/cube';
import { haldLevel, haldLikeness } from '../look/hald';
import { rangeOf, type Look } from '../look/look';
import { member, memberNames } from '../look/archive';
import { readLook } from '../look/read';
import { applyMapping, type ReadPreset } from '../preset/mapping';
import { faults } from '../preset/settings';
import type { Settings } from '../preset/kinds';
import { readIni, readXmlSteps, readXmp, type StepDocument } from '../preset/steps';
import { xmlRoot } from '../xml';
import { Problem } from '../problem';

export const takeable = ['look', 'preset', 'camera-profile', 'icc-profile', 'lens-database', 'add-on'] as const;
export type ItemKind = (typeof takeable)[number];
export type Kind = ItemKind | 'frame' | 'chart' | 'descriptor' | 'document' | 'unknown';
export const isTakeable = (kind: string): kind is ItemKind => (takeable as readonly string[]).includes(kind);

export interface Recognised {
  kind: Kind;
  format: string;
  title: string;
  headings: string[];
  needs: { kind: string; name: string }[];
  note: string;
  /** 0…1, and what speaks for it. */
  confidence: number;
  evidence: string[];
  /** Facts by kind, kept with the version. */
  facts: Record<string, unknown>;
  /** The table, where it was read on the way; not kept. */
  look?: Look;
}

export const baseName = (path: string): string =>
  path
    .split('/')
    .pop()!
    .replace(/\.[^.]+$/, '');
const extension = (path: string): string => (/\.([^./]+)$/.exec(path)?.[1] ?? '').toLowerCase();
const head = (bytes: Uint8Array): string => new TextDecoder('latin1').decode(bytes.subarray(0, 8192));

/** Which descriptor's preset language a document of steps is in; null where none. */
export function languageOf(doc: StepDocument, descriptors: readonly Descriptor[]): Descriptor | null {
  for (const descriptor of descriptors) {
    if (descriptor.presets?.container !== doc.container) continue;
    const r = descriptor.presets.recognise;
    if (r.namespace && doc.namespaces.includes(r.namespace)) return descriptor;
    if (r.section && doc.steps.some((s) => s.name === r.section && (!r.key || s.attributes[r.key] === r.value)))
      return descriptor;
  }
  return null;
}

const preset = (path: string, doc: StepDocument, descriptor: Descriptor): Recognised & { read: ReadPreset } => {
  const read = applyMapping(descriptor.presets!.mapping, doc);
  return {
    kind: 'preset',
    format: editorKey(descriptor),
    title: read.name || baseName(path),
    headings: read.headings,
    read,
    needs: read.references.map((r) => ({ kind: r.kind, name: r.name })),
    note: `preset of ${descriptor.title}`,
    confidence: 0.99,
    evidence: [
      `${doc.container.toUpperCase()} with ${descriptor.presets!.recognise.namespace ? `the namespace ${descriptor.presets!.recognise.namespace}` : `${descriptor.presets!.recognise.section} ${descriptor.presets!.recognise.key ?? ''} ${descriptor.presets!.recognise.value ?? ''}`}`.trim(),
      `${doc.steps.length} steps, ${Object.keys(read.settings).length} settings read`,
    ],
    facts: {
      language: editorKey(descriptor),
      fileTitle: read.name,
      fileHeadings: read.headings,
      settings: read.settings,
      classes: read.classes,
      references: read.references,
      unknown: read.unknown,
    },
  };
};

const looksLikeXml = (bytes: Uint8Array): boolean =>
  /^\s*(?:\u00ef\u00bb\u00bf)?<[?!a-zA-Z]/.test(head(bytes).slice(0, 200)) || head(bytes).includes('<?xpacket');
const isXmp = (start: string): boolean => start.includes('http://www.w3.org/1999/02/22-rdf-syntax-ns#');
const steps = (bytes: Uint8Array): StepDocument => {
  if (!looksLikeXml(bytes)) return readIni(bytes);
  if (isXmp(head(bytes))) return readXmp(bytes);
  return readXmlSteps(bytes);
};

/** Reads a preset in any language that a descriptor tells; throws a Problem where the content is none. */
export function readPreset(
  path: string,
  bytes: Uint8Array,
  descriptors: readonly Descriptor[],
  only?: string,
): ReturnType<typeof preset> {
  const chosen = only ? descriptors.filter((d) => editorKey(d) === only) : descriptors;
  if (only && !chosen.length)
    throw new Problem(
      'editor-unknown',
      `No descriptor for ${only}.`,
      only,
      `Known are ${descriptors.map(editorKey).join(', ')}.`,
    );
  const descriptor = languageOf(steps(bytes), chosen);
  if (!descriptor)
    throw new Problem(
      'preset-language',
      'This is no preset in a language that any descriptor tells.',
      path,
      'Bring in a descriptor with a mapping for the editor that made it.',
    );
  return preset(path, steps(bytes), descriptor);
}

/** The descriptor whose own kind of archive these bytes are: all of its members are there. */
export function archiveEditor(
  bytes: Uint8Array,
  descriptors: readonly Descriptor[],
): { descriptor: Descriptor; about: string | null } | null {
  const names = memberNames(bytes);
  if (!names || names.length > 50) return null;
  // editions may share a form; then the newest counts
  for (const descriptor of [...descriptors].sort((a, b) => b.version.localeCompare(a.version, 'en', { numeric: true })))
    for (const accepts of descriptor.accepts) {
      const members = accepts.writer.archive?.members.map((m) => m.name);
      if (members?.length && members.every((m) => names.includes(m)))
        return { descriptor, about: accepts.writer.archive!.members.find((m) => m.json)?.name ?? null };
    }
  return null;
}

const lookFacts = (look: Look): Record<string, unknown> => ({
  kind: look.kind,
  size: look.size,
  domain: look.domain,
  range: rangeOf(look),
  fileTitle: look.title,
  comments: look.comments.slice(0, 20),
  warnings: look.warnings,
});

const signatures: [RegExp, string, string][] = [
  [/^%PDF-/, 'pdf', 'PDF document'],
  [/^GIF8/, 'gif', 'GIF picture'],
  [/^\{\\rtf/, 'rtf', 'RTF document'],
  [/^PK\u0003\u0004/, 'zip', 'ZIP archive'],
];
const programs: [RegExp, string][] = [
  [/^\u007fELF/, 'an ELF program'],
  [/^MZ/, 'a Windows program'],
  [/^(\u00ca\u00fe\u00ba\u00be|\u00cf\u00fa\u00ed\u00fe|\u00fe\u00ed\u00fa[\u00ce\u00cf])/, 'a Mach-O program'],
  [/^#!\s*\/\S+/, 'a script'],
];

type Try = (
  path: string,
  bytes: Uint8Array,
  start: string,
  descriptors: readonly Descriptor[],
) => (Omit<Recognised, 'evidence' | 'confidence'> & Partial<Pick<Recognised, 'evidence' | 'confidence'>>) | null;
const plain = (path: string, kind: Kind, format: string, note: string, more: Partial<Recognised> = {}): Recognised => ({
  kind,
  format,
  title: baseName(path),
  headings: [],
  needs: [],
  note,
  facts: {},
  confidence: 1,
  evidence: [note],
  ...more,
});

const cube: Try = (path, bytes, start) => {
  const said = /^\s*(#[^\n]*\n\s*)*(LUT_[13]D_SIZE|TITLE\s+"|DOMAIN_M|LUT_[13]D_INPUT_RANGE)/m.test(start);
  if (!said && extension(path) !== 'cube') return null;
  const look = readCube(bytes);
  return plain(path, 'look', 'cube', `${look.kind.toUpperCase()} table of ${look.size} points`, {
    title: look.title || baseName(path),
    facts: lookFacts(look),
    look,
    confidence: 1,
    evidence: [`${look.kind === '3d' ? 'LUT_3D_SIZE' : 'LUT_1D_SIZE'} ${look.size} and all of its rows`],
  });
};

const xml: Try = (path, bytes, start, descriptors) => {
  if (!looksLikeXml(bytes)) return null;
  if (isXmp(start)) {
    const doc = readXmp(bytes);
    const descriptor = languageOf(doc, descriptors);
    if (descriptor) return preset(path, doc, descriptor);
    return plain(
      path,
      'unknown',
      'xmp',
      `an XMP packet in no preset language that a descriptor tells (${doc.namespaces.slice(0, 2).join(', ') || 'no properties'})`,
    );
  }
  if (/<!doctype\s+html|<html[\s>]/i.test(start)) return plain(path, 'document', 'html', 'web page');
  const root = xmlRoot(bytes);
  if (root.name === LENS_ROOT && root.uri === LENS_NAMESPACE) {
    const f = lensFacts(bytes);
    return plain(path, 'lens-database', 'lens-xml', `${f.lenses.length} lenses, ${f.samples} samples`, {
      facts: { ...f },
      evidence: [`root element ${LENS_ROOT} in its namespace`, `${f.series} series of ${f.samples} samples`],
    });
  }
  if (root.name === 'ProcessList') {
    const clf = readClf(bytes);
    const chain = clf.nodes.map((n) => n.kind).join(' → ');
    return plain(
      path,
      'look',
      'clf',
      clf.look
        ? `${clf.look.kind.toUpperCase()} table of ${clf.look.size} points`
        : `chain of ${clf.nodes.length}: ${chain}`,
      {
        title: clf.name || baseName(path),
        look: clf.look ?? readLook(bytes),
        evidence: [`ProcessList: ${chain}`],
        facts: clf.look
          ? { ...lookFacts(clf.look), nodes: clf.nodes }
          : { kind: 'chain', nodes: clf.nodes, fileTitle: clf.name },
      },
    );
  }
  if (CDL_ROOTS.includes(root.name)) {
    const list = readCdl(bytes);
    return plain(
      path,
      'look',
      'cdl',
      list.length === 1 ? 'one color correction' : `${list.length} color corrections, of which the first is taken`,
      {
        title: list[0]!.id || baseName(path),
        evidence: [`root element ${root.name}, ${list.length} × ColorCorrection`],
        look: readLook(bytes),
        facts: { kind: 'cdl', size: 33, corrections: list.slice(0, 50), fileTitle: list[0]!.id },
      },
    );
  }
  const doc = readXmlSteps(bytes);
  const descriptor = languageOf(doc, descriptors);
  if (descriptor) return preset(path, doc, descriptor);
  return plain(
    path,
    extension(path) === 'xml' ? 'document' : 'unknown',
    'xml',
    `XML with the root ${root.name}, in no format that Etagere reads`,
    { confidence: 0.6 },
  );
};

const profile: Try = (path, bytes) => {
  if (isIcc(bytes)) {
    const header = iccHeader(bytes);
    const kind: Kind =
      header.class === 'input'
        ? 'camera-profile'
        : header.class === 'abstract' || header.class === 'link'
          ? 'look'
          : 'icc-profile';
    return plain(path, kind, 'icc', `ICC ${header.version} ${header.class} profile, ${header.space} to ${header.pcs}`, {
      title: header.description || baseName(path),
      evidence: [`signature acsp, class ${header.class}`, `${header.tags.length} tags`],
      facts: { ...header, kind: 'icc', fileTitle: header.description },
    });
  }
  if (
    bytes.length > 8 &&
    ((bytes[0] === 0x49 && bytes[1] === 0x49 && bytes[2] === (DCP_MAGIC & 255) && bytes[3] === DCP_MAGIC >> 8) ||
      (bytes[0] === 0x4d && bytes[1] === 0x4d && bytes[2] === DCP_MAGIC >> 8 && bytes[3] === (DCP_MAGIC & 255)))
  ) {
    const f = cameraProfileFacts(bytes);
    return plain(path, 'camera-profile', 'dcp', f.camera ? `for the ${f.camera}` : 'for no named camera', {
      title: f.name || baseName(path),
      evidence: [
        'DCP signature and a color matrix',
        f.camera ? `names the camera ${f.camera}` : 'names no camera',
        ...f.stages,
      ],
      facts: { ...f, fileTitle: f.name, cameras: f.camera ? [f.camera] : null },
    });
  }
  return null;
};

const picture: Try = (path, bytes) => {
  const f = frameFacts(bytes);
  if (!f) return null;
  if (f.format === 'raw') {
    const camera = [f.maker && !f.camera.startsWith(f.maker) ? f.maker : '', f.camera].filter(Boolean).join(' ');
    return plain(
      path,
      'frame',
      'raw',
      `camera file${camera ? ` of the ${camera}` : ''}, brought to DNG when it is taken in`,
      {
        facts: { ...f },
        confidence: 0.9,
        evidence: ['a mosaic of a color filter array, or a camera’s own kind of TIFF', 'no DNG version'],
      },
    );
  }
  const level = haldLevel(f.width, f.height);
  const facts = { ...f } as Record<string, unknown>;
  if (level && level >= 4 && (f.format === 'png' || f.format === 'tiff')) {
    const look = readLook(bytes);
    const likeness = haldLikeness(look);
    if (likeness > 0.5)
      return plain(path, 'look', 'hald', `Hald image of level ${level}, ${level * level} points`, {
        confidence: Math.min(1, 0.5 + likeness / 2),
        evidence: [
          `a square of ${f.width} = ${level}³ pixels`,
          `it runs as an identity does (${Math.round(likeness * 100)} %)`,
        ],
        facts: { ...lookFacts(look), level },
        look,
      });
    return plain(path, 'frame', f.format, `${f.width} × ${f.height} pixels`, {
      facts,
      confidence: 0.9,
      evidence: [
        `${f.format.toUpperCase()} signature`,
        `of a Hald image’s size, but does not run like one (${Math.round(likeness * 100)} %)`,
      ],
    });
  }
  const named = [f.maker && !f.camera.startsWith(f.maker) ? f.maker : '', f.camera].filter(Boolean).join(' ');
  return plain(path, 'frame', f.format, `${f.width} × ${f.height} pixels${named ? `, ${named}` : ''}`, {
    facts,
    evidence: [`${f.format.toUpperCase()} signature`, ...(named ? [`taken with the ${named}`] : [])],
  });
};

const archive: Try = (path, bytes, start, descriptors) => {
  if (!start.startsWith('PK\u0003\u0004')) return null;
  const a = archiveEditor(bytes, descriptors);
  if (!a) return null;
  const look = readLook(bytes);
  let about: { title?: string; headings?: string[]; scope?: unknown } = {};
  try {
    about = JSON.parse(new TextDecoder().decode(member(bytes, a.about ?? '') ?? new Uint8Array())) as typeof about;
  } catch {
    /* the table alone then */
  }
  return plain(path, 'look', editorKey(a.descriptor), `look of ${a.descriptor.title}, ${look.size} points`, {
    title: about.title ?? (look.title || baseName(path)),
    headings: Array.isArray(about.headings) ? about.headings.map(String).slice(0, 4) : [],
    evidence: [`archive with the members of a look of ${a.descriptor.title}`],
    look,
    facts: {
      ...lookFacts(look),
      fileTitle: about.title ?? '',
      fileHeadings: about.headings ?? [],
      fileScope: about.scope ?? null,
    },
  });
};

const json: Try = (path, bytes, start) => {
  if (!/^\s*(?:\u00ef\u00bb\u00bf)?\{/.test(start)) return null;
  let v: Record<string, unknown>;
  try {
    v = JSON.parse(new TextDecoder().decode(bytes)) as Record<string, unknown>;
  } catch {
    return null;
  }
  if (v && typeof v === 'object' && 'editor' in v && 'version' in v && 'accepts' in v) {
    const descriptor = parseDescriptor(v);
    return plain(path, 'descriptor', editorKey(descriptor), `descriptor of ${descriptor.title}`, {
      title: descriptor.title,
      evidence: ['JSON with editor, version and what it accepts', 'every rule of descriptors holds'],
      facts: { editor: descriptor.editor, version: descriptor.version },
    });
  }
  const settings = (v.settings && typeof v.settings === 'object' ? v.settings : null) as Settings | null;
  if (settings && !faults(settings).length && Object.keys(settings).length)
    return plain(path, 'preset', 'etagere@1', 'common settings as JSON', {
      title: typeof v.name === 'string' && v.name ? v.name : baseName(path),
      headings: Array.isArray(v.headings) ? v.headings.map(String).slice(0, 4) : [],
      evidence: [`JSON with ${Object.keys(settings).length} common settings`],
      facts: { language: 'etagere@1', fileTitle: v.name ?? '', settings, classes: {}, references: [], unknown: {} },
    });
  return null;
};

const ini: Try = (path, bytes, start, descriptors) => {
  if (!/^\s*(?:[;#][^\n]*\n\s*)*\[[^\]\n]+\]\s*$/m.test(start.slice(0, 2000))) return null;
  try {
    const doc = readIni(bytes);
    const descriptor = languageOf(doc, descriptors);
    return descriptor ? preset(path, doc, descriptor) : null;
  } catch (error) {
    if (!(error instanceof Problem) || error.code !== 'ini-line') throw error;
    return null;
  }
};

const chart: Try = (path, bytes, start) =>
  /^\s*CGATS(\.\d+)?\s/.test(start) || (/NUMBER_OF_SETS\s+\d+/.test(start) && /BEGIN_DATA_FORMAT/.test(start))
    ? plain(path, 'chart', 'cgats', 'measured values of a chart', { evidence: ['CGATS text with a data format'] })
    : null;

const tries: Try[] = [
  cube,
  profile,
  picture,
  archive,
  (path, bytes, start) => {
    for (const [pattern, note] of programs)
      if (pattern.test(start)) return plain(path, 'add-on', 'program', `${note}; kept whole, never run by Etagere`);
    for (const [pattern, format, note] of signatures)
      if (pattern.test(start)) return plain(path, format === 'zip' ? 'unknown' : 'document', format, note);
    return null;
  },
  xml,
  json,
  ini,
  chart,
];

/** Never throws for what it does not know; throws a Problem for a file that says what it is and is broken. */
export function recognise(path: string, bytes: Uint8Array, descriptors: readonly Descriptor[]): Recognised {
  const start = head(bytes);
  const ext = extension(path);
  if (!bytes.length) return plain(path, 'unknown', 'empty', 'the file is empty');
  for (const attempt of tries) {
    const found = attempt(path, bytes, start, descriptors);
    if (found) return { confidence: 1, evidence: [found.note], ...found };
  }
  if (ext === 'xmp') {
    readXmp(bytes);
    return plain(path, 'unknown', 'xml', 'XML, but no XMP packet');
  }
  if (bytes.subarray(0, 4096).includes(0))
    return plain(path, 'unknown', 'binary', 'binary content in no format that Etagere reads', { confidence: 0.5 });
  if (['txt', 'md', 'html', 'htm', 'csv', 'rtf', 'json', 'xml'].includes(ext))
    return plain(path, 'document', ext, ext === 'txt' || ext === 'md' ? 'text' : `${ext.toUpperCase()} text`, {
      confidence: 0.8,
      evidence: ['plain text', `the name ends in .${ext}`],
    });
  return plain(path, 'unknown', 'text', 'text in no format that Etagere reads', { confidence: 0.5 });
}
