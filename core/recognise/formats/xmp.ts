/** XMP packets (ISO 16684-1): presets of editors that write them. */
import { readSteps } from '../../preset/container';
import { languageOf, presetIn } from '../presets';
import { recognised, type Format } from '../recognised';
import { looksLikeXml, looksLikeXmp } from '../starts';

export const xmp: Format = {
  id: 'xmp',
  find: (file) => {
    if (!looksLikeXml(file.start) || !looksLikeXmp(file.start)) return null;
    const doc = readSteps('xmp', file.bytes);
    const descriptor = languageOf(doc, file.descriptors);
    if (descriptor) return presetIn(file, doc, descriptor);
    const properties = doc.namespaces.slice(0, 2).join(', ') || 'no properties';
    const note = `an XMP packet in a preset language that no descriptor describes (${properties})`;
    return recognised(file, 'unknown', 'xmp', note);
  },
};
