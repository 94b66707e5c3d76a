/** What is being said of a column on the frames of the bench, before it is sent. */
import type { Gamut } from '@/core/bench/display-gamut';
import type { Candidate } from './candidate';
import { topLayer, type Column } from './column';

export interface JudgedFrame {
  id: string;
  name: string;
  camera: string;
  light: string;
}

export interface Judgement {
  words: string;
  chosen: boolean;
  /** whether it does what it is meant to do; null while nobody says */ asMeant: boolean | null;
  ribbon: boolean;
  /** its strength here becomes the usual one */ advise: boolean;
  keepTrim: boolean;
  house: boolean;
  client: string;
  /** the house choice holds for more than the cases at hand */ any: { camera: boolean; light: boolean; kind: boolean };
  /** a step of the work, on or off */ beside: string;
  /** the day on which the display was calibrated last */ calibrated: string;
  gamut: Gamut | null;
}

export const beginning: Judgement = {
  words: '',
  chosen: true,
  asMeant: null,
  ribbon: false,
  advise: false,
  keepTrim: false,
  house: false,
  client: '',
  any: { camera: false, light: false, kind: false },
  beside: '',
  calibrated: '',
  gamut: null,
};

/** The cases for which a house choice would hold, each once. */
export function casesOf({ any }: Judgement, frames: readonly JudgedFrame[]): string[] {
  const cases = frames.map((frame) => {
    const camera = any.camera ? 'any camera' : frame.camera || 'no camera';
    const light = any.light ? 'any light' : frame.light || 'no light';
    return `${camera}, ${light}`;
  });
  return [...new Set(cases)];
}

interface About {
  blind: boolean;
  column: Column;
  profile: Candidate | null;
  look: Candidate | null;
  frames: readonly JudgedFrame[];
}

/** As the server takes it. */
export function decisionOf(judgement: Judgement, { blind, column, profile, look, frames }: About) {
  const { source } = column;
  const { any, client } = judgement;
  return {
    profile: profile?.versionId ?? null,
    look: look?.versionId ?? null,
    strength: topLayer(column)?.strength ?? 100,
    frames: frames.map((frame) => frame.id),
    stages: profile && source.from === 'profile' ? source.stages : null,
    beside: judgement.beside,
    words: judgement.words,
    asMeant: judgement.asMeant,
    chosen: judgement.chosen,
    blind,
    ribbon: judgement.ribbon,
    advise: judgement.advise,
    display: { gamut: judgement.gamut ?? '', calibrated: judgement.calibrated },
    compensation: judgement.keepTrim ? column.trim : null,
    choice:
      judgement.house && judgement.chosen
        ? { client, anyCamera: any.camera, anyLight: any.light, anyKind: any.kind }
        : null,
  };
}

/** Why it cannot become the house choice as it is; '' where nothing is in the way. */
export function obstacle({ profile, look, frames }: Pick<About, 'profile' | 'look' | 'frames'>): string {
  const unapproved = [profile, look].find((one) => one && one.status !== 'approved');
  if (unapproved)
    return `${unapproved.title} is ${unapproved.status === 'draft' ? 'a draft' : unapproved.status}: approve it first`;
  const cameras = profile?.cameras ?? [];
  if (cameras.length && !frames.some((frame) => cameras.includes(frame.camera)))
    return `${profile?.title ?? 'The profile'} was seen on no frame of the ${cameras.join(' or ')}`;
  return '';
}
