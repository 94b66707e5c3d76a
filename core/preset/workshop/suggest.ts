/**
 * Which setting a property may be: by the words in its name and the numbers that it holds. A person chooses; nothing is
 * mapped by itself. The words are those of the trade.
 */
import type { MappingEntry } from '../mapping';
import { settingById } from '../settings';
import type { Property, PropertyType } from './survey';

export interface Suggestion {
  /** setting id */ to: string;
  /** all of the entry but for where the property stands */ rule: Omit<
    MappingEntry,
    'step' | 'when' | 'attribute' | 'to'
  >;
  why: string;
}

/** What a setting's property is called, and how far its values usually go to either side of what changes nothing. */
interface Clue {
  to: string;
  words: readonly string[];
  span: number;
  type: PropertyType;
}
const numberClue = (to: string, span: number, ...words: string[]): Clue => ({ to, words, span, type: 'number' });
const curveClue = (to: string, ...words: string[]): Clue => ({ to, words, span: 1, type: 'points' });

/** The more particular ones stand first: a property that fits two is first taken for the first. */
export const clues: readonly Clue[] = [
  numberClue('lowChroma', 100, 'vibrance', 'vibrancy', 'muted'),
  numberClue('chroma', 1, 'saturation', 'sat', 'chroma', 'color', 'colour'),
  numberClue('contrastPivot', 0.5, 'pivot', 'anchor', 'fulcrum'),
  numberClue('localContrast', 100, 'clarity', 'structure', 'local'),
  numberClue('fineDetail', 100, 'texture', 'microcontrast', 'detail'),
  numberClue('contrast', 1, 'contrast', 'gamma'),
  numberClue('level', 5, 'exposure', 'exp', 'ev', 'stops', 'brightness', 'bright', 'level', 'lightness', 'gain'),
  numberClue('whiteTemperature', 10_000, 'kelvin', 'temperature', 'temp'),
  numberClue('warmth', 100, 'warmth', 'warm', 'temperature', 'temp', 'mired'),
  numberClue('whiteTint', 100, 'tint'),
  numberClue('tintShift', 100, 'tint', 'magenta', 'green'),
  numberClue('blackPoint', 0.25, 'black', 'blacks', 'floor'),
  numberClue('whitePoint', 0.25, 'white', 'whites', 'ceiling'),
  numberClue('toe', 100, 'toe', 'shadows', 'shadow', 'lows', 'darks', 'foot'),
  numberClue('shoulder', 100, 'shoulder', 'highlights', 'highlight', 'highs', 'lights', 'head'),
  numberClue('highlightRecovery', 100, 'recovery', 'highlights', 'highlight'),
  numberClue('shadowRecovery', 100, 'fill', 'shadows', 'shadow'),
  numberClue('haze', 100, 'haze', 'fog', 'mist'),
  numberClue('sharpening', 150, 'sharp', 'sharpen', 'sharpness', 'sharpening'),
  numberClue('noiseColor', 100, 'chromanoise', 'noise', 'denoise'),
  numberClue('noiseLuminance', 100, 'noise', 'denoise', 'luminance'),
  numberClue('grain', 100, 'grain'),
  numberClue('vignette', 4, 'vignette', 'vignetting', 'corner', 'corners', 'falloff'),
  numberClue('rotation', 45, 'rotate', 'rotation', 'straighten', 'angle'),
  curveClue('curveRed', 'red', 'r'),
  curveClue('curveGreen', 'green', 'g'),
  curveClue('curveBlue', 'blue', 'b'),
  curveClue('curve', 'curve', 'tone', 'all', 'master', 'rgb', 'points', 'line'),
];

/** The words of a name: `ToneCurve_red2` says tone, curve, red. */
const wordsIn = (name: string): string[] =>
  name
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter(Boolean);

/** The ends that controls usually have. */
const usualEnds = [1, 2, 3, 4, 5, 10, 100, 150, 200, 255, 300, 1000, 5000, 10_000, 50_000] as const;
const endOf = (most: number): number => usualEnds.find((end) => most <= end) ?? most;

const settled = (value: number): number => Number(value.toPrecision(12));

/** Through which scale and offset a property of that range is the setting. */
function numberRule(property: Property, { to, span }: Clue): Suggestion['rule'] {
  const neutral = settingById.get(to)?.neutral;
  const middle = typeof neutral === 'number' ? neutral : 0;
  const { low, high } = property;
  if (low === null || high === null) return {};
  // what goes about the setting's own neutral value is the setting itself: 0.8 to 1.4 for a factor
  const isItself = middle !== 0 && low > 0 && high <= middle + 3 * span;
  if (isItself) return {};
  const end = endOf(Math.max(Math.abs(low), Math.abs(high)));
  const near = end >= span / 4 && end <= span * 2;
  const scale = near && middle === 0 ? 1 : settled(span / end);
  return {
    ...(scale === 1 ? {} : { scale }),
    ...(middle === 0 ? {} : { offset: middle }),
    // a program that keeps whole numbers may refuse others
    ...(property.whole && end > 10 ? { multipleOf: 1 } : {}),
  };
}

/** Curves lie from 0 to 1; files have them in code values, in percent or so already. */
function curveRule(property: Property): Suggestion['rule'] {
  const end = endOf(property.high ?? 1);
  const rule = { as: 'points' as const, ...(property.separators ? { separators: property.separators } : {}) };
  return end <= 2 ? rule : { ...rule, scale: settled(1 / end) };
}

const rangeWords = ({ low, high }: Property): string =>
  low === null || high === null ? '' : `, ${low} to ${high} in the samples`;

/** What a property may be, the likeliest first. */
export function suggestionsFor(property: Property): Suggestion[] {
  const own = wordsIn(property.attribute);
  const around = [...wordsIn(property.step), ...Object.values(property.when).flatMap(wordsIn)];
  const scored = clues.flatMap((clue) => {
    if (clue.type !== property.type) return [];
    const named = clue.words.find((word) => own.includes(word));
    const placed = clue.words.find((word) => around.includes(word));
    const score = (named ? 2 : 0) + (placed ? 1 : 0);
    const word = named ?? placed;
    if (!word) return [];
    const rule = clue.type === 'points' ? curveRule(property) : numberRule(property, clue);
    return [{ score, suggestion: { to: clue.to, rule, why: `its name says “${word}”${rangeWords(property)}` } }];
  });
  return scored.sort((a, b) => b.score - a.score).map(({ suggestion }) => suggestion);
}
