/** The figures of an inspection in words, in the order in which they are shown. */
import type { Inspection } from './inspect';

type Figures = Inspection['figures'];
/** Those that are one number. */
export type FigureName = {
  [Name in keyof Figures]: Figures[Name] extends number | null ? Name : never;
}[keyof Figures];

export interface FigureWords {
  name: FigureName;
  words: string;
  /** at the head of a column */ short: string;
  unit: string;
  /** whether more of it is worse: what a table shows first when it is sorted by it */ worse: 'more' | 'less';
}

const figure = (name: FigureName, words: string, short: string, unit: string): FigureWords => ({
  name,
  words,
  short,
  unit,
  worse: 'more',
});

export const inspectionFigures: readonly FigureWords[] = [
  figure('banding', 'bands', 'bands', 'code values of 8 bits'),
  { ...figure('shadowLevels', 'levels of the darkest 32', 'shadow levels', ''), worse: 'less' },
  figure('clippedHighlights', 'clipped highlights', 'clipped high', '% of the neutral scale'),
  figure('clippedShadows', 'clipped shadows', 'clipped low', '% of the neutral scale'),
  figure('largestFall', 'largest fall of the neutrals', 'fall', 'L*'),
  figure('neutralTint', 'largest tint of the neutrals', 'tint', 'C*'),
  figure('folds', 'folds', 'folds', '% of cells'),
  figure('outOfRange', 'out of range', 'out of range', '% of entries'),
  figure('hueSwing', 'largest turn of a hue', 'hue turn', '°'),
  figure('skinTurn', 'turn of skin colors', 'skin turn', '°'),
  figure('roughness', 'roughness', 'roughness', 'code values of 8 bits'),
];

/** With as many digits as mean something; "none" for what cannot be said. */
export function figureText(value: number | null): string {
  if (value === null) return 'none';
  if (Number.isInteger(value)) return String(value);
  return value.toFixed(Math.abs(value) < 1 ? 2 : 1);
}

/** The codes of findings in words. */
export const findingWords: Readonly<Record<Inspection['findings'][number]['code'], string>> = {
  banding: 'Bands',
  'crushed-shadows': 'Crushed shadows',
  'clipped-highlights': 'Clipped highlights',
  'clipped-shadows': 'Clipped shadows',
  'non-monotone-neutral': 'Neutrals fall',
  'neutral-tint': 'Tinted neutrals',
  fold: 'Folds',
  'out-of-range': 'Out of range',
  'hue-swing': 'Hues swing',
};
