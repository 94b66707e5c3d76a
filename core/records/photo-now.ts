/** What a photo has on it now, told by the mappings of the editors that the studio knows: from its sidecar, or from the packet in its file. */
import { editorKey, type Descriptor } from '../editor/descriptor';
import { packetIn } from '../frame/packet';
import { settingById } from '../preset/settings';
import { Problem } from '../problem';
import { readPreset } from '../recognise/presets';

export interface PhotoNow {
  /** where it is told */ from: 'sidecar' | 'file';
  /** whose words they are */ editor: string;
  /** of the preset that was laid, where the words name one */ preset: string;
  profile: string;
  looks: { name: string; /** in percent; null where it is not said */ strength: number | null }[];
  /** what else is set, in the words of the common settings */ settings: string[];
  /** settings that no mapping knows */ unknown: number;
}

/** Why nothing is told: no words at all, in no language that is known, or broken. */
export interface Untold {
  why: string;
}

export interface PhotoFile {
  path: string;
  bytes: Uint8Array;
}

/** Settings that name other items, which are told apart. */
const references = new Set(['look', 'cameraProfile']);

function nowIn(path: string, bytes: Uint8Array, descriptors: readonly Descriptor[]): Omit<PhotoNow, 'from'> {
  const { read, facts, title } = readPreset(path, bytes, descriptors);
  const language = String(facts.language);
  const descriptor = descriptors.find((one) => editorKey(one) === language);
  return {
    editor: descriptor?.title ?? language,
    preset: read.name ? title : '',
    profile: read.references.find(({ kind }) => kind === 'camera-profile')?.name ?? '',
    looks: read.references
      .filter(({ kind }) => kind === 'look')
      .map(({ name, strength }) => ({
        name,
        strength: strength === undefined ? null : Math.round(strength),
      })),
    settings: Object.keys(read.settings)
      .filter((id) => !references.has(id))
      .flatMap((id) => settingById.get(id)?.title ?? []),
    unknown: Object.keys(read.unknown).length,
  };
}

/**
 * What is on a photo. The sidecar counts before the file itself: it is what an editor wrote last.
 * @param sidecar null where none lies beside it
 */
export function photoNow(
  photo: PhotoFile,
  sidecar: PhotoFile | null,
  descriptors: readonly Descriptor[],
): PhotoNow | Untold {
  try {
    if (sidecar) return { from: 'sidecar', ...nowIn(sidecar.path, sidecar.bytes, descriptors) };
    const packet = packetIn(photo.bytes);
    if (!packet) return { why: 'nothing is written in it, and no sidecar lies beside it' };
    return { from: 'file', ...nowIn(photo.path, packet, descriptors) };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return {
      why:
        error.code === 'preset-language'
          ? 'no descriptor of the studio describes its language'
          : `what is written cannot be read: ${error.message}`,
    };
  }
}

const withoutExtension = (path: string): string => path.replace(/\.[^./]+$/, '');

/** The file that lies beside a photo and speaks of it: "IMG 7.xmp" or "IMG 7.dng.xmp" beside "IMG 7.dng". Null where there is none. */
export function sidecarOf<T extends { path: string }>(photo: string, files: readonly T[]): T | null {
  const base = withoutExtension(photo).toLowerCase();
  const isBeside = ({ path }: T): boolean => {
    const beside = withoutExtension(path).toLowerCase();
    return path !== photo && (beside === base || beside === photo.toLowerCase());
  };
  return files.find(isBeside) ?? null;
}
