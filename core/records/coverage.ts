/** Coverage: the studio's own cameras and lenses, each beside what is held for it and which editors read it. */
import type { CalibratedLens } from '../lens/calibrated';
import { lensName } from '../lens/name';
import { quantities } from '../lens/models';
import { serves } from '../lens/sensor';
import { bearer, bears, cameraForm, lensForm, type Named } from './names';
import { bodyNames, isBody, type UsedCamera } from './used-there';

export interface Camera extends UsedCamera {
  id: string;
  serials: readonly string[];
  mount: string;
  /** of the sensor: 43.27 mm by its diagonal */ crop: number | null;
}
export interface Lens extends Named {
  id: string;
  mount: string;
}

/** Profiles that name the same cameras and are from one source. */
interface ProfilesHeld {
  /** bodies that they are for, as items name them */ cameras: readonly string[];
  source: string;
  held: number;
  approved: number;
}
/** null: the descriptor says nothing of it. */
export interface Support {
  key: string;
  title: string;
  cameras: 'all' | readonly string[] | null;
}
export type Reads = 'yes' | 'no' | 'unknown';
/** `covered`: something approved, or complete; `partly`: drafts alone, or with something missing; `none`. */
export type Covered = 'covered' | 'partly' | 'none';

export interface CameraLine {
  camera: Camera;
  state: Covered;
  /** the camera as the first of them name it, by which the shelves are searched; '' without any */ named: string;
  sources: { source: string; held: number; approved: number }[];
  reads: { key: string; title: string; answer: Reads }[];
}

/** Whether an editor reads this camera's data: by the name in its files, which a conversion does not change. */
export const readsCamera = (support: Pick<Support, 'cameras'>, named: Named): Reads => {
  if (support.cameras === null) return 'unknown';
  if (support.cameras === 'all' || support.cameras.some((n) => bears(named, cameraForm, n))) return 'yes';
  return 'no';
};

/** One line a camera, those with the least first. */
export function cameraCoverage(
  cameras: readonly Camera[],
  profiles: readonly ProfilesHeld[],
  editors: readonly Support[],
): CameraLine[] {
  const named = bearer(cameraForm);
  return cameras
    .map((camera): CameraLine => {
      const body = bodyNames(camera);
      const own = profiles.filter((p) => named(body, p.cameras));
      const sources = new Map<string, { source: string; held: number; approved: number }>();
      for (const profilesHeld of own) {
        const source = sources.get(profilesHeld.source) ?? { source: profilesHeld.source, held: 0, approved: 0 };
        source.held += profilesHeld.held;
        source.approved += profilesHeld.approved;
        sources.set(profilesHeld.source, source);
      }
      return {
        camera,
        state: coveredBy(
          own.some((profile) => profile.approved),
          own.length > 0,
        ),
        named: own[0]?.cameras.find((n) => named(body, [n])) ?? '',
        sources: [...sources.values()].sort(
          (a, b) => b.approved - a.approved || b.held - a.held || a.source.localeCompare(b.source),
        ),
        reads: editors.map((e) => ({ key: e.key, title: e.title, answer: readsCamera(e, camera) })),
      };
    })
    .sort(leastFirst);
}

export interface DatabaseHeld {
  item: string;
  title: string;
  release: string;
  lenses: readonly CalibratedLens[];
}
export interface LensFound {
  item: string;
  title: string;
  release: string;
  /** as the database calls it */ as: string;
  quantities: string[];
  focal: [number, number] | null;
  /** why it may not serve: '' where it does */ but: string;
}
export interface LensLine {
  lens: Lens;
  state: Covered;
  found: LensFound[];
  /** what no database calibrates for it */ missing: string[];
}

