/** Which lenses a lens database (our open XML format) calibrates, by which names, in which quantities, by which figures. */
import type { SaxesTagNS } from 'saxes';
import { decodeXml, strictParser } from '../xml';
import { checkRoot } from './facts';

/** What was measured once: with which settings of the lens, and what came of it. */
export interface Sample {
  /** mm */ focal: number | null;
  /** f-number */ aperture: number | null;
  /** m */ distance: number | null;
  /** NaN where what is written is no number */ k: Record<string, number>;
}
export interface Series {
  /** "distortion", "lateral chromatic aberration", "vignetting" */ quantity: string;
  /** of chromatic aberration: "red" or "blue", beside green */ channel: string;
  model: string;
  unit: string;
  direction: string;
  samples: Sample[];
}
export interface CalibratedLens {
  maker: string;
  model: string;
  aliases: string[];
  mount: string;
  /** crop factor of the sensor that it was calibrated on */ crop: number | null;
  /** those with a sample */ quantities: string[];
  /** mm, over all samples */ focal: [number, number] | null;
  series: Series[];
}
/** A body that a database knows. */
export interface KnownCamera {
  maker: string;
  model: string;
  mount: string;
  /** of the sensor, mm */ width: number | null;
  height: number | null;
}

export interface Calibrations {
  release: string;
  cameras: KnownCamera[];
  lenses: CalibratedLens[];
}

const MOST = 50_000;
const DEPTH = 20;
const positive = (text: string): number | null =>
  text.trim() !== '' && Number.isFinite(Number(text)) && Number(text) > 0 ? Number(text) : null;

type Attribute = (name: string) => string;
const attributesOf =
  (tag: SaxesTagNS): Attribute =>
  (name) =>
    tag.attributes[name]?.value.trim() ?? '';

const lensOf = (attribute: Attribute): CalibratedLens => ({
  maker: attribute('maker'),
  model: attribute('model'),
  aliases: [],
  mount: attribute('mount'),
  crop: positive(attribute('crop')),
  quantities: [],
  focal: null,
  series: [],
});

const cameraOf = (attribute: Attribute): KnownCamera => ({
  maker: attribute('maker'),
  model: attribute('model'),
  mount: attribute('mount'),
  width: positive(attribute('width')),
  height: positive(attribute('height')),
});

const seriesOf = (attribute: Attribute): Series => ({
  quantity: attribute('quantity'),
  channel: attribute('channel'),
  model: attribute('model'),
  unit: attribute('unit'),
  direction: attribute('direction'),
  samples: [],
});

function sampleOf(tag: SaxesTagNS): Sample {
  const attribute = attributesOf(tag);
  const coefficients = Object.keys(tag.attributes).filter((name) => /^k\d$/.test(name));
  return {
    focal: positive(attribute('focal')),
    aperture: positive(attribute('aperture')),
    distance: positive(attribute('distance')),
    k: Object.fromEntries(coefficients.map((name) => [name, attribute(name) === '' ? NaN : Number(attribute(name))])),
  };
}

function addSample(lens: CalibratedLens, series: Series, sample: Sample): void {
  series.samples.push(sample);
  if (!lens.quantities.includes(series.quantity)) lens.quantities.push(series.quantity);
  const { focal } = sample;
  if (focal === null) return;
  const [least, most] = lens.focal ?? [focal, focal];
  lens.focal = [Math.min(least, focal), Math.max(most, focal)];
}

/** Throws a Problem where the file is no lens database. A lens without any sample counts as named, with no quantity. */
export function calibrations(bytes: Uint8Array): Calibrations {
  const { parser, fault } = strictParser('lens database');
  const out: Calibrations = { release: '', cameras: [], lenses: [] };
  let depth = 0;
  let lens: CalibratedLens | null = null;
  let series: Series | null = null;
  let alias: string | null = null;
  const enter = (tag: SaxesTagNS): void => {
    const attribute = attributesOf(tag);
    if (tag.local === 'lens' && depth === 2) out.lenses.push((lens = lensOf(attribute)));
    else if (tag.local === 'camera' && depth === 2) out.cameras.push(cameraOf(attribute));
    else if (!lens) return;
    else if (tag.local === 'alias' && depth === 3) alias = '';
    else if (tag.local === 'series' && depth === 3) lens.series.push((series = seriesOf(attribute)));
    else if (tag.local === 'sample' && depth === 4 && series?.quantity) addSample(lens, series, sampleOf(tag));
  };
  parser.on('opentag', (tag) => {
    depth++;
    if (depth > DEPTH)
      throw fault('xml-depth', `Elements are nested more than ${DEPTH} deep.`, 'Ask the supplier for the file again.');
    if (depth === 1) {
      checkRoot(tag);
      out.release = attributesOf(tag)('release');
    } else enter(tag);
    if (out.lenses.length + out.cameras.length > MOST)
      throw fault(
        'lens-count',
        `More than ${MOST.toLocaleString('en')} lenses and cameras are not read.`,
        'Split the database by maker.',
      );
  });
  parser.on('text', (text) => {
    if (alias !== null) alias += text;
  });
  parser.on('closetag', (tag) => {
    if (tag.local === 'alias' && alias !== null) {
      if (lens && alias.trim()) lens.aliases.push(alias.trim());
      alias = null;
    }
    if (tag.local === 'series') series = null;
    if (depth === 2) lens = null;
    depth--;
  });
  parser.write(decodeXml(bytes, 'lens database')).close();
  return out;
}
