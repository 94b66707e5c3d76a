/** XML that is no XMP packet: told by its root element. */
import { LENS_NAMESPACE, LENS_ROOT, lensFacts } from '../../lens/facts';
import { CDL_ROOTS, readCdl } from '../../look/cdl';
import { readClf } from '../../look/clf';
import { checkLook } from '../../look/soundness';
import { readLook } from '../../look/read';
import { readSteps } from '../../preset/container';
import { xmlRoot } from '../../xml';
import { languageOf, presetIn } from '../presets';
import { lookFacts, recognised, tableNote, type Format, type Recognised, type SeenFile } from '../recognised';
import { looksLikeXml } from '../starts';

interface Root {
  name: string;
  uri: string;
}
type Reader = (file: SeenFile, root: Root) => Recognised | null;

const lensDatabase: Reader = (file, root) => {
  if (root.name !== LENS_ROOT || root.uri !== LENS_NAMESPACE) return null;
  const facts = lensFacts(file.bytes);
  const note = `${facts.lenses.length} lenses, ${facts.samples} samples`;
  return recognised(file, 'lens-database', 'lens-xml', note, {
    facts: { ...facts },
    evidence: [`root element ${LENS_ROOT} in its namespace`, `${facts.series} series of ${facts.samples} samples`],
  });
};

const processList: Reader = (file, root) => {
  if (root.name !== 'ProcessList') return null;
  const { name, nodes, look } = readClf(file.bytes);
  const table = look ?? readLook(file.bytes);
  checkLook(table);
  const chain = nodes.map((node) => node.kind).join(' → ');
  return recognised(file, 'look', 'clf', look ? tableNote(look) : `chain of ${nodes.length}: ${chain}`, {
    ...(name ? { title: name } : {}),
    look: table,
    evidence: [`ProcessList: ${chain}`],
    facts: look ? { ...lookFacts(look), nodes } : { kind: 'chain', nodes, fileTitle: name },
  });
};

const MOST_CORRECTIONS = 50;
/** Corrections are shown as a table of so many points. */
const CDL_POINTS = 33;

const colorDecision: Reader = (file, root) => {
  if (!CDL_ROOTS.includes(root.name)) return null;
  const list = readCdl(file.bytes);
  const id = list[0]?.id ?? '';
  const note =
    list.length === 1 ? 'one color correction' : `${list.length} color corrections, of which the first is taken`;
  return recognised(file, 'look', 'cdl', note, {
    ...(id ? { title: id } : {}),
    evidence: [`root element ${root.name}, ${list.length} × ColorCorrection`],
    look: readLook(file.bytes),
    facts: { kind: 'cdl', size: CDL_POINTS, corrections: list.slice(0, MOST_CORRECTIONS), fileTitle: id },
  });
};

const preset: Reader = (file) => {
  const doc = readSteps('xml', file.bytes);
  const descriptor = languageOf(doc, file.descriptors);
  return descriptor && presetIn(file, doc, descriptor);
};

const readers: readonly Reader[] = [lensDatabase, processList, colorDecision, preset];

export const xml: Format = {
  id: 'xml',
  find: (file) => {
    if (!looksLikeXml(file.start)) return null;
    if (/<!doctype\s+html|<html[\s>]/i.test(file.start)) return recognised(file, 'document', 'html', 'web page');
    const root = xmlRoot(file.bytes);
    for (const read of readers) {
      const found = read(file, root);
      if (found) return found;
    }
    const kind = file.extension === 'xml' ? 'document' : 'unknown';
    const note = `XML with the root ${root.name}, in no format that Etagere reads`;
    return recognised(file, kind, 'xml', note, { confidence: 0.6 });
  },
};
