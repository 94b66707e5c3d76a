/** A lens database whose distortions and chromatic aberrations are said by another model; all else of it stays as it is written. */
import type { Element } from '@xmldom/xmldom';
import { must } from '../must';
import { Problem } from '../problem';
import { bytesOf, elementsOf, treeOf } from '../xml-tree';
import { calibrations, type CalibratedLens, type Sample, type Series } from './calibrated';
import { lensName } from './name';
import { directionNames, UNIT } from './correction';
import { fit, type Fit, type Fitted } from './fit';
import { evaluated, modelOf } from './models';
import type { Direction } from './points';
import { radiusOf, reachOf, rises, type Radial } from './radial';

export interface ConvertedSample {
  lens: CalibratedLens;
  series: Series;
  /** mm */ focal: number | null;
  /** what is left of it, or why it stays as it was */ came: Fit | { why: string };
}
export interface ConvertedDatabase {
  bytes: Uint8Array;
  samples: ConvertedSample[];
}

type RadiusSeries = Series & { quantity: 'distortion' | 'lateral chromatic aberration' };
const isRadius = (series: Series): series is RadiusSeries =>
  series.quantity === 'distortion' || series.quantity === 'lateral chromatic aberration';

/**
 * @param to the model
 * @param direction null: as each series has it
 * @throws a Problem where the file is no lens database
 */
export function convertDatabase(bytes: Uint8Array, to: Fitted, direction: Direction | null): ConvertedDatabase {
  const { lenses } = calibrations(bytes);
  const tree = treeOf(bytes, 'lens database');
  const root = must(tree.documentElement);
  const samples: ConvertedSample[] = [];
  for (const [n, element] of childrenOf(root, 'lens').entries()) {
    const lens = must(lenses[n]);
    for (const [m, one] of childrenOf(element, 'series').entries()) {
      const series = must(lens.series[m]);
      if (isRadius(series)) samples.push(...convertSeries(one, lens, series, to, direction));
    }
  }
  if (!samples.length)
    throw new Problem(
      'lens-nothing-to-convert',
      'This database measures neither distortion nor lateral chromatic aberration.',
      'the lenses',
      'Take a database that does.',
    );
  return { bytes: bytesOf(tree), samples };
}

const childrenOf = (parent: Element, name: string): Element[] =>
  elementsOf(parent).filter((element) => element.localName === name);

/** A series is converted whole or not at all, since it has one model. */
function convertSeries(
  element: Element,
  lens: CalibratedLens,
  series: RadiusSeries,
  to: Fitted,
  wanted: Direction | null,
): ConvertedSample[] {
  const direction = wanted ? directionNames[wanted] : series.direction;
  const came = series.samples.map((sample): ConvertedSample => ({
    lens,
    series,
    focal: sample.focal,
    came: converted(series, sample, to, direction),
  }));
  if (came.some((one) => 'why' in one.came)) return came.map((one) => leftAlone(one));
  element.setAttribute('model', to);
  element.setAttribute('direction', direction);
  for (const [n, sample] of childrenOf(element, 'sample').entries()) {
    const { came: one } = must(came[n]);
    if ('k' in one) writeCoefficients(sample, one.k);
  }
  return came;
}

const leftAlone = (one: ConvertedSample): ConvertedSample =>
  'why' in one.came ? one : { ...one, came: { why: 'another sample of its series cannot be converted' } };

const PLACES = 15;

function writeCoefficients(sample: Element, k: Record<string, number>): void {
  const old = [...sample.attributes].map(({ name }) => name).filter((name) => /^k\d$/.test(name));
  for (const name of old) sample.removeAttribute(name);
  for (const [name, value] of Object.entries(k)) sample.setAttribute(name, String(Number(value.toPrecision(PLACES))));
}

function converted(series: RadiusSeries, sample: Sample, to: Fitted, direction: string): Fit | { why: string } {
  // a color that is larger than green is beyond a model that leaves the middle as it is
  if (to === 'division' && series.quantity !== 'distortion')
    return { why: 'a color may be larger than another, which this model cannot say' };
  const model = modelOf(series.quantity, series.model);
  if (!model) return { why: `its model “${series.model}” is not known here` };
  if (series.unit !== UNIT) return { why: `its unit “${series.unit}” is not known here` };
  if (!Object.values<string>(directionNames).includes(series.direction))
    return { why: `its direction “${series.direction}” is not known here` };
  if (Object.values(sample.k).some((value) => !Number.isFinite(value)))
    return { why: 'one of its figures is no number' };
  const radial = evaluated(model, sample.k);
  if (direction === series.direction) return rises(radial, 1) ? fit(to, radial) : FOLDED;
  const turned = turnedRound(radial);
  return turned ? fit(to, turned) : FOLDED;
}

const FOLDED = { why: 'its figures show one place twice' };
const FARTHEST = 3;

function turnedRound(radial: Radial): Radial | null {
  const most = reachOf(radial, 1, FARTHEST);
  return most === null ? null : (r) => must(radiusOf(radial, r, most));
}

/** As a result tells it: what is left in pixels of a picture whose half diagonal is said. */
export function toldSample({ lens, series, focal, came }: ConvertedSample, half: number) {
  const left = 'why' in came ? { maxPixels: null, meanPixels: null, left: came.why } : null;
  const done = 'why' in came ? null : { maxPixels: came.most * half, meanPixels: came.mean * half };
  return { lens: lensName(lens), quantity: series.quantity, channel: series.channel, focal, ...left, ...done };
}
