/** XMP packets (ISO 16684-1): presets of editors that write them. */
import { readXmp } from '../../preset/steps';
import { languageOf, presetIn } from '../presets';
import { recognised, type Format } from '../recognised';
import { looksLikeXml, looksLikeXmp } from '../xml-start';

export const xmp: Format = {
  id: 'xmp',
  find: (file) => {
    if (!looksLikeXml(file.start) || !looksLikeXmp(file.start)) return null;
    const doc = readXmp(file.bytes);
    const descriptor = languageOf(doc, file.descriptors);
    if (descriptor) return presetIn(file, doc, descriptor);
    const properties = doc.namespaces.slice(0, 2).join(', ') || 'no properties';
    const note = `an XMP packet in no preset language that a descriptor tells (${properties})`;
    return recognised(file, 'unknown', 'xmp', note);
  },
};
