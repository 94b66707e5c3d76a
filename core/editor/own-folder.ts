/**
 * Where an editor's files may lie. A descriptor comes from people, and sometimes from strangers: what it names is read and
 * written by agents at every workstation, so it is held to the folders of its editor.
 */
import type { Descriptor } from './descriptor';

/** Folders from which systems start programs, or in which people keep their keys; nobody writes looks there. */
const NEVER = [
  'autostart',
  'startup',
  'startupitems',
  'start menu',
  'launchagents',
  'launchdaemons',
  'systemd',
  'cron',
  'cron.d',
  '.ssh',
  '.gnupg',
  '.aws',
  '.pki',
  'keychains',
  'credentials',
  'protect',
];

/** Endings of files that a system runs when they are opened, or at its start. */
const PROGRAMS =
  /^\.(exe|com|bat|cmd|scr|msi|ps1|vbs|js|jse|wsf|hta|lnk|pif|reg|dll|sys|cpl|desktop|sh|bash|zsh|csh|fish|command|app|pkg|dmg|plist|service|timer|so|dylib|jar|py|pl|rb|php|lua|scpt|workflow|action|url|webloc)$/i;

/** Folders that programs and people share: they are nobody's own, whatever an editor calls itself. */
const SHARED = [
  'application support',
  'appdata',
  'applications',
  'config',
  'desktop',
  'documents',
  'downloads',
  'fonts',
  'home',
  'library',
  'local',
  'movies',
  'music',
  'photos',
  'pictures',
  'preferences',
  'programs',
  'public',
  'roaming',
  'share',
  'templates',
  'videos',
];

const DEVICES = /^(con|prn|aux|nul|com[0-9¹²³]|lpt[0-9¹²³])(\.|$)/i;

/** Control characters, and marks that turn the direction of text or are not seen: a name with them looks like another. */
const UNSEEN = /[\u0000-\u001f\u007f-\u009f\u00ad\u200b-\u200f\u202a-\u202e\u2060-\u2069\ufeff]/u;

/** Whether a system takes it for a device and not for a file. */
export const isDevice = (name: string): boolean => DEVICES.test(name);
export const isProgram = (extension: string): boolean => PROGRAMS.test(extension);
export const hasUnseen = (text: string): boolean => UNSEEN.test(text);

const segmentsOf = (template: string): string[] => template.split('/').slice(1);

/** What is wrong with a template of a path, as the end of a sentence; null where nothing is. */
export function faultOfPlace(template: string): string | null {
  for (const segment of segmentsOf(template)) {
    if (segment === '..' || segment === '.') return 'steps out of its folder';
    if (hasUnseen(segment) || segment !== segment.normalize('NFC')) return 'has signs that are not seen';
    if (segment !== segment.trim() || segment.endsWith('.'))
      return 'has a name that begins or ends in a space or a dot';
    if (isDevice(segment)) return `names a device: ${segment}`;
    if (NEVER.includes(segment.toLowerCase())) return `lies where systems keep programs or keys: ${segment}`;
  }
  return null;
}

/** The words by which a folder is known for the editor's own: four letters or more of its identifier and its title. */
const wordsOf = ({ editor, title }: Pick<Descriptor, 'editor' | 'title'>): string[] =>
  `${editor} ${title}`
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word.length >= 4);

/** A card has nothing on it but the camera's; elsewhere, a folder on the way has to bear the editor's name. */
function isOwn(template: string, words: readonly string[]): boolean {
  const segments = segmentsOf(template).map((segment) => segment.toLowerCase());
  const own = segments.findIndex(
    (segment) => !SHARED.includes(segment) && words.some((word) => segment.includes(word)),
  );
  const isHidden = (segment: string): boolean => segment.startsWith('.');
  if (template.startsWith('{media}')) return !segments.some(isHidden);
  return own >= 0 && !segments.slice(0, own).some(isHidden);
}

/** All paths that a descriptor names, with what they are for. */
export function placesNamed(descriptor: Descriptor): { what: string; template: string }[] {
  const of = (what: string, by: Record<string, string | undefined>): { what: string; template: string }[] =>
    Object.entries(by).flatMap(([system, template]) => (template ? [{ what: `${what}, ${system}`, template }] : []));
  return [
    ...of('its list', descriptor.listing),
    ...Object.entries(descriptor.places).flatMap(([place, by]) => of(`place ${place}`, by)),
    ...descriptor.accepts.flatMap(({ index, place }) => (index ? of(`index of ${place}`, index.path) : [])),
    ...of('its favorites', descriptor.favorites?.list ?? {}),
    ...of('its opening rules', descriptor.opening?.list ?? {}),
    ...of('its pictures', descriptor.renders?.folder ?? {}),
  ];
}

/** Which of them lie outside the editor's own folders: those need a word of the studio. */
export function placesOutside(descriptor: Descriptor): { what: string; template: string }[] {
  const words = wordsOf(descriptor);
  return placesNamed(descriptor).filter(({ template }) => !isOwn(template, words));
}
