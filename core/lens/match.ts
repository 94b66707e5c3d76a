/** Which lens of a database a photo was taken with: by its name, another name, or a likely one; always with the reason. */
import { bears, cameraForm, lensForm } from '../records/names';
import type { CalibratedLens, Calibrations, KnownCamera } from './calibrated';
import { lensName } from './name';

export interface Sought {
  /** as the photo says it; '' where it does not */ camera: string;
  lens: string;
  /** mm */ focal: number | null;
}
export interface LensMatch {
  calibrated: CalibratedLens;
  /** it bears the very name, or only one like it */ by: 'name' | 'likeness';
  /** 1 is certain */ confidence: number;
  reason: string;
}

const ALIAS = 0.95;
/** What a likely name is worth at most, and from which share of common words on it is one. */
const LIKELY = 0.85;
const COMMON = 0.5;
/** What stays of the confidence where something else speaks against it. */
const DOUBT = 0.5;

/** The database's own record of a camera. */
export const cameraOf = ({ cameras }: Calibrations, name: string): KnownCamera | null =>
  cameras.find(({ maker, model }) => bears({ maker, model, names: [] }, cameraForm, name)) ?? null;

/** Those that a photo may have been taken with, the surest first; none is chosen. */
export function matches(database: Calibrations, sought: Sought): LensMatch[] {
  const mount = cameraOf(database, sought.camera)?.mount ?? '';
  const found = database.lenses.flatMap((calibrated) => {
    const name = byName(calibrated, sought.lens);
    return name ? (weighed({ calibrated, ...name }, sought, mount) ?? []) : [];
  });
  return found.sort((a, b) => b.confidence - a.confidence);
}

type ByName = Omit<LensMatch, 'calibrated'>;

function byName({ maker, model, aliases }: CalibratedLens, wanted: string): ByName | null {
  if (!wanted.trim()) return null;
  if (bears({ maker, model, names: [] }, lensForm, wanted))
    return { by: 'name', confidence: 1, reason: 'the same name' };
  const alias = aliases.find((one) => bears({ maker, model: one, names: [] }, lensForm, wanted));
  if (alias) return { by: 'name', confidence: ALIAS, reason: `its other name “${alias}”` };
  const share = Math.max(
    ...[model, ...aliases].map((one) => commonWords(lensForm(one, maker), lensForm(wanted, maker))),
  );
  if (share < COMMON) return null;
  return {
    by: 'likeness',
    confidence: LIKELY * share,
    reason: `${Math.round(share * 100)} % of the words of both names are the same`,
  };
}

const NUMBER = /\d/;

/** The share of words that two names have in common; none where their numbers contradict one another. */
function commonWords(one: string, other: string): number {
  const words = new Set(one.split(' '));
  const others = new Set(other.split(' '));
  const common = [...words].filter((word) => others.has(word)).length;
  const numbered = (set: Set<string>): string[] => [...set].filter((word) => NUMBER.test(word));
  const contradicts =
    numbered(words).some((word) => !others.has(word)) && numbered(others).some((word) => !words.has(word));
  return contradicts ? 0 : (2 * common) / (words.size + others.size);
}

/** What mount and focal length say to it: a likely name is dropped by them, a sure one becomes doubtful. */
function weighed(match: LensMatch, { focal }: Sought, mount: string): LensMatch | null {
  const against: string[] = [];
  const { calibrated } = match;
  if (mount && calibrated.mount && calibrated.mount !== mount)
    against.push(`it is of the mount ${calibrated.mount}, and the camera has ${mount}`);
  const range = calibrated.focal;
  if (focal !== null && range && (focal < range[0] || focal > range[1]))
    against.push(`it was measured ${rangeWords(range)}, and the photo was taken at ${focal} mm`);
  if (!against.length) return match;
  if (match.by === 'likeness') return null;
  const confidence = match.confidence * DOUBT ** against.length;
  return { ...match, confidence, reason: [match.reason, ...against].join('; but ') };
}

const rangeWords = ([least, most]: [number, number]): string =>
  least === most ? `at ${least} mm` : `from ${least} to ${most} mm`;

/** As a result tells it. */
export const toldMatch = ({ calibrated, confidence, reason }: LensMatch) => ({
  lens: lensName(calibrated),
  mount: calibrated.mount,
  confidence,
  reason,
});
