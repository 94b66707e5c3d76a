/** INI text: presets of editors that write it. */
import { readIni } from '../../preset/steps';
import { Problem } from '../../problem';
import { languageOf, presetIn } from '../presets';
import type { Format } from '../recognised';

const section = /^\s*(?:[;#][^\n]*\n\s*)*\[[^\]\n]+\]\s*$/m;

export const ini: Format = {
  id: 'ini',
  find: (file) => {
    if (!section.test(file.start.slice(0, 2000))) return null;
    try {
      const doc = readIni(file.bytes);
      const descriptor = languageOf(doc, file.descriptors);
      return descriptor && presetIn(file, doc, descriptor);
    } catch (error) {
      // other texts have lines in square brackets too
      if (error instanceof Problem && error.code === 'ini-line') return null;
      throw error;
    }
  },
};
