/** Which lenses a lens database (our open XML format) calibrates, by which names, in which quantities. */
import { decodeText } from '../text';
import { strictParser } from '../xml';
import { checkRoot } from './facts';

export interface CalibratedLens {
  maker: string;
  model: string;
  aliases: string[];
  mount: string;
  /** crop factor of the sensor that it was calibrated on */ crop: number | null;
  quantities: string[];
  /** mm, over all samples */ focal: [number, number] | null;
}
export interface Calibrations {
  release: string;
  lenses: CalibratedLens[];
}

const MOST = 50_000;
const finite = (text: string): number | null =>
  text.trim() !== '' && Number.isFinite(Number(text)) && Number(text) > 0 ? Number(text) : null;

/** Throws a Problem where the file is no lens database. A lens without any sample counts as named, with no quantity. */
export function calibrations(bytes: Uint8Array): Calibrations {
  const { parser, fault } = strictParser('lens database');
  const out: Calibrations = { release: '', lenses: [] };
  let depth = 0;
  let lens: CalibratedLens | null = null;
  let quantity = '';
  let alias: string | null = null;
  parser.on('opentag', (tag) => {
    if (++depth > 20)
      throw fault('xml-depth', 'Elements are nested more than 20 deep.', 'Ask the supplier for the file again.');
    const attribute = (n: string): string => tag.attributes[n]?.value.trim() ?? '';
    if (depth === 1) {
      checkRoot(tag);
      out.release = attribute('release');
    } else if (tag.local === 'lens' && depth === 2) {
      if (out.lenses.length >= MOST)
        throw fault(
          'lens-count',
          `More than ${MOST.toLocaleString('en')} lenses are not read.`,
          'Split the database by maker.',
        );
      out.lenses.push(
        (lens = {
          maker: attribute('maker'),
          model: attribute('model'),
          aliases: [],
          mount: attribute('mount'),
          crop: finite(attribute('crop')),
          quantities: [],
          focal: null,
        }),
      );
    } else if (lens && tag.local === 'alias') alias = '';
    else if (lens && tag.local === 'series') quantity = attribute('quantity');
    else if (lens && tag.local === 'sample' && quantity) {
      const focal = finite(attribute('focal'));
      if (!lens.quantities.includes(quantity)) lens.quantities.push(quantity);
      if (focal !== null)
        lens.focal = lens.focal ? [Math.min(lens.focal[0], focal), Math.max(lens.focal[1], focal)] : [focal, focal];
    }
  });
  parser.on('text', (text) => {
    if (alias !== null) alias += text;
  });
  parser.on('closetag', (tag) => {
    if (tag.local === 'alias' && lens && alias !== null) {
      if (alias.trim()) lens.aliases.push(alias.trim());
      alias = null;
    }
    if (tag.local === 'series') quantity = '';
    if (depth-- === 2) lens = null;
  });
  parser.write(decodeText(bytes, 'lens database')).close();
  return out;
}