export function lensCoverage(
  lenses: readonly Lens[],
  cameras: readonly Camera[],
  databases: readonly DatabaseHeld[],
): LensLine[] {
  const named = bearer(lensForm);
  return lenses
    .map((lens): LensLine => {
      const bodies = cameras.filter((c) => c.mount && lens.mount && c.mount.toLowerCase() === lens.mount.toLowerCase());
      const found = databases.flatMap((databaseHeld) =>
        databaseHeld.lenses
          .filter((l) => named(lens, [l.model, ...l.aliases]))
          .map((calibratedLens): LensFound => {
            const small = bodies.filter((c) => !serves(calibratedLens.crop, c.crop));
            const otherMount =
              calibratedLens.mount !== '' &&
              lens.mount !== '' &&
              calibratedLens.mount.toLowerCase() !== lens.mount.toLowerCase();
            let but = '';
            if (!calibratedLens.quantities.length) but = 'it is named, without any measurement';
            else if (otherMount) but = `it is the one with the mount ${calibratedLens.mount}`;
            else if (small.length) {
              const bodies = small.map((body) => body.model).join(', ');
              but = `it was measured on a smaller sensor (crop ${calibratedLens.crop}) than that of the ${bodies}`;
            }
            return {
              item: databaseHeld.item,
              title: databaseHeld.title,
              release: databaseHeld.release,
              as: lensName(calibratedLens),
              quantities: calibratedLens.quantities,
              focal: calibratedLens.focal,
              but,
            };
          }),
      );
      const measured = new Set(found.filter((f) => !f.but).flatMap((f) => f.quantities));
      const missing = quantities.filter((x) => !measured.has(x));
      return { lens, state: coveredBy(found.length > 0 && !missing.length, found.length > 0), found, missing };
    })
    .sort(leastFirst);
}

function coveredBy(whole: boolean, some: boolean): Covered {
  if (whole) return 'covered';
  return some ? 'partly' : 'none';
}

const RANK: Record<Covered, number> = { none: 0, partly: 1, covered: 2 };
/** Those with gaps first; else as they came. */
function leastFirst(one: { state: Covered }, other: { state: Covered }): number {
  return RANK[one.state] - RANK[other.state];
}

/** What can be asked for. */
export const wishes = ['camera profile', 'lens calibration', 'support in an editor'] as const;
export interface Wish {
  camera: string | null;
  lens: string | null;
  wanted: string;
  /** a supplier, or the maker of an editor; '' for anyone */ askedOf: string;
}

/** Whether coverage has since what was asked for: a profile, a whole calibration, or an editor, of the maker who was asked, that reads the camera. */
export function isMet(wish: Wish, cameras: readonly CameraLine[], lenses: readonly LensLine[]): boolean {
  const camera = cameras.find((l) => l.camera.id === wish.camera);
  const lens = lenses.find((l) => l.lens.id === wish.lens);
  if (wish.wanted === 'camera profile') return !!camera && camera.state !== 'none';
  if (wish.wanted === 'lens calibration') return lens?.state === 'covered';
  return !!camera?.reads.some(
    (r) => r.answer === 'yes' && r.title.toLowerCase().startsWith(wish.askedOf.toLowerCase()),
  );
}

/** Cameras and lenses that files name and the studio's list does not have, each once. */
export function unlisted(
  seen: readonly { maker: string; camera: string; conversion: string; serial: string; lens: string }[],
  cameras: readonly Camera[],
  lenses: readonly Lens[],
): {
  cameras: { maker: string; model: string; conversion: string; serials: string[] }[];
  lenses: { maker: string; model: string }[];
} {
  const bodies = new Map<string, { maker: string; model: string; conversion: string; serials: string[] }>();
  const glass = new Map<string, { maker: string; model: string }>();
  for (const photo of seen) {
    if (photo.camera && !cameras.some((c) => isBody(c, [photo.camera, photo.conversion].filter(Boolean).join(', ')))) {
      const key = cameraForm(`${photo.camera} ${photo.conversion}`, photo.maker);
      const body = bodies.get(key) ?? {
        maker: photo.maker,
        model: photo.camera,
        conversion: photo.conversion,
        serials: [],
      };
      if (photo.serial && !body.serials.includes(photo.serial)) body.serials.push(photo.serial);
      bodies.set(key, body);
    }
    if (photo.lens && !lenses.some((l) => bears(l, lensForm, photo.lens))) {
      const maker = photo.maker && photo.lens.toLowerCase().startsWith(photo.maker.toLowerCase()) ? photo.maker : '';
      glass.set(lensForm(photo.lens, maker), glass.get(lensForm(photo.lens, maker)) ?? { maker, model: photo.lens });
    }
  }
  return { cameras: [...bodies.values()], lenses: [...glass.values()] };
}
