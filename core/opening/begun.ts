/** What a photo is begun with: the first of a list's rules that fits it. */
import { settings, type Rule, type Setting } from './rule';

export interface OpenedPhoto {
  /** the body that took it, as rules name it; "" where the file does not say */ camera: string;
  input: 'camera data' | 'rendered SDR' | 'rendered HDR';
  lens: 'matched' | 'not matched';
  iso: number | null;
}

/** A rule as far as it is understood. */
export interface UnderstoodRule {
  rule: Rule;
  /** whether all of its conditions are known */ isWhole: boolean;
  /** words of it that are not known here */ unknown: readonly string[];
}

export type Begun =
  | { is: 'by rule'; rule: Rule }
  /** no rule fits: the editor does it in its own way */
  | { is: 'by itself' }
  /** the rule says something of photos that nobody here understands, and may fit or not */
  | { is: 'unsure'; unknown: readonly string[] };

function isWithin(range: string, iso: number | null): boolean {
  const [from, to] = range.split('-');
  return iso !== null && iso >= Number(from) && (!to || iso <= Number(to));
}

const isNamed = (said: string | undefined, own: string): boolean =>
  said === undefined || said.toLowerCase() === own.toLowerCase();

function fits({ when }: Rule, photo: OpenedPhoto): boolean {
  return (
    isNamed(when.camera, photo.camera) &&
    isNamed(when.input, photo.input) &&
    isNamed(when.lens, photo.lens) &&
    (when.iso === undefined || isWithin(when.iso, photo.iso))
  );
}

/** @param rules in the order of their list */
export function begunBy(rules: readonly UnderstoodRule[], photo: OpenedPhoto): Begun {
  const first = rules.find(({ rule }) => fits(rule, photo));
  if (!first) return { is: 'by itself' };
  return first.isWhole ? { is: 'by rule', rule: first.rule } : { is: 'unsure', unknown: first.unknown };
}

/** What only camera data has. */
const ofCameraData: readonly Setting[] = ['lens', 'noise', 'curve', 'exposure', 'profile'];

/** The settings of a start that a picture of such a photo cannot show, in words; the raw engine is each editor’s own, and none shows it. */
export function notShownOf(start: Rule['start'], input: OpenedPhoto['input']): string[] {
  if (input === 'camera data') return [];
  const isNothing = (name: Setting): boolean => (name === 'lens' || name === 'noise') && start[name] === 'none';
  return ofCameraData.flatMap((name) =>
    start[name] && !isNothing(name) ? [`${settings[name].label.toLowerCase()}: ${start[name]}`] : [],
  );
}
