/** INI text: presets of editors that write it. */
import { readSteps, WHOLE } from '../../preset/container';
import { Problem } from '../../problem';
import { languageOf, presetIn } from '../presets';
import type { Format, SeenFile } from '../recognised';

const section = /^\s*(?:[;#][^\n]*\n\s*)*\[[^\]\n]+\]\s*$/m;

/** A text of keys without sections is looked at only where some editor writes its presets so. */
const isPlain = ({ start, descriptors }: SeenFile): boolean =>
  /^\s*(?:[;#][^\n]*\n\s*)*[\w .-]{1,60}=/.test(start) &&
  descriptors.some(({ presets }) => presets?.container === 'ini' && presets.recognise.section === WHOLE);

export const ini: Format = {
  id: 'ini',
  find: (file) => {
    if (!section.test(file.start.slice(0, 2000)) && !isPlain(file)) return null;
    try {
      const doc = readSteps('ini', file.bytes);
      const descriptor = languageOf(doc, file.descriptors);
      return descriptor && presetIn(file, doc, descriptor);
    } catch (error) {
      // other texts have lines in square brackets too
      if (error instanceof Problem && error.code === 'ini-line') return null;
      throw error;
    }
  },
};
