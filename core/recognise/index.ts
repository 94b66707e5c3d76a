/**
 * What a file is, told from its content and not from its name: tried against each format, with the evidence and how sure
 * it is. A name alone never makes a kind; it only raises or lowers the confidence, and is said where it contradicts.
 */
import type { Descriptor } from '../editor/descriptor';
import { readSteps } from '../preset/container';
import { formats } from './formats';
import { recognised, seen, type Recognised, type SeenFile } from './recognised';

export { archiveEditor } from './editor-archive';
export { languageOf, readPreset } from './presets';
export { baseName, isTakeable, takeable } from './recognised';
export type { ItemKind, Kind, Recognised } from './recognised';

const plainTexts = ['txt', 'md', 'html', 'htm', 'csv', 'rtf', 'json', 'xml'];

/** What no format knows: text or not, as far as that is seen. */
function unknown(file: SeenFile): Recognised {
  const { bytes, extension } = file;
  if (extension === 'xmp') {
    readSteps('xmp', bytes); // which says what is wrong with it
    return recognised(file, 'unknown', 'xml', 'XML, but no XMP packet');
  }
  if (bytes.subarray(0, 4096).includes(0))
    return recognised(file, 'unknown', 'binary', 'binary content in no format that Etagere reads', {
      confidence: 0.5,
    });
  if (!plainTexts.includes(extension))
    return recognised(file, 'unknown', 'text', 'text in no format that Etagere reads', { confidence: 0.5 });
  const note = extension === 'txt' || extension === 'md' ? 'text' : `${extension.toUpperCase()} text`;
  return recognised(file, 'document', extension, note, {
    confidence: 0.8,
    evidence: ['plain text', `the name ends in .${extension}`],
  });
}

/** Never throws for what it does not know; throws a Problem for a file that says what it is and is broken. */
export function recognise(path: string, bytes: Uint8Array, descriptors: readonly Descriptor[]): Recognised {
  const file = seen(path, bytes, descriptors);
  if (!bytes.length) return recognised(file, 'unknown', 'empty', 'the file is empty');
  for (const format of formats) {
    const found = format.find(file);
    if (found) return found;
  }
  return unknown(file);
}
